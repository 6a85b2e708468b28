import type { HingeAction, PartPath, Vec3 } from '../document/index.ts';
import { hingeOf } from './driven.ts';
import { planBoxOfPart, type MovablePart } from './site-motion.ts';

/** A door that opens turns so far in this time, radians and seconds. */
export const FIRST_OPENING = { angle: Math.PI / 2, seconds: 2 } as const;
/** It is open so long before somebody is there, seconds; who is there sooner finds it opened faster, but not faster than this. */
const BEFORE = 0.6;
const QUICKEST = 0.4;
/** A leaf that has so much of the room it opens into opens there, 0…1. */
const ENOUGH = 0.9;
/** Room for a leaf is looked for so far from where it hangs, as a part of its width: there its own wall is. */
const BESIDE = 0.2;

/** Somebody who comes to a door. */
export interface Coming {
  /** Seconds into the move. */
  time: number;
  /** In plan: x, z; of any length. */
  way: readonly [number, number];
  /** Where they meet it, metres. */
  at: Vec3;
}

/**
 * Opens a leaf for somebody: in time, where there is room for it, away from them rather than towards them, and hung from that
 * edge which they pass farther away.
 * @param roomAlong free length from a place in a direction of length 1, up to a length, metres
 */
export function openFor(
  leaf: MovablePart & PartPath,
  { time, way, at }: Coming,
  roomAlong: (from: Vec3, direction: Vec3, most: number) => number,
): HingeAction {
  const box = planBoxOfPart(leaf);
  const { axis } = box;
  const [width] = box.size;
  const choices = (['low', 'high'] as const).flatMap((end) =>
    [1, -1].map((sense) => {
      // The leaf points from its hinge along its longer side; a quarter turn to the left takes (x, z) to (z, −x).
      const out = end === 'low' ? 1 : -1;
      const opened = [out * sense * axis[1], -out * sense * axis[0]] as const;
      const hinge = hingeOf(box, end);
      const from: Vec3 = [hinge.x + BESIDE * width * opened[0], hinge.y, hinge.z + BESIDE * width * opened[1]];
      const most = (1 - BESIDE) * width;
      const room = Math.min(1, roomAlong(from, [opened[0], 0, opened[1]], most) / most);
      const away = opened[0] * way[0] + opened[1] * way[1] > 0;
      const aside = Math.hypot(at[0] - hinge.x, at[2] - hinge.z) / width;
      return { end, sense, worth: (room >= ENOUGH ? 2 : room) + (away ? 0.5 : 0) + 0.4 * Math.min(1, aside) };
    }),
  );
  const best = choices.reduce((most, one) => (one.worth > most.worth ? one : most));
  const start = Math.max(0, time - BEFORE - FIRST_OPENING.seconds);
  return {
    kind: 'hinge',
    model: leaf.model,
    part: leaf.name.slice(0, 500),
    end: best.end,
    angle: best.sense * FIRST_OPENING.angle,
    start,
    seconds: Math.min(FIRST_OPENING.seconds, Math.max(QUICKEST, time - BEFORE - start)),
    shape: 'ease both',
    repeat: 'once',
  };
}
