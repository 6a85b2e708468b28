import type { Sound } from '@eskovan/core/document';
import { frameTime } from '@eskovan/core/reel';
import { nearestBeat } from '@eskovan/core/sound';
import { beginEdit } from '../../data/undo.ts';
import { toast } from 'sonner';
import { reelNow, rollCut } from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';

/** When beats of a file are heard in the reel, seconds. */
export const beatsInReel = (times: readonly number[], { from, start }: Pick<Sound, 'from' | 'start'>): number[] =>
  times.map((time) => time - from + start);

/** A cut goes no farther to a beat, seconds. */
const FARTHEST = 1;

/** Rolls every cut to the beat nearest to it, as one step of undo: the reel stays as long as it is. */
export function cutsToBeats(open: OpenReel, times: readonly number[]): void {
  const sound = open.row.body.sound;
  if (!sound) return;
  const beats = beatsInReel(times, sound);
  const gesture = beginEdit();
  let moved = 0;
  for (let index = 1; index < open.plan.shots.length; index += 1) {
    const now = reelNow(open);
    const shot = now?.plan.shots[index];
    if (!now || !shot) break;
    const at = frameTime(shot.start, now.rate);
    const frames = Math.round(((nearestBeat(beats, at, FARTHEST) - at) * now.rate.num) / now.rate.den);
    if (frames === 0) continue;
    rollCut(now, index, frames);
    moved += 1;
  }
  gesture.commit();
  toast(moved === 0 ? 'Every cut is on a beat already, or has none near.' : `${moved} cuts moved to beats`);
}
