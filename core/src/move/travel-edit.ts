import { LONGEST_TRAVEL, type SpanKind, type Travel, type TravelPose } from '../document/index.ts';

/** A new pose comes so long after the one before, seconds, until somebody says otherwise. */
export const NEXT_POSE = 3;
/** Poses are never nearer to each other than this, seconds: a frame of the fastest films. */
const APART = 1 / 60;

type Poses = readonly TravelPose[];

const tidy = (seconds: number) => Number(Math.min(LONGEST_TRAVEL, Math.max(0, seconds)).toFixed(6));
const endOf = ({ time, hold }: TravelPose) => time + hold;
const byTime = (poses: Poses) => [...poses].sort((a, b) => a.time - b.time);
const later = (poses: Poses, from: number, seconds: number) =>
  poses.map((pose) => (pose.time >= from - 1e-9 ? { ...pose, time: tidy(pose.time + seconds) } : pose));

/** When the last pose is left, seconds. */
export const travelEnd = (poses: Poses): number => (poses.length > 0 ? endOf(poses.at(-1)!) : 0);

/** Puts a pose where its time is; one at the very same time takes its place. */
export function insertPose(poses: Poses, pose: TravelPose): TravelPose[] {
  const same = poses.find(({ time }) => Math.abs(time - pose.time) < APART);
  const others = poses.filter((one) => one !== same);
  return byTime([...others, same ? { ...pose, id: same.id, time: same.time, hold: same.hold } : pose]);
}

/** Puts a pose after the last one. */
export function appendPose(poses: Poses, pose: TravelPose, seconds = NEXT_POSE): TravelPose[] {
  return [...poses, { ...pose, time: poses.length === 0 ? 0 : tidy(travelEnd(poses) + seconds) }];
}

/** Puts a pose before the first one: whoever works from the end backwards. All others come so much later. */
export function prependPose(poses: Poses, pose: TravelPose, seconds = NEXT_POSE): TravelPose[] {
  if (poses.length === 0) return [{ ...pose, time: 0 }];
  const first = poses[0]!.time;
  const by = seconds + pose.hold - first;
  return [{ ...pose, time: 0 }, ...poses.map((one) => ({ ...one, time: tidy(one.time + by + first) }))];
}

/** Gives a pose another view; when it is, and how it goes on, stays. */
export const replacePose = (
  poses: Poses,
  id: string,
  view: Partial<Pick<TravelPose, 'position' | 'orientation'>>,
): TravelPose[] => poses.map((pose) => (pose.id === id ? { ...pose, ...view } : pose));

export const removePose = (poses: Poses, id: string): TravelPose[] => poses.filter((pose) => pose.id !== id);

export const setSpan = (poses: Poses, id: string, span: SpanKind): TravelPose[] =>
  poses.map((pose) => (pose.id === id ? { ...pose, span } : pose));

/** Stays at a pose for so long; what follows comes as much later or sooner. */
export function holdPose(poses: Poses, id: string, seconds: number): TravelPose[] {
  const pose = poses.find((one) => one.id === id);
  if (!pose) return [...poses];
  const hold = Math.max(0, seconds);
  return poses.map((one) => {
    if (one === pose) return { ...one, hold };
    return one.time > pose.time ? { ...one, time: tidy(one.time + hold - pose.hold) } : one;
  });
}

/**
 * Moves poses in time. With ripple all that follow the last of them move along; without, they are held between the poses
 * beside them.
 */
export function shiftPoses(poses: Poses, ids: readonly string[], seconds: number, ripple: boolean): TravelPose[] {
  const chosen = poses.filter(({ id }) => ids.includes(id));
  if (chosen.length === 0) return [...poses];
  const [first, last] = [chosen[0]!, chosen.at(-1)!];
  const before = poses[poses.indexOf(first) - 1];
  const after = poses[poses.indexOf(last) + 1];
  // What lies between chosen ones goes with them: their order stays.
  const least = (before ? endOf(before) + APART : 0) - first.time;
  const most = ripple || !after ? LONGEST_TRAVEL - travelEnd(poses) : after.time - APART - endOf(last);
  const by = Math.max(least, Math.min(most, seconds));
  return poses.map((pose) => {
    const moves = pose.time >= first.time && (pose.time <= last.time || ripple);
    return moves ? { ...pose, time: tidy(pose.time + by) } : pose;
  });
}

/** Gives a stretch of time so many times as long; stays in it last so much longer, and what follows comes later. */
export function stretchPoses(poses: Poses, from: number, to: number, factor: number): TravelPose[] {
  const added = (to - from) * (factor - 1);
  const moved = (time: number) => (time <= from ? time : time >= to ? time + added : from + (time - from) * factor);
  return poses.map((pose) => {
    const time = moved(pose.time);
    return { ...pose, time: tidy(time), hold: Math.max(0, tidy(moved(endOf(pose)) - time)) };
  });
}

/** The stretch of time from the first to the last of some poses, with their stays. */
function blockOf(poses: Poses, ids: readonly string[]) {
  const chosen = poses.filter(({ id }) => ids.includes(id));
  if (chosen.length === 0) return null;
  const [from, to] = [chosen[0]!.time, endOf(chosen.at(-1)!)];
  const block = poses.filter(({ time }) => time >= from && time <= to);
  return { from, to, block };
}

/** Plays some poses, and what lies between them, from the last to the first, in the same time. */
export function mirrorPoses(poses: Poses, ids: readonly string[]): TravelPose[] {
  const meant = blockOf(poses, ids);
  if (!meant) return [...poses];
  const { from, to, block } = meant;
  const last = block.at(-1)!;
  const mirrored = block
    .map((pose, i) => {
      // A span belongs to the pose that it begins at: mirrored, to the other one.
      const span = i > 0 ? block[i - 1]!.span : last.span;
      return { ...pose, time: tidy(from + to - endOf(pose)), span };
    })
    .reverse();
  return [...poses.filter((pose) => !block.includes(pose)), ...mirrored].sort((a, b) => a.time - b.time);
}

/**
 * Puts a copy of some poses, and what lies between them, after an instant. What was there comes later by as much.
 * @param newId makes ids for the copies
 */
export function copyPoses(poses: Poses, ids: readonly string[], at: number, newId: () => string): TravelPose[] {
  const meant = blockOf(poses, ids);
  if (!meant) return [...poses];
  const { from, to, block } = meant;
  const start = at + NEXT_POSE;
  const copies = block.map((pose) => ({ ...pose, id: newId(), time: tidy(pose.time - from + start) }));
  const room = to - from + NEXT_POSE;
  return byTime([...later(poses, at + APART, room), ...copies]);
}

/** Ends where it begins: a copy of the first pose after the last one. */
export function returnToStart(poses: Poses, newId: () => string): TravelPose[] {
  const [first] = poses;
  return first ? appendPose(poses, { ...first, id: newId(), hold: 0 }) : [];
}

/** The poses that a stretch of time touches, given more of it: the spans that it lies in get so many times as long. */
export function slowerSpans(body: Travel, from: number, to: number, factor: number): Travel {
  const { poses } = body;
  const start = poses[0]?.time ?? 0;
  const begins = poses.findLast((pose) => endOf(pose) - start <= from + 1e-9);
  const ends = poses.find(({ time }) => time - start >= to - 1e-9);
  if (!begins || !ends) return body;
  return { ...body, poses: stretchPoses(poses, endOf(begins), ends.time, factor) };
}
