import type { ActionBody, Row } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import type { Channel, ChannelItem } from '@eskovan/core/track';
import { useMemo } from 'react';
import { create } from 'zustand';
import { liveRows } from '../../data/changes.ts';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { useModels } from '../../site/use-site.ts';
import type { ItemChange } from '../../strips/strip-items.tsx';

/** Are actions shown under the strips of a move? */
export const useActionStrip = create<{ shown: boolean }>()(() => ({ shown: false }));

/** Nothing takes less, seconds. */
const SHORTEST = 0.1;
/** The speeds that a recorded movement can have. */
const SPEEDS = [0.05, 20] as const;

/** A move with what parts do meanwhile as one more strip, where that is wished for. */
export function useWithActions(move: CompiledMove | null): CompiledMove | null {
  const shown = useActionStrip((state) => state.shown);
  const { action } = useProject();
  const models = useModels();
  return useMemo(() => {
    if (!move || !shown) return move;
    const rows = liveRows(action).filter(({ body }) => !body.off);
    if (rows.length === 0) return move;
    const items = rows.map((row, i): ChannelItem => {
      const { start } = row.body;
      const to = Math.min(move.duration, start + lengthOf(row.body, models, move.duration));
      return {
        id: row.id,
        kind: 'action',
        from: Math.min(start, move.duration),
        to,
        value: rows.length - i,
        about: row.name,
      };
    });
    const channel: Channel = { id: 'actions', title: 'Actions', unit: '', rows: rows.length, at: () => 0, items };
    // All else is asked of the move itself.
    return Object.create(move, { channels: { value: [...move.channels, channel] } }) as CompiledMove;
  }, [move, shown, action, models]);
}

/** How long an action takes once, seconds; what has no end lasts as long as the move. */
function lengthOf(body: ActionBody, models: readonly Row<'model'>[], whole: number): number {
  if (body.kind === 'spin') return body.turn?.seconds ?? whole;
  if (body.kind !== 'recorded') return body.seconds;
  const model = models.find(({ id }) => id === body.model);
  return (model?.body.movements.find(({ name }) => name === body.movement)?.duration ?? 0) / body.speed;
}

/** An action begins at another time, or takes longer. @param item as it was when the hand took hold of it */
export function editActionItem(row: Row<'action'>, item: ChannelItem, change: ItemChange): void {
  editBody('action', row, change.by === 'to' ? `Length of ${row.name}` : `Beginning of ${row.name}`, (body) => {
    if (change.by === 'shift') return { ...body, start: tidy(item.from + change.seconds) };
    if (change.by === 'nudge') return { ...body, start: tidy(body.start + change.seconds) };
    return change.by === 'to' ? longer(body, item, change.seconds) : body;
  });
}

function longer(body: ActionBody, { from, to }: ChannelItem, by: number): ActionBody {
  const seconds = Math.max(SHORTEST, tidy(to - from + by));
  if (body.kind === 'spin') return body.turn ? { ...body, turn: { ...body.turn, seconds } } : body;
  if (body.kind !== 'recorded') return { ...body, seconds };
  const speed = (body.speed * (to - from)) / seconds;
  return { ...body, speed: Math.min(SPEEDS[1], Math.max(SPEEDS[0], speed)) };
}

const tidy = (seconds: number) => Number(Math.max(0, seconds).toFixed(3));
