import { poseSchema, type Pose } from '@eskovan/core/document';
import { z } from 'zod';

/** Numbers of a pose as they are written: nothing is lost to the eye, a tenth of a millimetre to the file. */
const DIGITS = 6;

const textSchema = z.object({ pose: poseSchema });

/** A pose as text, to be pasted somewhere else. */
export function poseText({ position, orientation }: Pose): string {
  const round = (values: readonly number[]) => values.map((value) => Number(value.toFixed(DIGITS)));
  return JSON.stringify({ pose: { position: round(position), orientation: round(orientation) } });
}

/** Reads {@link poseText}; null for anything else. */
export function readPose(text: string): Pose | null {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    return null;
  }
  const { success, data } = textSchema.safeParse(read);
  if (!success) return null;
  const { position, orientation } = data.pose;
  const length = Math.hypot(...orientation);
  if (length < 1e-6) return null;
  return { position, orientation: orientation.map((value) => value / length) as Pose['orientation'] };
}
