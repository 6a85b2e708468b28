import type { Gaze, GazeAtObject, GazeSpan, Vec3 } from '../document/index.ts';
import { layOver, limitTurning, type GazeTables, type TurnLimit } from '../gaze/index.ts';
import { minimumJerk } from '../geometry/index.ts';
import { timeOf, type AnchorTimes } from '../track/index.ts';
import { stretchesOff, type GazeOff } from './gaze-off.ts';
import type { Looked } from './sample.ts';
import type { UniformTable } from './uniform-table.ts';

/** A gaze at something that moves is worked out so often, seconds: good to a hundredth of a degree, passing closely. */
const GAZE_INSTANT = 0.02;

/** How often a gaze is worked out over a move. @param duration seconds */
export const evenTimes = (duration: number) => {
  const instants = Math.max(2, Math.ceil(duration / GAZE_INSTANT));
  return { instants, step: duration / instants };
};

/** Where a gaze at an object goes as time does; null where the object stands still. */
export type TargetOf = (gaze: GazeAtObject) => ((time: number) => Vec3) | null;

/** A stretch of a move, seconds. */
export interface Stretch {
  from: number;
  to: number;
}

/** A gaze span where its anchors have put it. */
export interface SpanTimes {
  id: string;
  /** seconds */
  from: number;
  to: number;
  gaze: Gaze;
}

/** What spans of a gaze are laid over. */
export interface GazeUnder {
  gaze: Gaze;
  spans: readonly GazeSpan[];
  /** seconds */
  duration: number;
  loops: boolean;
  anchors: AnchorTimes;
  /** How fast the eye may turn; without it, it turns as its gaze asks. */
  turning: TurnLimit | null;
  targetOf: TargetOf;
  /** How near to the place that is looked at the thing itself begins, metres. */
  reachOf: (gaze: Gaze) => number;
}

/** Where a camera looks as time goes on. */
export interface LaidGaze {
  /** By time, radians. */
  pan: UniformTable;
  tilt: UniformTable;
  looks: Looked[];
  /** Where bounds on its turning keep it from what it is to look at. */
  off: GazeOff[];
  spans: SpanTimes[];
  /** Spans that hold on to nothing any more. */
  lost: number;
}

/**
 * Spans laid over a gaze, and held to bounds on turning.
 * @param under the gaze itself, at {@link evenTimes}
 * @param wanted where another gaze would look at those times if the eye could turn as it liked; it lies over a stretch of
 *   them, seconds
 */
export function layGaze(
  input: GazeUnder,
  under: GazeTables,
  wanted: (gaze: Gaze, stretch: Stretch) => GazeTables,
): LaidGaze {
  const { spans, loops, turning, duration } = input;
  const placed = placeSpans(input);
  const { instants, step } = evenTimes(duration);
  const laid = layOver(
    under,
    placed.map(({ span, from, to }) => ({ from, to, handOver: span.handOver, gaze: wanted(span.gaze, { from, to }) })),
    step,
    minimumJerk,
  );
  const turn = loops ? laid.pan[instants]! - laid.pan[0]! : null;
  const kept = turning ? limitTurning(laid, step, turning, turn) : laid;
  const table = (values: Float64Array) => ({ values, length: duration, closed: loops });
  return {
    pan: table(kept.pan),
    tilt: table(kept.tilt),
    looks: looksOf(input, placed),
    off: turning ? stretchesOff(laid, kept, step) : [],
    spans: placed.map(({ span, from, to }) => ({ id: span.id, from, to, gaze: span.gaze })),
    lost: spans.length - placed.length,
  };
}

interface PlacedSpan {
  span: GazeSpan;
  /** seconds */
  from: number;
  to: number;
}

const placeSpans = ({ spans, anchors }: GazeUnder): PlacedSpan[] =>
  spans.flatMap((span) => {
    const [from, to] = [timeOf(span.from, anchors), timeOf(span.to, anchors)];
    return from === null || to === null ? [] : [{ span, from, to }];
  });

/** Looked at for less, it is no more than met, seconds. */
const GLANCE = 0.2;

/** What is looked at and when: by spans once the eye has turned there, and between them by what lies under them. */
export function looksOf(input: GazeUnder, placed: readonly PlacedSpan[] = placeSpans(input)): Looked[] {
  const { gaze: under, duration, targetOf, reachOf } = input;
  const looked = (gaze: Gaze, from: number, to: number): Looked[] => {
    if (to - from < GLANCE || (gaze.kind !== 'point' && gaze.kind !== 'object')) return [];
    const target = gaze.kind === 'object' ? targetOf(gaze) : null;
    return [{ from, to, at: (time) => target?.(time) ?? gaze.point, moves: target !== null, reach: reachOf(gaze) }];
  };
  const sorted = [...placed].sort((a, b) => a.from - b.from);
  let free = 0;
  const between = [...sorted, { from: duration, to: duration }].flatMap(({ from, to }) => {
    const gap = looked(under, free, from);
    free = Math.max(free, to);
    return gap;
  });
  return [
    ...between,
    ...sorted.flatMap(({ span, from, to }) => looked(span.gaze, from + span.handOver, to - span.handOver)),
  ];
}
