/**
 * Finds the outline of many level faces: what is left when edges that run opposite each other along one line cancel.
 * Unlike counting shared edges it also closes seams where the corners of neighbours do not meet (floor boards, tiles).
 */
export class OutlineCollector {
  /** Lines by direction, offset and level; on each, signed stretches. */
  private readonly lines = new Map<
    string,
    { dx: number; dz: number; offset: number; stretches: [number, number, number][] }
  >();

  /** Adds an edge of a face that lies to its left, seen from above. `level` is its height. Metres. */
  add(ax: number, az: number, bx: number, bz: number, level: number): void {
    const length = Math.hypot(bx - ax, bz - az);
    if (length < 1e-4) return;
    let [dx, dz] = [(bx - ax) / length, (bz - az) / length];
    let sign = 1;
    // One direction for both ways along a line.
    if (dx < -1e-6 || (Math.abs(dx) <= 1e-6 && dz < 0)) [dx, dz, sign] = [-dx, -dz, -1];
    const offset = ax * dz - az * dx;
    const [from, to] = [ax * dx + az * dz, bx * dx + bz * dz];
    const key = `${Math.round(Math.atan2(dz, dx) * 2000)};${Math.round(offset * 400)};${Math.round(level * 200)}`;
    let line = this.lines.get(key);
    if (!line) this.lines.set(key, (line = { dx, dz, offset, stretches: [] }));
    line.stretches.push([Math.min(from, to), Math.max(from, to), sign]);
  }

  /** What does not cancel, four numbers a line. */
  outline(): number[] {
    const out: number[] = [];
    for (const { dx, dz, offset, stretches } of this.lines.values()) {
      const events = stretches.flatMap(([from, to, sign]): [number, number][] => [
        [from, sign],
        [to, -sign],
      ]);
      events.sort((a, b) => a[0] - b[0]);
      let net = 0;
      let start = 0;
      for (const [at, step] of events) {
        if (net !== 0 && at - start > 0.004) {
          // The point at distance s along the line, `offset` beside the origin.
          const point = (s: number) => [s * dx + offset * dz, s * dz - offset * dx] as const;
          out.push(...point(start), ...point(at));
        }
        net += step;
        start = at;
      }
    }
    return out;
  }
}
