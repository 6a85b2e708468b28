import { hasStretch, type Row } from '@eskovan/core/document';
import { frameAt, frameTime, shotIndexAt } from '@eskovan/core/reel';
import { useCommands, type Command } from '../../desk/commands.ts';
import { selection } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
import { groupShots, ungroupShots, withGroup } from './group-shots.ts';
import {
  chooseShot,
  duplicateShots,
  joinAs,
  reelNow,
  removeShots,
  rollCut,
  slipShot,
  splitAt,
  stepShots,
  trimShot,
  turnRound,
} from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';
import { reelDesk } from './reel-desk.ts';

/** What can be done with the shots of a reel, by key and by name. Commands act on the reel as it is at this instant. */
export function useReelCommands(open: OpenReel | null): void {
  const now = () => open && reelNow(open);
  const chosen = () => {
    const reel = now();
    const ids: readonly string[] = selection.get().rows.shot?.ids ?? [];
    return reel ? reel.shots.filter(({ id }) => ids.includes(id)) : [];
  };
  const one = () => chosen().at(-1) ?? null;
  const frame = () => (open ? frameAt(workbench.get().time, open.rate) : 0);
  /** Frames of the chosen shot that the playhead is after its start. */
  const within = () => {
    const reel = now();
    const row = one();
    const planned = reel && row && reel.plan.shots[reel.shots.findIndex(({ id }) => id === row.id)];
    return planned ? { row, planned, at: frame() - planned.start } : null;
  };
  const has = () => one() !== null;
  const indexOf = (id: string) => now()?.shots.findIndex((row) => row.id === id) ?? -1;
  const follows = () => {
    const row = one();
    return row !== null && indexOf(row.id) > 0;
  };
  /** Does something with the chosen shots, or with the one that was chosen last, where there is any. */
  const withAll = (act: (reel: OpenReel, ids: readonly string[]) => void) => () => {
    const rows = chosen();
    if (open && rows.length > 0)
      act(
        open,
        rows.map(({ id }) => id),
      );
  };
  const withOne = (act: (reel: OpenReel, row: Row<'shot'>) => void) => () => {
    const row = one();
    if (open && row) act(open, row);
  };
  const goToCut = (by: -1 | 1) => {
    const reel = now();
    if (!reel || reel.plan.shots.length === 0) return;
    const at = frame();
    const starts = [...reel.plan.shots.map(({ start, overlap }) => start + overlap), reel.plan.frames - 1];
    const next = by < 0 ? starts.findLast((start) => start < at) : starts.find((start) => start > at);
    if (next !== undefined) workbench.set({ time: frameTime(next, reel.rate), playing: false });
  };
  const atPlayhead = (act: (reel: OpenReel, at: NonNullable<ReturnType<typeof within>>) => void) => () => {
    const at = within();
    if (open && at) act(open, at);
  };
  const commands: Omit<Command, 'group'>[] = [
    ...([-1, 1] as const).map((by) => ({
      id: by < 0 ? 'earlier' : 'later',
      label: by < 0 ? 'Shot one place earlier' : 'Shot one place later',
      keys: by < 0 ? 'Alt+ArrowLeft' : 'Alt+ArrowRight',
      when: has,
      run: withAll((reel, ids) => stepShots(reel, withGroup(reel, ids), by)),
    })),
    { id: 'delete', label: 'Delete the shot', keys: 'Delete', when: has, run: withAll(removeShots) },
    {
      id: 'group',
      label: 'Group the shots',
      keys: 'g',
      when: () => chosen().length > 1,
      run: withAll(groupShots),
    },
    {
      id: 'ungroup',
      label: 'Take the shots out of their group',
      keys: 'Shift+g',
      when: () => chosen().some(({ body }) => body.group !== undefined),
      run: withAll(ungroupShots),
    },
    { id: 'duplicate', label: 'Duplicate the shot', when: has, run: withAll(duplicateShots) },
    {
      id: 'split',
      label: 'Split the shot here',
      keys: 'Shift+s',
      when: has,
      run: atPlayhead((reel, { row, at }) => splitAt(reel, row.id, at)),
    },
    {
      id: 'start',
      label: 'Begin the shot here',
      keys: 'i',
      when: has,
      run: atPlayhead((reel, { row, at }) => trimShot(reel, row, 'start', at)),
    },
    {
      id: 'end',
      label: 'End the shot here',
      keys: 'o',
      when: has,
      run: atPlayhead((reel, { row, planned, at }) => trimShot(reel, row, 'end', at + 1 - planned.frames)),
    },
    ...([-1, 1] as const).map((by) => ({
      id: by < 0 ? 'shorter' : 'longer',
      label: by < 0 ? 'Shot a frame shorter' : 'Shot a frame longer',
      keys: by < 0 ? 'Minus' : 'Equal',
      when: has,
      run: withOne((reel, row) => trimShot(reel, row, 'end', by)),
    })),
    ...([-1, 1] as const).map((by) => ({
      id: by < 0 ? 'slip.back' : 'slip.on',
      label: by < 0 ? 'Slip the shot a frame back' : 'Slip the shot a frame on',
      when: has,
      run: withOne((reel, row) => slipShot(reel, row, by)),
    })),
    ...([-1, 1] as const).map((by) => ({
      id: by < 0 ? 'roll.back' : 'roll.on',
      label: by < 0 ? 'The cut before the shot a frame earlier' : 'The cut before the shot a frame later',
      when: follows,
      run: withOne((reel, row) => rollCut(reel, indexOf(row.id), by)),
    })),
    {
      id: 'turn',
      label: 'Play the shot the other way',
      when: () => {
        const row = one();
        return row !== null && hasStretch(row.body.use);
      },
      run: withOne(turnRound),
    },
    ...(['cut', 'blend', 'dissolve', 'dip'] as const).map((kind) => ({
      id: `join.${kind}`,
      label: kind === 'cut' ? 'Cut to the shot' : `${kind[0]!.toUpperCase()}${kind.slice(1)} into the shot`,
      when: follows,
      run: withOne((reel, row) => joinAs(reel, row, kind)),
    })),
    {
      id: 'join.look',
      label: 'Look at the join before the shot',
      when: follows,
      run: withOne((_, row) => reelDesk.set({ join: row.id })),
    },
    { id: 'cut.before', label: 'To the cut before', keys: 'ArrowUp', run: () => goToCut(-1) },
    { id: 'cut.after', label: 'To the cut after', keys: 'ArrowDown', run: () => goToCut(1) },
    {
      id: 'here',
      label: 'Choose the shot that is on',
      run: () => {
        const reel = now();
        if (reel && reel.plan.shots.length > 0) chooseShot(reel.shots[shotIndexAt(reel.plan, frame())]!.id);
      },
    },
  ];
  useCommands(commands.map((command) => ({ ...command, id: `reel.${command.id}`, group: 'Reel' })));
}
