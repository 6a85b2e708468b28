import type { Row } from '@eskovan/core/document';
import { orbitToTravel, travelToGlide, type CompiledMove } from '@eskovan/core/move';
import { toast } from 'sonner';
import { editBody } from '../../data/edit-row.ts';

const newId = () => crypto.randomUUID();

/** Makes a travel of an orbit: the same pictures, as poses that can be moved. */
export function makeTravel(row: Row<'move'>, move: CompiledMove): void {
  editBody('move', row, 'Make it a travel', (body) =>
    body.kind === 'orbit' ? orbitToTravel(body, move, newId) : body,
  );
}

/** Makes a glide of a travel: the same way, looks and pace, in which places do not hang on times any more. */
export function makeGlide(row: Row<'move'>, move: CompiledMove): void {
  editBody('move', row, 'Make it a glide', (body) => {
    const glide = body.kind === 'travel' ? travelToGlide(body, move, newId) : null;
    if (!glide) toast('It goes nowhere yet: a glide needs a way.');
    return glide ?? body;
  });
}
