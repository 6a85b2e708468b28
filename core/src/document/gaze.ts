import { z } from 'zod';
import { finite, idSchema, vec3Schema, within } from './primitives.ts';
import { pathSchema } from './path.ts';
import { anchorSchema } from './track.ts';

/** How far along its way an eye may look, metres. */
export const LOOK_AHEAD = [0.001, 20] as const;

const gazeAheadSchema = z.object({
  kind: z.literal('ahead'),
  /** How far along the path the eye looks, metres. */
  distance: within(LOOK_AHEAD).default(2),
});

/** Where in the frame what is looked at is held; without it, in the middle. */
const inFrame = {
  /** Parts of half the frame's width and height: to the right and up. */
  place: z.tuple([finite.min(-0.9).max(0.9), finite.min(-0.9).max(0.9)]).optional(),
  /** Room that is left before what moves across the frame, as a part of half its width. */
  lead: finite.min(0).max(0.8).optional(),
};

/** A gaze at a place on a named part, which is found again wherever the part has gone. */
const gazeAtObjectSchema = z.object({
  kind: z.literal('object'),
  model: idSchema,
  /** Name of the part within its model. */
  name: z.string().min(1).max(2000),
  /** What is looked at, metres, as it was when it was chosen. */
  point: vec3Schema,
  /** Middle of the part at that time: the point keeps its place beside it. */
  centre: vec3Schema,
  ...inFrame,
});
export type GazeAtObject = z.infer<typeof gazeAtObjectSchema>;

/** A gaze at a place that belongs to nothing. */
const gazeAtPointSchema = z.object({ kind: z.literal('point'), point: vec3Schema, ...inFrame });

/** A gaze that keeps a direction, radians: to the left from −Z, and up. */
const gazeOnBearingSchema = z.object({
  kind: z.literal('bearing'),
  pan: finite.min(-1000).max(1000),
  tilt: finite.min(-Math.PI / 2).max(Math.PI / 2),
});

/** Instants of a recorded gaze at most. */
export const MOST_LOOKS = 4000;

/** A gaze as somebody looked while walking, by parts of the move's time. */
const gazeRecordedSchema = z.object({
  kind: z.literal('recorded'),
  looks: z
    .array(
      z.object({
        /** Part of the time, 0…1; in order. */
        at: finite.min(0).max(1),
        /** radians: to the left from −Z, without a jump from one to the next, and up */
        pan: finite.min(-1000).max(1000),
        tilt: finite.min(-Math.PI / 2).max(Math.PI / 2),
      }),
    )
    .min(1)
    .max(MOST_LOOKS),
});
export type GazeRecorded = z.infer<typeof gazeRecordedSchema>;

/** A gaze that goes along a line drawn for the eye: evenly from the beginning of its time to the end. */
const gazeAlongLineSchema = z.object({
  kind: z.literal('line'),
  /** In space: heights are those of its nodes, metres; open. */
  path: pathSchema.extend({ nodes: pathSchema.shape.nodes.min(1), closed: z.literal(false).default(false) }),
  ...inFrame,
});
export type GazeAlongLine = z.infer<typeof gazeAlongLineSchema>;

/** The direction that the move itself has: that of its kept poses, or of its seat on what carries it. */
const gazeKeptSchema = z.object({ kind: z.literal('kept') });

export const gazeSchema = z.discriminatedUnion('kind', [
  gazeAheadSchema,
  gazeAtObjectSchema,
  gazeAtPointSchema,
  gazeOnBearingSchema,
  gazeAlongLineSchema,
  gazeRecordedSchema,
  gazeKeptSchema,
]);
export type Gaze = z.infer<typeof gazeSchema>;

/** A gaze at something: it is held in the frame. */
export type HeldGaze = Extract<Gaze, { kind: 'point' | 'object' | 'line' }>;
export const atSomething = (gaze: Gaze): gaze is HeldGaze =>
  gaze.kind === 'point' || gaze.kind === 'object' || gaze.kind === 'line';

/** An eye takes no longer to turn to what it is to look at, seconds. */
export const LONGEST_HAND_OVER = 60;

/** A stretch of a walk with a gaze of its own. */
export const gazeSpanSchema = z.object({
  id: idSchema,
  from: anchorSchema,
  to: anchorSchema,
  gaze: gazeSchema,
  /** How long the eye takes to turn there and away again, within the span, seconds. */
  handOver: finite.min(0).max(LONGEST_HAND_OVER).default(1.2),
});
export type GazeSpan = z.infer<typeof gazeSpanSchema>;

/** Spans of one move at most. */
export const MOST_SPANS = 100;
