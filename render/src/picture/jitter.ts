/** Places of the sub-frames within a pixel, −½…½: the R2 sequence (Roberts 2018), which is even for any count. */
export function jitter(i: number, count: number): [number, number] {
  if (count === 1) return [0, 0];
  return [((0.5 + i * 0.7548776662466927) % 1) - 0.5, ((0.5 + i * 0.5698402909980532) % 1) - 0.5];
}
