import { z } from 'zod';
import { boundsSchema } from './model.ts';
import { fileRefSchema, finite } from './primitives.ts';

export const storeySchema = z.object({
  name: z.string().min(1).max(120),
  /** Height of the storey's floor, metres. */
  elevation: finite,
  /** Walkable area counted at this height, square metres. */
  area: finite.min(0),
});
export type Storey = z.infer<typeof storeySchema>;

/** What makes a site what it is: models, placement, walker, algorithms; see `siteKey`. */
export const siteKeySchema = z.string().regex(/^[0-9a-f]{28}$/, 'a site is named by 28 hexadecimal digits');

/**
 * All shown models of a project, placed and measured together. Computed from the project's rows, never edited: it can be
 * thrown away and made again.
 */
export const siteBodySchema = z.object({
  /** Storeys, rooms and plan line work, JSON. */
  survey: fileRefSchema,
  /** What a walker stands on and comes up against; see `packFooting`. */
  floor: fileRefSchema,
  /** Navigation mesh, as recast keeps it; null where nothing can be walked on. */
  walkway: fileRefSchema.nullable(),
  /** The navigation mesh is still to come. */
  first: z.boolean().default(false),
  bounds: boundsSchema,
  triangles: z.int().min(1),
  storeys: z.array(storeySchema).max(200),
});
export type SiteBody = z.infer<typeof siteBodySchema>;

/** The same models in one light: what the picture draws. Computed, as the site is; see `lightKey`. */
export const litBodySchema = z.object({
  /** The packed models with light baked in; of lamps alone what they give, see `packLampLight`. */
  scene: fileRefSchema,
  /** A light stand-in for a heavy scene, shown until the whole has arrived; null where the scene is light. */
  glance: fileRefSchema.nullable().default(null),
  /** The light is a first one, of few rays: the whole one is still being gathered. */
  first: z.boolean().default(false),
});
export type LitBody = z.infer<typeof litBodySchema>;
