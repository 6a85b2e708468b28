import {
  lengthText,
  type Bounds,
  type Lens,
  type LengthUnit,
  type MoveBody,
  type Pose,
  type ProjectDocument,
  type Row,
} from '@eskovan/core/document';
import { toDegrees } from '@eskovan/core/geometry';
import type { CompiledMove } from '@eskovan/core/move';
import { Footprints, Route } from 'lucide-react';
import { memo, useCallback, useDeferredValue } from 'react';
import { workbench } from '../../desk/workbench.ts';
import { makeRow } from '../../data/edit-row.ts';
import { orderAfter } from '../../data/order.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, useLengthUnit } from '../../kit/index.ts';
import { RowShelf } from '../shared/row-shelf.tsx';
import { emptyGlide, emptyRide, emptyWalk, firstFollow, firstOrbit, firstTravel } from './edit-move.ts';
import { copyOf, moveMenu } from './move-menu.tsx';
import { FirstMoves, NewMove } from './new-move.tsx';
import { kindOf } from './kinds.tsx';
import { useCompiling } from '../shared/use-compiled-move.ts';

function addMove({ project, move }: ProjectDocument, label: string, word: string, body: MoveBody, own?: string): void {
  const moves = liveRows(move);
  const name = own?.slice(0, 120) ?? `${word} ${moves.length + 1}`;
  workbench.selectMove(makeRow('move', project.id, label, { name, order: orderAfter(moves), body }));
}

/** Makes a walk without a path and takes up the pencil. */
export function addWalk(document: ProjectDocument): void {
  addMove(document, 'New walk', 'Walk', emptyWalk(document.project.body.eyeHeight));
  workbench.set({ tool: 'draw' });
}

/** Makes a walk of a way that was found. */
export function addFoundWalk(document: ProjectDocument, body: MoveBody, name: string): void {
  addMove(document, 'New walk', 'Walk', body, name);
}

/** A word with the first number that no move has yet. */
export function nextName(word: string, moves: readonly Row<'move'>[]): string {
  const names = new Set(liveRows(moves).map(({ name }) => name));
  let n = 1;
  while (names.has(`${word} ${n}`)) n += 1;
  return `${word} ${n}`;
}

/** What a new move of a kind is called, until somebody calls it otherwise. */
const WORDS: Record<MoveBody['kind'], string> = {
  walk: 'Walk',
  orbit: 'Orbit',
  travel: 'Travel',
  glide: 'Glide',
  ride: 'Ride',
  follow: 'Follow',
};

/**
 * Makes a move of a kind and asks for the least that it needs.
 * @param seen where the eye is, for what begins there @param site extent of what is worth seeing
 */
export function addKind(document: ProjectDocument, kind: MoveBody['kind'], seen: Seen, site: Bounds): void {
  const word = WORDS[kind];
  const add = (body: MoveBody) =>
    addMove(document, `New ${word.toLowerCase()}`, word, body, nextName(word, document.move));
  switch (kind) {
    case 'walk':
      return addWalk(document);
    case 'orbit':
      return addOrbit(document, site);
    case 'travel':
      return add(firstTravel(seen.pose, seen.lens));
    case 'glide':
      add(emptyGlide(site));
      workbench.set({ tool: 'draw' });
      return;
    case 'ride':
      add(emptyRide(seen.pose));
      workbench.set({ aiming: 'carrier' });
      return;
    case 'follow':
      add(firstFollow(seen.pose, seen.lens));
      workbench.set({ aiming: 'look' });
  }
}

/** Where an eye is, and through what it looks. */
export interface Seen {
  pose: Pose;
  lens: Lens;
}

/** Makes an orbit round everything and asks what it is to go round. */
function addOrbit(document: ProjectDocument, site: Bounds): void {
  addMove(document, 'New orbit', 'Orbit', firstOrbit(site));
  workbench.set({ aiming: 'subject' });
}

/** The moves of the project. */
export const MovesShelf = memo(function MovesShelf({
  selectedId,
  onNew,
  onWay,
  onDrawn,
  onRecord,
}: {
  selectedId: string | null;
  onNew: (kind: MoveBody['kind']) => void;
  onWay: () => void;
  onDrawn: () => void;
  onRecord: (slowed: number) => void;
}) {
  const document = useProject();
  const rows = liveRows(document.move);
  // What is said of a dozen moves takes longer than plan and path: those come first.
  const compiled = useDeferredValue<ReturnType<typeof useCompiling> | null>(useCompiling(rows), null);
  // The same for every drawing of the list: while one move is dragged the others stay as they are.
  const lengths = useLengthUnit();
  const noteOf = useCallback(
    (row: Row<'move'>) => (compiled ? noteOn(row, compiled(row.body), lengths) : '…'),
    [compiled, lengths],
  );
  return (
    <RowShelf
      kind="move"
      title="Moves"
      rows={rows}
      selectedId={selectedId}
      onSelect={workbench.selectMove}
      mark={markOf}
      note={noteOf}
      copyBody={copyOf}
      menu={moveMenu}
      empty={<FirstMoves onNew={onNew} />}
      footer={
        <div className="grid grid-cols-2 gap-1.5">
          <Button className="justify-center" onClick={() => addWalk(document)}>
            New walk
          </Button>
          <NewMove onNew={onNew} />
          <Button className="justify-center" icon={<Route size={14} />} onClick={onWay}>
            Find the way
          </Button>
          <Button className="justify-center" onClick={onDrawn}>
            From a file
          </Button>
          <Button className="col-span-2 justify-center" icon={<Footprints size={14} />} onClick={() => onRecord(1)}>
            Record a walk
          </Button>
        </div>
      }
    />
  );
});

const markOf = (row: Row<'move'>) => {
  const { mark: Mark } = kindOf(row.body);
  return <Mark />;
};

/** What is said of a move under its name. */
function noteOn({ body }: Row<'move'>, move: CompiledMove | null, lengths: LengthUnit): string {
  const locked = body.locked ? ' · locked' : '';
  if (!move) return `no path yet${locked}`;
  const seconds = `${move.duration.toFixed(1)} s`;
  if (body.kind === 'orbit') return `${seconds} · ${Math.round(toDegrees(Math.abs(body.sweep)))}°${locked}`;
  return `${seconds}${move.path ? ` · ${lengthText(move.path.length, lengths, 1)}` : ''}${locked}`;
}
