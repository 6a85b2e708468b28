import { frameSchema } from '@eskovan/core/document';
import { GUIDES } from '@eskovan/core/framing';
import { create } from 'zustand';
import { z } from 'zod';
import { safeJson } from '../data/api.ts';

const NAME = 'eskovan-framing';
const framingSchema = z.object({
  guide: z.enum(GUIDES).default('thirds'),
  /** Are the areas shown that every screen shows? */
  safe: z.boolean().default(true),
  /** How dark it is outside the frame, 0…1. */
  mask: z.number().min(0).max(1).default(0.72),
  /** A second frame that is cut out of the first. */
  second: frameSchema.nullable().default(null),
  /** Are the other views shown in the picture, as what they see? */
  cameras: z.boolean().default(false),
  /** Does the eye fly from view to view? */
  flights: z.boolean().default(true),
});
/** How this person looks at pictures. Nothing of it is in the project. */
export type Framing = z.infer<typeof framingSchema>;

const read = (): Framing => {
  const kept = framingSchema.safeParse(safeJson(localStorage.getItem(NAME) ?? 'null'));
  return kept.success ? kept.data : framingSchema.parse({});
};

export const useFraming = create<Framing>()(read);

export function setFraming(change: Partial<Framing>): void {
  useFraming.setState(change);
  localStorage.setItem(NAME, JSON.stringify(framingSchema.parse(useFraming.getState())));
}
