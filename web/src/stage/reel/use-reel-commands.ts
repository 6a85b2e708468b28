import { frameAt, frameTime, shotIndexAt } from '@eskovan/core/reel';
import { useCommands, type Command } from '../../desk/commands.ts';
import { selection } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
import {
  chooseShot,
  duplicateShots,
  reelNow,
  removeShots,
  rollCut,
  setJoin,
  slipShot,
  splitAt,
  stepShots,
  trimShot,
  turnRound,
} from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';
import { reelDesk } from './reel-desk.ts';

/** A new join takes so long, seconds. */
const JOIN_SECONDS = 1;

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
  const goToCut = (by: -1 | 1) => {
    const reel = now();
    if (!reel || reel.plan.shots.length === 0) return;
    const at = frame();
    const starts = [...reel.plan.shots.map(({ start, overlap }) => start + overlap), reel.plan.frames - 1];
    const next = by < 0 ? starts.findLast((start) => start < at) : starts.find((start) => start > at);
    if (next !== undefined) workbench.set({ time: frameTime(next, reel.rate), playing: false });
  };
  const commands: Omit<Command, 'group'>[] = [
    {
      id: 'earlier',
      label: 'Shot one place earlier',
      keys: 'Alt+ArrowLeft',
      when: has,
      run: () =>
        open &&
        stepShots(
          open,
          chosen().map(({ id }) => id),
          -1,
        ),
    },
    {
      id: 'later',
      label: 'Shot one place later',
      keys: 'Alt+ArrowRight',
      when: has,
      run: () =>
        open &&
        stepShots(
          open,
          chosen().map(({ id }) => id),
          1,
        ),
    },
    {
      id: 'delete',
      label: 'Delete the shot',
      keys: 'Delete',
      when: has,
      run: () =>
        open &&
        removeShots(
          open,
          chosen().map(({ id }) => id),
        ),
    },
    {
      id: 'duplicate',
      label: 'Duplicate the shot',
      when: has,
      run: () =>
        open &&
        duplicateShots(
          open,
          chosen().map(({ id }) => id),
        ),
    },
    {
      id: 'split',
      label: 'Split the shot here',
      keys: 'Shift+s',
      when: has,
      run: () => ((at) => at && open && splitAt(open, at.row.id, at.at))(within()),
    },
    {
      id: 'start',
      label: 'Begin the shot here',
      keys: 'i',
      when: has,
      run: () => ((at) => at && open && trimShot(open, at.row, 'start', at.at))(within()),
    },
    {
      id: 'end',
      label: 'End the shot here',
      keys: 'o',
      when: has,
      run: () => ((at) => at && open && trimShot(open, at.row, 'end', at.at + 1 - at.planned.frames))(within()),
    },
    ...([-1, 1] as const).map((by) => ({
      id: by < 0 ? 'shorter' : 'longer',
      label: by < 0 ? 'Shot a frame shorter' : 'Shot a frame longer',
      keys: by < 0 ? 'Minus' : 'Equal',
      when: has,
      run: () => ((row) => row && open && trimShot(open, row, 'end', by))(one()),
    })),
    ...([-1, 1] as const).map((by) => ({
      id: by < 0 ? 'slip.back' : 'slip.on',
      label: by < 0 ? 'Slip the shot a frame back' : 'Slip the shot a frame on',
      when: has,
      run: () => ((row) => row && open && slipShot(open, row, by))(one()),
    })),
    ...([-1, 1] as const).map((by) => ({
      id: by < 0 ? 'roll.back' : 'roll.on',
      label: by < 0 ? 'The cut before the shot a frame earlier' : 'The cut before the shot a frame later',
      when: has,
      run: () => ((row) => row && open && indexOf(row.id) > 0 && rollCut(open, indexOf(row.id), by))(one()),
    })),
    {
      id: 'turn',
      label: 'Play the shot the other way',
      when: () => one()?.body.use.kind === 'move',
      run: () => ((row) => row && open && turnRound(open, row))(one()),
    },
    ...(['cut', 'blend', 'dissolve', 'dip'] as const).map((kind) => ({
      id: `join.${kind}`,
      label: kind === 'cut' ? 'Cut to the shot' : `${kind[0]!.toUpperCase()}${kind.slice(1)} into the shot`,
      when: () => ((row) => row !== null && indexOf(row.id) > 0)(one()),
      run: () =>
        ((row) =>
          row &&
          open &&
          setJoin(open, row, kind === 'cut' ? null : { kind, seconds: row.body.join?.seconds ?? JOIN_SECONDS }))(one()),
    })),
    {
      id: 'join.look',
      label: 'Look at the join before the shot',
      when: () => ((row) => row !== null && indexOf(row.id) > 0)(one()),
      run: () => ((row) => row && reelDesk.set({ join: row.id }))(one()),
    },
    { id: 'cut.before', label: 'To the cut before', keys: 'ArrowUp', run: () => goToCut(-1) },
    { id: 'cut.after', label: 'To the cut after', keys: 'ArrowDown', run: () => goToCut(1) },
    {
      id: 'here',
      label: 'Choose the shot that is on',
      run: () =>
        ((reel) => reel && reel.plan.shots.length > 0 && chooseShot(reel.shots[shotIndexAt(reel.plan, frame())]!.id))(
          now(),
        ),
    },
  ];
  useCommands(commands.map((command) => ({ ...command, id: `reel.${command.id}`, group: 'Reel' })));
}
