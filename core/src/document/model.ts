import { z } from 'zod';
import { fileRefSchema, finite, vec3Schema } from './primitives.ts';

export const boundsSchema = z.object({ min: vec3Schema, max: vec3Schema });
export type Bounds = z.infer<typeof boundsSchema>;

export const upAxisSchema = z.enum(['y', 'z']);
export type UpAxis = z.infer<typeof upAxisSchema>;

/** How a model's own coordinates become the project's: scaled, set upright, turned, moved, in that order. */
export const placementSchema = z.object({
  /** Metres in one unit of the file. */
  metresPerUnit: finite.min(1e-6).max(1e6),
  /** Which axis of the file points up. */
  up: upAxisSchema,
  /** Turn about the vertical, counter-clockwise seen from above, radians. */
  turn: finite,
  /** Where the file's origin comes to lie, metres. */
  position: vec3Schema,
});
export type Placement = z.infer<typeof placementSchema>;

export const AS_IT_CAME: Placement = { metresPerUnit: 1, up: 'y', turn: 0, position: [0, 0, 0] };

/** What a person changed about the look of one part. Colours are linear, 0…1. */
export const partLookSchema = z.object({
  hidden: z.boolean().optional(),
  color: z.tuple([finite, finite, finite]).optional(),
  roughness: finite.min(0).max(1).optional(),
  /** Shown as plain clay, whatever its material. */
  clay: z.boolean().optional(),
});
export type PartLook = z.infer<typeof partLookSchema>;

/** What a person changed about a material, wherever it is used; what is changed of a single part goes before it. */
export const materialLookSchema = partLookSchema.omit({ hidden: true }).extend({
  /** Is it lit, or shown as it is because its colours hold their light already? */
  light: z.enum(['lit', 'unlit']).optional(),
});
export type MaterialLook = z.infer<typeof materialLookSchema>;

/** What the program makes of a model's unit and up-axis, and how it looks that way. */
export const modelGuessSchema = z.object({
  /** The best first. */
  candidates: z
    .array(
      z.object({
        metresPerUnit: finite.min(1e-6).max(1e6),
        up: upAxisSchema,
        /** How sure that is, 0…1. */
        share: finite.min(0).max(1),
        /** Why, one sentence each. */
        why: z.array(z.string().max(300)).max(8),
      }),
    )
    .min(1)
    .max(5),
  /** What it looks like from the front with either axis up; see `silhouetteOf`. */
  silhouettes: z.object({ y: z.array(z.string().max(40)).max(64), z: z.array(z.string().max(40)).max(64) }),
});
export type ModelGuess = z.infer<typeof modelGuessSchema>;

export const modelBodySchema = z.object({
  fileName: z.string().min(1).max(255),
  source: fileRefSchema,
  /** What the file held, ready to be placed: made from the source and made again when the reader has changed. */
  packed: z.object({ reader: z.int().min(1), file: fileRefSchema }).nullable(),
  /** What the file says about itself; null where its format says nothing. */
  declares: z
    .object({
      metresPerUnit: finite.nullable(),
      up: upAxisSchema.nullable(),
      /** Where on earth it stands, degrees. */
      latitude: finite.min(-90).max(90).optional(),
      longitude: finite.min(-180).max(180).optional(),
      /** Where north is in the plan of the file's own axes: angle from up towards the right, radians. */
      north: finite.optional(),
      /** The file's zero in the coordinates of a map, metres, and the turn of its x axis from east, radians. */
      map: z.object({ east: finite, north: finite, height: finite, turn: finite }).optional(),
    })
    .default({ metresPerUnit: null, up: null }),
  /** In the file's own units and axes. */
  bounds: boundsSchema,
  /** Null where it was read before guesses were kept. */
  guess: modelGuessSchema.nullable().default(null),
  /** A person has said what its unit and up-axis are: nothing is suggested any more. */
  settled: z.boolean().default(false),
  triangles: z.int().min(1),
  placement: placementSchema.default(AS_IT_CAME),
  hidden: z.boolean().default(false),
  /** By the part's name. */
  parts: z.record(z.string().max(500), partLookSchema).default({}),
  /** By the material's name. */
  materials: z.record(z.string().max(500), materialLookSchema).default({}),
  /** Movements that came with the file, ready to be used as actions. */
  movements: z
    .array(
      z.object({
        name: z.string().min(1).max(500),
        /** seconds */
        duration: finite.min(0),
        /** What it moves, by name. */
        targets: z.array(z.string().max(500)).max(50),
      }),
    )
    .max(200)
    .default([]),
  /** What could not be read, in plain words. */
  notes: z.array(z.string().max(500)).max(50).default([]),
});
export type ModelBody = z.infer<typeof modelBodySchema>;
