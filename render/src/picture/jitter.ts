import { GOLDEN_ANGLE } from '@eskovan/core/geometry';
/** Places of the sub-frames within a pixel, −½…½: the R2 sequence (Roberts 2018), which is even for any count. */
export function jitter(i: number, count: number): [number, number] {
  if (count === 1) return [0, 0];
  return [((0.5 + i * 0.7548776662466927) % 1) - 0.5, ((0.5 + i * 0.5698402909980532) % 1) - 0.5];
}

/** Numbers 0 … count − 1 in another order, so that two things that are spread over the sub-frames do not go together. */
function shuffled(i: number, count: number, golden: number): number {
  let stride = Math.max(1, Math.round(count * golden));
  while (greatestDivisor(stride, count) > 1) stride += 1;
  return (i * stride) % count;
}

const greatestDivisor = (a: number, b: number): number => (b === 0 ? a : greatestDivisor(b, a % b));

/** Places of the sub-frames in the opening of the lens, a disc of radius 1: a sunflower (Vogel 1979), even in area. */
export function aperturePoint(i: number, count: number): [number, number] {
  if (count === 1) return [0, 0];
  const k = shuffled(i, count, 0.6180339887);
  const radius = Math.sqrt((k + 0.5) / count);
  const angle = k * GOLDEN_ANGLE;
  return [radius * Math.cos(angle), radius * Math.sin(angle)];
}

/** Places of the sub-frames in the time that the shutter is open, 0…1, evenly, its middle for a single one. */
export function shutterPart(i: number, count: number): number {
  return (shuffled(i, count, 0.3819660113) + 0.5) / count;
}
