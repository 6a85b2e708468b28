import { z } from 'zod';
import { finite } from './primitives.ts';

/** Width over height of a picture, as people say it: 16 : 9. */
export const frameSchema = z.object({ width: finite.min(0.1).max(5000), height: finite.min(0.1).max(5000) });
export type Frame = z.infer<typeof frameSchema>;

/** Width over height of the pictures of something that has a frame: a project. */
export const aspectOf = ({ frame }: { frame: Frame }): number => frame.width / frame.height;

/** The frame of a view: its own, or the project's. */
export const frameOf = (view: { frame?: Frame | undefined } | null, project: { frame: Frame }): Frame =>
  view?.frame ?? project.frame;
