/**
 * What of a line bends less than a tolerance is straight (Douglas & Peucker 1973).
 * @param rises its heights count too: then it has one at every point
 * @returns indices that stay
 */
export function mainPoints(
  points: readonly (readonly [x: number, y: unknown, z: number])[],
  tolerance: number,
  rises = false,
): number[] {
  const heightOf = (i: number) => (rises ? Number(points[i]![1]) : 0);
  const keep = new Set([0, points.length - 1]);
  const open: [number, number][] = [[0, points.length - 1]];
  for (let piece = open.pop(); piece; piece = open.pop()) {
    const [from, to] = piece;
    const [a, b] = [points[from]!, points[to]!];
    const [dx, dz] = [b[0] - a[0], b[2] - a[2]];
    const length2 = dx * dx + dz * dz;
    let [worst, at] = [tolerance, -1];
    for (let i = from + 1; i < to; i += 1) {
      const [px, pz] = [points[i]![0] - a[0], points[i]![2] - a[2]];
      const t = length2 > 0 ? Math.min(1, Math.max(0, (px * dx + pz * dz) / length2)) : 0;
      const dy = heightOf(i) - heightOf(from) - t * (heightOf(to) - heightOf(from));
      const off = Math.hypot(px - t * dx, pz - t * dz, dy);
      if (off > worst) [worst, at] = [off, i];
    }
    if (at < 0) continue;
    keep.add(at);
    open.push([from, at], [at, to]);
  }
  return [...keep].sort((a, b) => a - b);
}
