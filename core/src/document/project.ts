import { z } from 'zod';
import { ALL_LIT, exposureSchema, lampsSchema, lightPictureSchema, skySchema } from './light.ts';
import { frameSchema } from './frame.ts';
import { finite, rateSchema, vec3Schema } from './primitives.ts';

/** Where and when the sun shines on a project. */
export const sunSettingSchema = z.object({
  /** Degrees, north positive. */
  latitude: finite.min(-90).max(90),
  /** Degrees, east positive. */
  longitude: finite.min(-180).max(180),
  /** Instant, ISO 8601 in universal time. */
  instant: z.iso.datetime(),
  /** Hours that the local clock is ahead of universal time, for showing and setting the time. */
  clock: finite.min(-14).max(14),
  /** Where north is: angle from the plan's −Z towards +X, radians. */
  north: finite,
});
export type SunSetting = z.infer<typeof sunSettingSchema>;

/** An afternoon in early autumn, in the middle latitudes: long shadows, everything readable. */
export const FIRST_SUN: SunSetting = {
  latitude: 54.5,
  longitude: 8.6,
  instant: '2026-08-28T14:20:00.000Z',
  clock: 2,
  north: 0,
};

/** Who walks here: what the navigation mesh and the scout are made for. Metres, degrees. */
export const walkerSchema = z.object({
  radius: finite.min(0.05).max(2),
  height: finite.min(0.5).max(3),
  step: finite.min(0.02).max(1),
  slope: finite.min(5).max(80),
});
export type Walker = z.infer<typeof walkerSchema>;

export const FIRST_WALKER: Walker = { radius: 0.25, height: 1.9, step: 0.25, slope: 45 };

/** A storey that a person corrected, left out (`elevation` null) or added (`found` null). Heights in metres. */
export const storeyChangeSchema = z
  .object({ found: finite.nullable(), elevation: finite.nullable() })
  .refine(({ found, elevation }) => found !== null || elevation !== null, 'a storey is found or added');
export type StoreyChange = z.infer<typeof storeyChangeSchema>;

/** From where on the checks say something. */
export const checkLimitsSchema = z.object({
  /** Faster than people walk, m/s, with some room for a walk that has to arrive in time (common practice: 0.8 to 1.4). */
  haste: finite.min(0.1).max(50).default(1.45),
  /** A camera that turns faster is noted, degrees a second (common practice, no source). */
  turnNote: finite.min(1).max(360).default(30),
  /** And this is too fast to follow, degrees a second (common practice, no source). */
  turnProblem: finite.min(1).max(720).default(60),
  /** A camera that stands and pans lets nothing cross the picture in less, seconds (common practice, no source). */
  crossing: finite.min(0.5).max(60).default(7),
  /** How fast a gaze may begin to turn, degrees a second, in a second (common practice, no source). */
  turnAcceleration: finite.min(5).max(5000).default(120),
  /** Verticals that lean more towards each other, from edge to edge of a still, are noted, degrees (common practice, no source). */
  converging: finite.min(0.1).max(90).default(2),
  /** A horizon that is off level by more is noted, degrees (common practice, no source). */
  offLevel: finite.min(0.05).max(45).default(0.3),
  /** Things at the edge of a still may be so much longer than they are wide: a part of their width (common practice, no source). */
  stretched: finite
    .min(0.05)
    .max(5)
    .default(1 / 3),
  /** Eyes of people are from this high over a floor, metres: a child that stands, a grown-up who sits (common practice, no source). */
  eyeLow: finite.min(0.1).max(3).default(0.9),
  /** …to this high, metres. */
  eyeHigh: finite.min(0.5).max(5).default(2),
  /** What is nearer to the camera covers too much of a still, metres (common practice, no source). */
  tooNear: finite.min(0.01).max(10).default(0.5),
  /** A facade that is seen straight on to within this looks flat, degrees (common practice, no source). */
  straightOn: finite.min(0.5).max(45).default(6),
  /** So much of a still may be burnt out to white: a part of the picture (common practice, no source). */
  burntOut: finite.min(0.001).max(1).default(0.05),
});
export type CheckLimits = z.infer<typeof checkLimitsSchema>;
export const FIRST_LIMITS: CheckLimits = checkLimitsSchema.parse({});

export const lookSchema = z.enum(['natural', 'clay', 'line']);
/** How the picture shows the model: with its materials, as white clay, or as ink lines on paper. */
export type Look = z.infer<typeof lookSchema>;

export const projectBodySchema = z.object({
  client: z.string().max(120).default(''),
  /** The round shown in the top bar, as the studio words it. */
  round: z.string().max(60).default('Round 1'),
  rate: rateSchema.default({ num: 25, den: 1 }),
  /** Width over height of the pictures of this project, where a view has no frame of its own. */
  frame: frameSchema.default({ width: 16, height: 9 }),
  /** Metres above the floor that a new walk or view starts with. */
  eyeHeight: finite.min(0.3).max(3).default(1.6),
  sun: sunSettingSchema.default(FIRST_SUN),
  /** Sky and lamps of the project's own light, which holds wherever no named one is chosen. */
  sky: skySchema.default('clear'),
  lamps: lampsSchema.default(ALL_LIT),
  walker: walkerSchema.default(FIRST_WALKER),
  limits: checkLimitsSchema.default(FIRST_LIMITS),
  look: lookSchema.default('natural'),
  /** Lighter or darker pictures in the project's own light. */
  exposure: exposureSchema.default(0),
  /** The project in its own light. */
  picture: lightPictureSchema,
  /** Names that people gave to storeys: a name belongs to the storey nearest its height, within half a metre. */
  storeyNames: z.array(z.object({ elevation: finite, name: z.string().trim().min(1).max(80) })).default([]),
  storeyChanges: z.array(storeyChangeSchema).max(200).default([]),
  /** Names that people gave to rooms: a name belongs to the room that its point lies in. */
  roomNames: z.array(z.object({ at: vec3Schema, name: z.string().trim().min(1).max(80) })).default([]),
});
export type ProjectBody = z.infer<typeof projectBodySchema>;
