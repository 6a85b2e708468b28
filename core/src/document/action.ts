import { z } from 'zod';
import { carrySchema, paceShapeSchema } from './pace.ts';
import { pathSchema } from './path.ts';
import { finite, idSchema, vec3Schema } from './primitives.ts';

const shared = {
  /** The model that moves, or a part of which does. */
  model: idSchema,
  /** When it begins, seconds into the move. */
  start: finite.min(0).max(3600).default(0),
  /** It does nothing for now. */
  off: z.literal(true).optional(),
};

/** Name of the part within its model, or the beginning that a group of parts shares. */
const part = z.string().min(1).max(500);

/** How something goes through what it does once, and how long that takes. */
const run = {
  /** seconds */
  seconds: finite.min(0.1).max(3600),
  shape: paceShapeSchema,
  carry: carrySchema.optional(),
};

export const repeatSchema = z.enum(['once', 'again', 'to and fro']);
/** What happens at the end: it stays there, begins anew, or goes back the way it came. */
export type Repeat = z.infer<typeof repeatSchema>;

/** A movement as it came with the file, found again by its name. */
const recordedActionSchema = z.object({
  kind: z.literal('recorded'),
  ...shared,
  movement: z.string().min(1).max(500),
  /** Seconds of the movement in one second of the move. */
  speed: finite.min(0.05).max(20).default(1),
  repeat: repeatSchema.default('once'),
});
export type RecordedAction = z.infer<typeof recordedActionSchema>;

/** A part turning steadily about its own middle. */
const spinActionSchema = z.object({
  kind: z.literal('spin'),
  ...shared,
  part,
  /** Direction of the axis in the model's own coordinates, of any length but zero: it turns with the model. */
  axis: vec3Schema.refine((axis) => Math.hypot(...axis) > 1e-6, 'an axis needs a direction'),
  /** Radians a second, counter-clockwise seen against the axis. */
  rate: finite.min(-100).max(100),
  /** How far it turns in a time of its own instead of steadily, radians: the rate says nothing then. */
  turn: z.object({ angle: finite.min(-1000).max(1000), ...run, repeat: repeatSchema.default('once') }).optional(),
});
export type SpinAction = z.infer<typeof spinActionSchema>;

/** A part that opens about an upright edge of its own, as a door does. */
const hingeActionSchema = z.object({
  kind: z.literal('hinge'),
  ...shared,
  part,
  /** At which end of its longer side it hangs: that with the lower or the higher coordinates. */
  end: z.enum(['low', 'high']),
  /** How far it opens, radians; positive counter-clockwise in the plan. */
  angle: finite.min(-2 * Math.PI).max(2 * Math.PI),
  /** It begins turned by that angle, and comes to where it rests: a door that was modelled open, and opens. */
  back: z.literal(true).optional(),
  ...run,
  repeat: repeatSchema.default('once'),
});
export type HingeAction = z.infer<typeof hingeActionSchema>;

/** A part that goes along a path, which begins where the part rests. */
const alongActionSchema = z.object({
  kind: z.literal('along'),
  ...shared,
  part,
  /** Heights of its nodes count as those of a glide do. */
  path: pathSchema,
  /** It turns with the way. */
  faces: z.boolean(),
  ...run,
  repeat: repeatSchema.default('once'),
});
export type AlongAction = z.infer<typeof alongActionSchema>;

/** A part that is not there at first and appears, or goes. */
const appearActionSchema = z.object({
  kind: z.literal('appear'),
  ...shared,
  part,
  /** It goes instead. */
  goes: z.literal(true).optional(),
  /** At once; out of its foot, each of several parts for itself; or as a dissolve does, through what is behind it. */
  how: z.enum(['at once', 'grows', 'fades']),
  /** One after another, the lowest first. */
  inOrder: z.literal(true).optional(),
  ...run,
});
export type AppearAction = z.infer<typeof appearActionSchema>;

/** Of the light that a lamp gives in the light at hand, 0…1. */
const level = finite.min(0).max(1);

/** Lamps that get brighter or darker, with what they light; those that are off in a light stay off. */
const dimActionSchema = z.object({
  kind: z.literal('dim'),
  ...shared,
  part,
  /** Before it begins, and once it is done. */
  from: level,
  to: level,
  /** It switches instead, all at once. */
  switches: z.literal(true).optional(),
  ...run,
  repeat: repeatSchema.default('once'),
});
export type DimAction = z.infer<typeof dimActionSchema>;

/** What an object does, on the time of the move that is played. */
export const actionBodySchema = z.discriminatedUnion('kind', [
  recordedActionSchema,
  spinActionSchema,
  hingeActionSchema,
  alongActionSchema,
  appearActionSchema,
  dimActionSchema,
]);
export type ActionBody = z.infer<typeof actionBodySchema>;
