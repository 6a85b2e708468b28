import type { Gaze, HeldGaze, Vec3 } from '../document/index.ts';
import { aimInFrame, gazeAt, leadOf, recordedGaze, type GazeTables } from '../gaze/index.ts';
import { nearestTurn } from '../geometry/index.ts';
import { Projection } from '../optics/index.ts';
import type { CameraTracks } from './camera-tracks.ts';
import { evenTimes, type Stretch, type TargetOf } from './gaze-layers.ts';
import { targetOver } from './gaze-target.ts';
import { smoothTable } from './uniform-table.ts';

/** The middle and half the size of a picture at a time, across and up: tangents of angles from the axis of its lens. */
export type EdgesAt = (time: number) => readonly [middleX: number, halfX: number, middleY: number, halfY: number];

/** Those of a lens that may change. @param aspect width over height */
export function lensEdges(tracks: Pick<CameraTracks, 'viewAt'>, aspect: number): EdgesAt {
  let seen: ReturnType<CameraTracks['viewAt']> | null = null;
  let edges: [number, number, number, number] = [0, 1, 0, 1];
  return (time) => {
    const view = tracks.viewAt(time);
    if (view !== seen) {
      const { left, right, bottom, top } = new Projection(view, aspect).window;
      edges = [(left + right) / 2, (right - left) / 2, (bottom + top) / 2, (top - bottom) / 2];
      seen = view;
    }
    return edges;
  };
}

/** How lead room follows what moves: its turning is taken over so long, seconds. */
const LEAD_OVER = 0.5;

/**
 * Looks from every eye point at a point of its own, so that it is seen where it is to be held in the frame.
 * @param eye [x, y, z] at even times @param points likewise
 */
export function gazeInFrame(
  { place, lead }: Pick<HeldGaze, 'place' | 'lead'>,
  eye: Float64Array,
  points: Float64Array,
  { step, edgesAt }: { step: number; edgesAt: EdgesAt },
): GazeTables {
  const straight = gazeAt(eye, points);
  if (!place && !lead) return straight;
  const { pan } = straight;
  const last = pan.length - 1;
  const reach = Math.max(1, Math.round(LEAD_OVER / step));
  const turning = (i: number) => {
    const [a, b] = [Math.max(0, i - reach), Math.min(last, i + reach)];
    return (pan[b]! - pan[a]!) / Math.max(step, (b - a) * step);
  };
  const leads = Float64Array.from({ length: last + 1 }, (_, i) => (lead ? leadOf(lead, turning(i)) : 0));
  const soft = lead ? smoothTable({ values: leads, length: last * step, closed: false }, LEAD_OVER).values : leads;
  const out = { pan: new Float64Array(last + 1), tilt: new Float64Array(last + 1) };
  const direction: Vec3 = [0, 0, 0];
  for (let i = 0; i <= last; i += 1) {
    for (let k = 0; k < 3; k += 1) direction[k] = points[3 * i + k]! - eye[3 * i + k]!;
    const [middleX, halfX, middleY, halfY] = edgesAt(i * step);
    const across = Math.min(MOST_ACROSS, Math.max(-MOST_ACROSS, (place?.[0] ?? 0) + soft[i]!));
    const aimed = aimInFrame(direction, middleX + across * halfX, middleY + (place?.[1] ?? 0) * halfY);
    out.pan[i] = nearestTurn(aimed.pan, i > 0 ? out.pan[i - 1]! : straight.pan[0]!);
    out.tilt[i] = aimed.tilt;
  }
  return out;
}

/** Where what is looked at is at even times: [x, y, z]. @param target where it goes; null where it stays */
export function pointsOf(
  gaze: HeldGaze,
  target: ((time: number) => Vec3) | null,
  { instants, step }: { instants: number; step: number },
): Float64Array {
  const points = new Float64Array(3 * (instants + 1));
  const still = 'point' in gaze ? gaze.point : null;
  for (let i = 0; i <= instants; i += 1) points.set(target?.(i * step) ?? still!, 3 * i);
  return points;
}

/** What is held is held within the frame. */
const MOST_ACROSS = 0.95;

/** Who looks ahead without saying how far looks so far, metres. */
export const FIRST_AHEAD = 2;
/** Looking ahead is averaged over so long to either side, seconds. */
const AHEAD_SMOOTHING = 0.35;
/** Who does not get farther than this has no direction, metres. */
const NO_WAY = 1e-4;

/** What a gaze over time needs to know of the camera that has it. */
export interface TimedEye {
  /** seconds */
  duration: number;
  loops: boolean;
  /** Writes the place of the eye, metres. */
  eyeAt: (time: number, out: Float64Array, at: number) => void;
  /** The direction that the move itself has, radians. */
  keptAt: (time: number) => { pan: number; tilt: number };
  targetOf: TargetOf;
  edgesAt: EdgesAt;
}

/** Gazes of one camera, each at {@link evenTimes}; its places are worked out once. */
export function timedGazes(camera: TimedEye): (gaze: Gaze, stretch: Stretch) => GazeTables {
  const { duration, loops, eyeAt, keptAt, targetOf, edgesAt } = camera;
  const { instants, step } = evenTimes(duration);
  const eye = new Float64Array(3 * (instants + 1));
  for (let i = 0; i <= instants; i += 1) eyeAt(i * step, eye, 3 * i);
  const filled = (value: (time: number) => number) =>
    Float64Array.from({ length: instants + 1 }, (_, i) => value(i * step));
  return (gaze, stretch) => {
    switch (gaze.kind) {
      case 'bearing':
        return { pan: filled(() => gaze.pan), tilt: filled(() => gaze.tilt) };
      case 'recorded':
        return recordedGaze(gaze, instants);
      case 'ahead':
        return aheadOn(eye, gaze.distance, step, loops, keptAt(0));
      case 'kept': {
        const pan = filled((time) => keptAt(time).pan);
        for (let i = 1; i <= instants; i += 1) pan[i] = nearestTurn(pan[i]!, pan[i - 1]!);
        return { pan, tilt: filled((time) => keptAt(time).tilt) };
      }
      default: {
        const points = pointsOf(gaze, targetOver(gaze, stretch, targetOf), { instants, step });
        return gazeInFrame(gaze, eye, points, { step, edgesAt });
      }
    }
  };
}

/**
 * Looks along the way of the eye itself, so many metres ahead; who does not move looks on as before.
 * @param first where it looks that never moves, radians
 */
function aheadOn(
  eye: Float64Array,
  distance: number,
  step: number,
  closed: boolean,
  first: { pan: number; tilt: number },
): GazeTables {
  const last = eye.length / 3 - 1;
  const way = new Float64Array(last + 1);
  for (let i = 1; i <= last; i += 1)
    way[i] =
      way[i - 1]! +
      Math.hypot(eye[3 * i]! - eye[3 * i - 3]!, eye[3 * i + 1]! - eye[3 * i - 2]!, eye[3 * i + 2]! - eye[3 * i - 1]!);
  const whole = way[last]!;
  const [pan, tilt] = [new Float64Array(last + 1), new Float64Array(last + 1)];
  // Beyond its end a way goes straight on.
  let back = last - 1;
  while (back > 0 && whole - way[back]! < Math.min(NO_WAY + distance / 8, whole)) back -= 1;
  const end = [0, 1, 2].map((k) => (eye[3 * last + k]! - eye[3 * back + k]!) / Math.max(whole - way[back]!, 1e-12));
  const target: Vec3 = [0, 0, 0];
  let j = 0;
  for (let i = 0; i <= last; i += 1) {
    const wanted = way[i]! + distance;
    if (wanted <= whole || (closed && whole > distance)) {
      const within = wanted <= whole ? wanted : wanted - whole;
      if (way[j]! > within) j = 0;
      while (j < last - 1 && way[j + 1]! < within) j += 1;
      const part = (within - way[j]!) / Math.max(way[j + 1]! - way[j]!, 1e-12);
      for (let k = 0; k < 3; k += 1) target[k] = eye[3 * j + k]! + (eye[3 * j + 3 + k]! - eye[3 * j + k]!) * part;
    } else for (let k = 0; k < 3; k += 1) target[k] = eye[3 * last + k]! + end[k]! * (wanted - whole);
    const [dx, dy, dz] = [0, 1, 2].map((k) => target[k]! - eye[3 * i + k]!) as Vec3;
    const flat = Math.hypot(dx, dz);
    const before = i > 0 ? pan[i - 1]! : first.pan;
    pan[i] = flat < NO_WAY ? before : nearestTurn(Math.atan2(-dx, -dz), before);
    tilt[i] = flat < NO_WAY && Math.abs(dy) < NO_WAY ? (i > 0 ? tilt[i - 1]! : first.tilt) : Math.atan2(dy, flat);
  }
  const soft = (values: Float64Array) => smoothTable({ values, length: last * step, closed }, AHEAD_SMOOTHING).values;
  return { pan: soft(pan), tilt: soft(tilt) };
}
