import type { ShotBody } from '@eskovan/core/document';
import { fitReel, frameCount, frameTime, stretchedTo } from '@eskovan/core/reel';
import { toast } from 'sonner';
import { reelNow, setBodies } from './edit-reel.ts';
import { editedShot, type OpenReel } from './open-reel.ts';

/** What goes at its pace may be so much faster in a reel before it is said (common practice: 1.2 m/s, and haste from 1.45 on). */
const FASTER = 1.2;

/**
 * Fits a reel to its wanted length: what may be stretched is, and what would exceed its pace is said.
 * @param haste faster than people walk, m/s
 */
export function fitToWanted(open: OpenReel, haste: number): void {
  const now = reelNow(open);
  const wanted = now?.row.body.wanted;
  if (!now || wanted === undefined) return;
  const { rate } = now;
  const goal = frameCount(wanted, rate);
  const shots = now.shots.map((_, i) => ({ ...editedShot(now, i)!, fastest: FASTER }));
  const { frames, off, hasty } = fitReel(shots, goal, rate);
  const bodies = new Map<string, ShotBody>();
  now.shots.forEach(({ id }, i) => {
    const length = frames.get(id);
    if (length !== undefined) bodies.set(id, stretchedTo(shots[i]!, length, rate));
  });
  setBodies(now, `Fit to ${frameTime(goal, rate).toFixed(2)} s`, bodies);
  const nameOf = (id: string) => now.shots.find((row) => row.id === id)!.name;
  if (off !== 0)
    toast(
      `${frameTime(Math.abs(off), rate).toFixed(2)} s too ${off > 0 ? 'long' : 'short'} all the same: the other shots keep their length, or cannot be shorter.`,
    );
  if (hasty.length > 0)
    toast(
      `Faster than is calm: ${hasty.map(({ id, pace }) => `${nameOf(id)} (${Math.round(pace * FASTER * 100)} % of its pace)`).join(', ')}. Above ${haste.toFixed(2)} m/s a walk looks hasty.`,
      { duration: 9000 },
    );
}
