import { moveBodySchema, type Anchor, type MoveBody, type WayAnchor } from '../document/index.ts';
import { withAnchors } from '../track/index.ts';
import { reversedWalk } from './reverse.ts';
import { slowerSpans, travelEnd, mirrorPoses } from './travel-edit.ts';

/** What may be otherwise in a copy of a move. */
export const VARIATIONS = ['the other way', 'slower', 'quicker', 'wider lens', 'longer lens', 'lower eye'] as const;
export type Variation = (typeof VARIATIONS)[number];

/** A fifth slower or quicker is seen, and is still the same move (common practice, no source). */
const PACE = 0.8;
/** From one lens to the next that is usual: 28 to 35, 35 to 50 mm (common practice, no source). */
const LENS = 1.3;
/** Eye of somebody who sits, metres (common practice, no source). */
const SEATED = 1.2;

/** A move in another way; null where its kind has no such way, or it would leave what a move may be. */
export function varied(body: MoveBody, variation: Variation): MoveBody | null {
  const made = makes[variation](body);
  const parsed = made && moveBodySchema.safeParse(made);
  return parsed?.success ? parsed.data : null;
}

const makes: Record<Variation, (body: MoveBody) => MoveBody | null> = {
  'the other way': otherWay,
  slower: (body) => paced(body, 1 / PACE),
  quicker: (body) => paced(body, PACE),
  'wider lens': (body) => lensed(body, 1 / LENS),
  'longer lens': (body) => lensed(body, LENS),
  'lower eye': (body) => (body.kind === 'walk' && body.eyeHeight > SEATED ? { ...body, eyeHeight: SEATED } : null),
};

function otherWay(body: MoveBody): MoveBody | null {
  switch (body.kind) {
    case 'walk':
    case 'glide':
      return body.path.nodes.length > 1 ? reversedWalk(body) : null;
    case 'orbit':
      return { ...body, sweep: -body.sweep };
    case 'travel':
      return body.poses.length > 1
        ? {
            ...body,
            poses: mirrorPoses(
              body.poses,
              body.poses.map(({ id }) => id),
            ),
          }
        : null;
    default:
      return null;
  }
}

/** So many times as long. What is held by a time is at that part of the move again. */
function paced(body: MoveBody, factor: number): MoveBody | null {
  const timed = <T extends Anchor | WayAnchor>(anchor: T): T =>
    anchor.by === 'time' ? { ...anchor, time: anchor.time * factor } : anchor;
  const shared = {
    ...(body.tracks && { tracks: withAnchors(body.tracks, timed) }),
    ...('gazeSpans' in body &&
      body.gazeSpans && {
        gazeSpans: body.gazeSpans.map((span) => ({ ...span, from: timed(span.from), to: timed(span.to) })),
      }),
  };
  switch (body.kind) {
    case 'walk':
    case 'glide': {
      const { pace } = body;
      const { marks, pins } = pace;
      return {
        ...body,
        ...shared,
        pace: {
          ...pace,
          speed: pace.speed / factor,
          duration: pace.duration * factor,
          ...(marks && { marks: marks.map((mark) => ({ ...mark, speed: mark.speed / factor })) }),
          ...(pins && { pins: pins.map((pin) => ({ ...pin, time: pin.time * factor })) }),
        },
      };
    }
    case 'travel':
      return body.poses.length > 1
        ? { ...slowerSpans(body, 0, travelEnd(body.poses) - body.poses[0]!.time, factor), ...shared }
        : null;
    default:
      return { ...body, ...shared, duration: body.duration * factor };
  }
}

function lensed(body: MoveBody, factor: number): MoveBody {
  const mm = (value: number) => Math.round(value * factor);
  const keys = body.tracks?.focalLength;
  return {
    ...body,
    lens: { ...body.lens, focalLengthMm: mm(body.lens.focalLengthMm) },
    ...(keys && {
      tracks: { ...body.tracks, focalLength: keys.map((key) => ({ ...key, value: mm(key.value) })) },
    }),
  };
}
