import { z } from 'zod';

/** Row identity. Made by whoever creates the row, so that a repeated request is the same request. */
export const idSchema = z.uuid();

/** A finite number: NaN and the infinities are refused at the door. */
export const finite = z.number();
/** A number between two limits, both included. */
export const within = ([least, most]: readonly [number, number]) => finite.min(least).max(most);

/** Metres, [x, y, z], right-handed, y up. */
export const vec3Schema = z.tuple([finite, finite, finite]);
export type Vec3 = z.infer<typeof vec3Schema>;

/** Unit quaternion [x, y, z, w]; a camera with the identity looks down −Z. */
export const quaternionSchema = z
  .tuple([finite, finite, finite, finite])
  .refine((q) => Math.abs(Math.hypot(...q) - 1) < 1e-3, 'a quaternion must have length 1');
export type Quaternion = z.infer<typeof quaternionSchema>;

/** Frames per second as an exact ratio, so that 29.97 is 30000/1001. */
export const rateSchema = z.object({
  num: z.int().min(1).max(240_000),
  den: z.int().min(1).max(1001),
});
export type Rate = z.infer<typeof rateSchema>;

/** SHA-256 of a stored file, lower-case hexadecimal. */
export const sha256Schema = z.string().regex(/^[0-9a-f]{64}$/, 'a file is named by 64 hexadecimal digits');

/** A stored file: where it is kept (by content), its size in bytes, what it is. */
export const fileRefSchema = z.object({
  sha256: sha256Schema,
  size: z.int().min(0),
  mediaType: z.string().min(1).max(100),
});
export type FileRef = z.infer<typeof fileRefSchema>;

/** What a person may call something: 1–120 characters after trimming. */
export const nameSchema = z
  .string()
  .trim()
  .min(1, 'a name needs at least one character')
  .max(120, 'a name has at most 120 characters');

export const LONGEST_GROUP_NAME = 60;
/** Name of a group, 1–60 characters: what has the same belongs together. */
export const groupNameSchema = z.string().trim().min(1).max(LONGEST_GROUP_NAME);
