import type { MoveBody, Row } from '@eskovan/core/document';
import { VARIATIONS, varied, type Variation } from '@eskovan/core/move';
import { CopyPlus, Lock, LockOpen } from 'lucide-react';
import { liveRows } from '../../data/changes.ts';
import { editBody, makeRow } from '../../data/edit-row.ts';
import { currentRows } from '../../data/edits.ts';
import { orderBetween } from '../../data/order.ts';
import type { Command } from '../../desk/commands.ts';
import { workbench } from '../../desk/workbench.ts';
import type { MenuItem } from '../../kit/index.ts';

/** A move keeps as it is, or may be changed again. */
export function lockMove(row: Row<'move'>): void {
  const { locked } = row.body;
  editBody('move', row, `${locked ? 'Unlock' : 'Lock'} ${row.name}`, ({ locked: _, ...body }) =>
    locked ? (body as MoveBody) : ({ ...body, locked: true } as MoveBody),
  );
}

/** A copy is another move: it is not locked. */
export const copyOf = ({ body: { locked: _, ...body } }: Row<'move'>): MoveBody => body as MoveBody;

/** Makes a copy of a move that differs in one thing; it comes next in the list, and is shown. */
export function copyVaried(row: Row<'move'>, variation: Variation): void {
  const body = varied(copyOf(row), variation);
  if (!body) return;
  const moves = liveRows(currentRows(row.projectId, 'move') as Row<'move'>[]);
  const at = moves.findIndex(({ id }) => id === row.id);
  const name = `${row.name}, ${variation}`.slice(0, 120);
  const label = `Copy ${row.name}, ${variation}`.slice(0, 120);
  workbench.selectMove(makeRow('move', row.projectId, label, { name, order: orderBetween(moves, -1, at + 1), body }));
}

/** What can be done with a move besides what can be done with any row. */
export function moveMenu(row: Row<'move'>): MenuItem[] {
  const { locked } = row.body;
  return [
    {
      label: locked ? 'Unlock' : 'Lock',
      icon: locked ? <LockOpen size={13} /> : <Lock size={13} />,
      onSelect: () => lockMove(row),
    },
    ...VARIATIONS.filter((variation) => varied(row.body, variation)).map((variation) => ({
      label: `Copy, ${variation}`,
      icon: <CopyPlus size={13} />,
      onSelect: () => copyVaried(row, variation),
    })),
  ];
}

/** The same as commands, for the move that is shown. */
export const moveCommands = (row: Row<'move'>): Command[] => [
  {
    id: 'move.lock',
    label: row.body.locked ? 'Unlock this move' : 'Lock this move',
    group: 'Moves',
    run: () => lockMove(row),
  },
  ...VARIATIONS.map((variation) => ({
    id: `move.copy.${variation}`,
    label: `Copy this move, ${variation}`,
    group: 'Moves',
    when: () => varied(row.body, variation) !== null,
    run: () => copyVaried(row, variation),
  })),
];
