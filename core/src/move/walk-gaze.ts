import type { Gaze, GazeAtObject, GazeSpan, Vec3, Walk } from '../document/index.ts';
import {
  GAZE_SMOOTHING,
  gazeAhead,
  gazeAt,
  layOver,
  limitTurning,
  recordedGaze,
  type GazeTables,
  type TurnLimit,
} from '../gaze/index.ts';
import { minimumJerk, type PaceProfile } from '../pace/index.ts';
import type { PlanCurve } from '../path/index.ts';
import { timeOf, type AnchorTimes } from '../track/index.ts';
import { stretchesOff, type GazeOff } from './gaze-off.ts';
import { aheadWithStays, type Standing } from './walk-ahead.ts';
import type { Looked } from './sample.ts';
import { smoothTable, tableAt, type UniformTable } from './uniform-table.ts';

/** A gaze at something that moves is worked out so often, seconds: good to a hundredth of a degree, passing closely. */
const GAZE_INSTANT = 0.02;

/** Where a gaze at an object goes as time does; null where the object stands still. */
export type TargetOf = (gaze: GazeAtObject) => ((time: number) => Vec3) | null;

/** Where a walk looks, by station or by time, radians. */
export interface WalkGaze {
  by: 'station' | 'time';
  pan: UniformTable;
  tilt: UniformTable;
}

/** A gaze span where its anchors have put it. */
export interface SpanTimes {
  id: string;
  /** seconds */
  from: number;
  to: number;
  gaze: Gaze;
}

interface WalkGazeInput {
  walk: Walk;
  curve: PlanCurve;
  pace: PaceProfile;
  /** Height of the eye by station, metres. */
  eyeLine: UniformTable;
  /** Metres that it is lifted at a time; null where it never is. */
  lift: ((time: number) => number) | null;
  closed: boolean;
  loops: boolean;
  anchors: AnchorTimes;
  targetOf: TargetOf;
  /** How near to the place that is looked at the thing itself begins, metres. */
  reachOf: (gaze: Gaze) => number;
  /** How fast the eye may turn; without it, it turns as its gaze asks. */
  turning: TurnLimit | null;
  /** How fast it turns of itself where it has the time, radians a second. */
  comfort: number;
}

interface WalkLook {
  gaze: WalkGaze;
  looks: Looked[];
  off: GazeOff[];
  spans: SpanTimes[];
  /** Spans that hold on to nothing any more. */
  lost: number;
}

/** Where a walk looks, and where bounds on its turning keep it from what it is to look at. */
export function walkGaze(input: WalkGazeInput): WalkLook {
  const { walk, anchors, loops, turning } = input;
  const base = wantedGaze(walk.gaze, input);
  const placed = (walk.gazeSpans ?? []).flatMap((span) => {
    const [from, to] = [timeOf(span.from, anchors), timeOf(span.to, anchors)];
    return from === null || to === null ? [] : [{ span, from, to }];
  });
  const spans = placed.map(({ span, from, to }) => ({ id: span.id, from, to, gaze: span.gaze }));
  const lost = (walk.gazeSpans?.length ?? 0) - placed.length;
  const looks = looksOf(walk.gaze, placed, input);
  if (placed.length === 0 && !turning) return { gaze: base, looks, off: [], spans, lost };
  const { instants, step } = evenTimes(input.pace.duration);
  const under = inTime(base, input);
  const wanted = layOver(
    under,
    placed.map(({ span, from, to }) => ({
      from,
      to,
      handOver: span.handOver,
      gaze: inTime(wantedGaze(span.gaze, input), input),
    })),
    step,
    minimumJerk,
  );
  const turn = loops ? wanted.pan[instants]! - wanted.pan[0]! : null;
  const kept = turning ? limitTurning(wanted, step, turning, turn) : wanted;
  const table = (values: Float64Array) => ({ values, length: input.pace.duration, closed: loops });
  return {
    gaze: { by: 'time', pan: table(kept.pan), tilt: table(kept.tilt) },
    looks,
    off: turning ? stretchesOff(wanted, kept, step) : [],
    spans,
    lost,
  };
}

/** Looked at for less, it is no more than met, seconds. */
const GLANCE = 0.2;

interface PlacedSpan {
  span: GazeSpan;
  /** seconds */
  from: number;
  to: number;
}

/** What is looked at and when: by spans once the eye has turned there, and between them by what lies under them. */
function looksOf(under: Gaze, placed: readonly PlacedSpan[], { pace, targetOf, reachOf }: WalkGazeInput): Looked[] {
  const looked = (gaze: Gaze, from: number, to: number): Looked[] => {
    if (to - from < GLANCE || (gaze.kind !== 'point' && gaze.kind !== 'object')) return [];
    const target = gaze.kind === 'object' ? targetOf(gaze) : null;
    return [{ from, to, at: (time) => target?.(time) ?? gaze.point, reach: reachOf(gaze) }];
  };
  const sorted = [...placed].sort((a, b) => a.from - b.from);
  let free = 0;
  const between = [...sorted, { from: pace.duration, to: pace.duration }].flatMap(({ from, to }) => {
    const gap = looked(under, free, from);
    free = Math.max(free, to);
    return gap;
  });
  return [
    ...between,
    ...sorted.flatMap(({ span, from, to }) => looked(span.gaze, from + span.handOver, to - span.handOver)),
  ];
}

const evenTimes = (duration: number) => {
  const instants = Math.max(2, Math.ceil(duration / GAZE_INSTANT));
  return { instants, step: duration / instants };
};

/** A gaze at even times. */
function inTime({ by, pan, tilt }: WalkGaze, { pace }: WalkGazeInput): GazeTables {
  const { instants, step } = evenTimes(pace.duration);
  const places = Float64Array.from({ length: instants + 1 }, (_, i) =>
    by === 'time' ? i * step : pace.stationAt(i * step),
  );
  return { pan: places.map((place) => tableAt(pan, place)), tilt: places.map((place) => tableAt(tilt, place)) };
}

/** Where the eye would look if it could turn as it liked. */
function wantedGaze(gaze: Gaze, input: WalkGazeInput): WalkGaze {
  const { curve, pace, eyeLine, lift, closed, loops, targetOf } = input;
  const { length } = curve;
  const steps = eyeLine.values.length - 1;
  const { duration } = pace;
  const target = gaze.kind === 'object' ? targetOf(gaze) : null;
  if (gaze.kind === 'bearing') {
    const table = (value: number) => ({ values: new Float64Array(2).fill(value), length, closed });
    return { by: 'station', pan: table(gaze.pan), tilt: table(gaze.tilt) };
  }
  if (gaze.kind === 'recorded') {
    const { pan, tilt } = recordedGaze(gaze, evenTimes(duration).instants);
    const table = (values: Float64Array) => ({ values, length: duration, closed: loops });
    return { by: 'time', pan: table(pan), tilt: table(tilt) };
  }
  if (gaze.kind === 'ahead') {
    const standings = standingsOn(input);
    if (standings.length > 0) {
      const { instants, step } = evenTimes(duration);
      const way = { length, closed, distance: gaze.distance, spacing: length / steps, standings };
      const { pan, tilt } = aheadWithStays(
        { ...way, eyeAt: (stations) => eyesAt(input, stations), stationAt: (time) => pace.stationAt(time) },
        Float64Array.from({ length: instants + 1 }, (_, i) => i * step),
        input.comfort,
      );
      const table = (values: Float64Array) => ({ values, length: duration, closed: loops });
      return { by: 'time', pan: table(pan), tilt: table(tilt) };
    }
    const eye = eyePoints(input, steps, (part) => part * length);
    const { pan, tilt } = gazeAhead(eye, length / steps, gaze.distance, closed);
    const soft = (values: Float64Array) => smoothTable({ values, length, closed }, GAZE_SMOOTHING);
    return { by: 'station', pan: soft(pan), tilt: soft(tilt) };
  }
  if (!target && !lift) {
    // What is looked at stays in the middle of the picture: nothing is smoothed.
    const { pan, tilt } = gazeAt(
      eyePoints(input, steps, (part) => part * length),
      gaze.point,
    );
    const table = (values: Float64Array) => ({ values, length, closed });
    return { by: 'station', pan: table(pan), tilt: table(tilt) };
  }
  const { instants, step } = evenTimes(duration);
  const eye = eyePoints(input, instants, (part) => pace.stationAt(part * duration));
  if (lift) for (let i = 0; i <= instants; i += 1) eye[3 * i + 1] = eye[3 * i + 1]! + lift(i * step);
  const points = new Float64Array(eye.length);
  for (let i = 0; i <= instants; i += 1) points.set(target ? target(i * step) : gaze.point, 3 * i);
  const { pan, tilt } = gazeAt(eye, points);
  const table = (values: Float64Array) => ({ values, length: duration, closed: false });
  return { by: 'time', pan: table(pan), tilt: table(tilt) };
}

/** Stays nearer to an open end than this are its own, metres. */
const AT_END = 0.05;

function standingsOn({ pace, curve, closed }: WalkGazeInput): Standing[] {
  const inside = ({ station }: { station: number }) => station > AT_END && station < curve.length - AT_END;
  return (pace.pauses ?? [])
    .filter((pause) => closed || inside(pause))
    .map(({ station, from, seconds }) => ({ station, from, to: from + seconds }))
    .filter(({ station }, i, all) => i === 0 || station - all[i - 1]!.station > AT_END);
}

/** Where the eye is at `steps` + 1 stations; these are given for parts 0…1 of the way. */
const eyePoints = (input: WalkGazeInput, steps: number, stationAt: (part: number) => number): Float64Array =>
  eyesAt(
    input,
    Float64Array.from({ length: steps + 1 }, (_, i) => stationAt(i / steps)),
  );

function eyesAt({ curve, eyeLine }: WalkGazeInput, stations: Float64Array): Float64Array {
  const plan = new Float64Array(2 * stations.length);
  curve.pointsAt(stations, plan);
  const eye = new Float64Array(3 * stations.length);
  stations.forEach((station, i) => {
    eye[3 * i] = plan[2 * i]!;
    eye[3 * i + 1] = tableAt(eyeLine, station);
    eye[3 * i + 2] = plan[2 * i + 1]!;
  });
  return eye;
}
