import { z } from 'zod';
import { isWithin, type PartPath } from './part-path.ts';
import { fileRefSchema, finite, idSchema, type Vec3 } from './primitives.ts';

/** What the sky is like: clear with a sun, or one grey cover (CIE standard overcast sky) that hides it. */
export const skySchema = z.enum(['clear', 'overcast']);
export type Sky = z.infer<typeof skySchema>;

/** Which of the things that glow are switched on: all or none, but for some, by model and name. */
export const lampsSchema = z.object({
  lit: z.boolean(),
  /** Parts, or groups of parts, that are otherwise. */
  except: z.array(z.object({ model: idSchema, name: z.string().min(1).max(2000) })).max(500),
});
export type Lamps = z.infer<typeof lampsSchema>;

export const ALL_LIT: Lamps = { lit: true, except: [] };

export const LEAST_EXPOSURE = -3;
export const MOST_EXPOSURE = 3;
/** Lighter or darker pictures, stops: one is twice the light. */
export const exposureSchema = finite.min(LEAST_EXPOSURE).max(MOST_EXPOSURE);

/** Names what a site is lit by; see `lightKey`. */
export const lightKeySchema = z.string().regex(/^[0-9a-f]{28}$/, 'a light is named by 28 hexadecimal digits');

/** A small picture of the project in a light, and what it was drawn from: see `lightPictureKey`. */
export const lightPictureSchema = z.object({ of: lightKeySchema, file: fileRefSchema }).nullable().default(null);

/** A named light of a project: the sun at a time, a sky, lamps, and how light its pictures are. */
export const lightBodySchema = z.object({
  /** Instant, ISO 8601 in universal time; where on earth is a matter of the project. */
  instant: z.iso.datetime(),
  sky: skySchema.default('clear'),
  lamps: lampsSchema.default(ALL_LIT),
  exposure: exposureSchema.default(0),
  picture: lightPictureSchema,
});
export type LightBody = z.infer<typeof lightBodySchema>;

/** Which named light a view or move is seen in; absent or null: the project's own. */
export const lightChoiceSchema = idSchema.nullable().optional();

/** What a site is lit by: a light where the project is, or some lamps alone, in the dark. */
export interface SiteLight {
  /** Unit vector towards the sun, also where the sky hides it. */
  sun: Readonly<Vec3>;
  sky: Sky | 'dark';
  lamps: SiteLamps;
}

/** Lamps that light a site. */
export interface SiteLamps extends Lamps {
  /** Parts, or groups of parts, that are off whatever else is said. */
  without?: readonly PartPath[];
}

/** Is a part, if it glows at all, switched on? */
export const isLit = (
  { lit, except, without = [] }: SiteLamps,
  { model = '', name }: { model?: string; name: string },
): boolean => {
  const isOneOf = (one: PartPath) => one.model === model && isWithin(name, one.name);
  return !without.some(isOneOf) && lit !== except.some(isOneOf);
};
