import type { Gaze, Walk } from '../document/index.ts';
import { GAZE_SMOOTHING, gazeAhead, gazeAt, recordedGaze, type GazeTables, type TurnLimit } from '../gaze/index.ts';
import type { PaceProfile } from '../pace/index.ts';
import type { PlanCurve } from '../path/index.ts';
import type { AnchorTimes } from '../track/index.ts';
import {
  evenTimes,
  layGaze,
  looksOf,
  type GazeUnder,
  type SpanTimes,
  type Stretch,
  type TargetOf,
} from './gaze-layers.ts';
import type { GazeOff } from './gaze-off.ts';
import { targetOver } from './gaze-target.ts';
import { FIRST_AHEAD, gazeInFrame, pointsOf, type EdgesAt } from './timed-gaze.ts';
import { aheadWithStays, type Standing } from './walk-ahead.ts';
import type { Looked } from './sample.ts';
import { smoothTable, tableAt, type UniformTable } from './uniform-table.ts';

/** Where a walk looks, by station or by time, radians. */
export interface WalkGaze {
  by: 'station' | 'time';
  pan: UniformTable;
  tilt: UniformTable;
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
  edgesAt: EdgesAt;
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
  const { walk, turning } = input;
  const base = wantedGaze(walk.gaze, { from: 0, to: input.pace.duration }, input);
  const spans = walk.gazeSpans ?? [];
  if (spans.length === 0 && !turning)
    return { gaze: base, looks: looksOf(underOf(input)), off: [], spans: [], lost: 0 };
  const { pan, tilt, ...laid } = layGaze(underOf(input), inTime(base, input), (gaze, stretch) =>
    inTime(wantedGaze(gaze, stretch, input), input),
  );
  return { gaze: { by: 'time', pan, tilt }, ...laid };
}

const underOf = (input: WalkGazeInput): GazeUnder => {
  const { walk, pace, loops, anchors, turning, targetOf, reachOf } = input;
  const { gaze, gazeSpans: spans = [] } = walk;
  return { gaze, spans, duration: pace.duration, loops, anchors, turning, targetOf, reachOf };
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
function wantedGaze(gaze: Gaze, stretch: Stretch, input: WalkGazeInput): WalkGaze {
  const { curve, pace, eyeLine, lift, closed, loops, targetOf } = input;
  const { length } = curve;
  const steps = eyeLine.values.length - 1;
  const { duration } = pace;
  if (gaze.kind === 'bearing') {
    const table = (value: number) => ({ values: new Float64Array(2).fill(value), length, closed });
    return { by: 'station', pan: table(gaze.pan), tilt: table(gaze.tilt) };
  }
  if (gaze.kind === 'recorded') {
    const { pan, tilt } = recordedGaze(gaze, evenTimes(duration).instants);
    const table = (values: Float64Array) => ({ values, length: duration, closed: loops });
    return { by: 'time', pan: table(pan), tilt: table(tilt) };
  }
  if (gaze.kind === 'ahead' || gaze.kind === 'kept') {
    // Who walks has no direction of its own: it looks ahead.
    const distance = gaze.kind === 'ahead' ? gaze.distance : FIRST_AHEAD;
    const standings = standingsOn(input);
    if (standings.length > 0) {
      const { instants, step } = evenTimes(duration);
      const way = { length, closed, distance, spacing: length / steps, standings };
      const { pan, tilt } = aheadWithStays(
        { ...way, eyeAt: (stations) => eyesAt(input, stations), stationAt: (time) => pace.stationAt(time) },
        Float64Array.from({ length: instants + 1 }, (_, i) => i * step),
        input.comfort,
      );
      const table = (values: Float64Array) => ({ values, length: duration, closed: loops });
      return { by: 'time', pan: table(pan), tilt: table(tilt) };
    }
    const eye = eyePoints(input, steps, (part) => part * length);
    const { pan, tilt } = gazeAhead(eye, length / steps, distance, closed);
    const soft = (values: Float64Array) => smoothTable({ values, length, closed }, GAZE_SMOOTHING);
    return { by: 'station', pan: soft(pan), tilt: soft(tilt) };
  }
  const target = targetOver(gaze, stretch, targetOf);
  if (gaze.kind !== 'line' && !target && !lift && !gaze.place && !gaze.lead) {
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
  const points = pointsOf(gaze, target, { instants, step });
  const { pan, tilt } = gazeInFrame(gaze, eye, points, { step, edgesAt: input.edgesAt });
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
