interface Pickable {
  positions: Float32Array;
  indices: Uint32Array;
  /** How many others it lies on in one plane; of these it is the nearest. */
  layer?: number;
}

type Triple = [number, number, number];

/** What is met within this distance lies in one plane, metres, where one is known to lie on the other. */
const TOGETHER = 0.001;

/**
 * The nearest point where a ray meets a surface, by trying every triangle: for one click now and then this is a few
 * milliseconds and needs no structure.
 * @param direction unit vector
 * @param isThere whether there is anything at a place of a triangle: its part, its first index, and the shares of its
 *   second and third corner; nothing is where something was cut out
 * @returns the point in metres and which of the parts it is on, or null where the ray meets nothing
 */
export function pickNearest(
  parts: readonly Pickable[],
  origin: Triple,
  direction: Triple,
  isThere: (part: number, index: number, u: number, v: number) => boolean = () => true,
): { point: Triple; part: number } | null {
  const [dx, dy, dz] = direction;
  let nearest = Infinity;
  let part = -1;
  for (const [at, { positions: p, indices, layer = 0 }] of parts.entries()) {
    for (let k = 0; k < indices.length; k += 3) {
      const a = 3 * indices[k]!;
      const b = 3 * indices[k + 1]!;
      const c = 3 * indices[k + 2]!;
      const ux = p[b]! - p[a]!;
      const uy = p[b + 1]! - p[a + 1]!;
      const uz = p[b + 2]! - p[a + 2]!;
      const vx = p[c]! - p[a]!;
      const vy = p[c + 1]! - p[a + 1]!;
      const vz = p[c + 2]! - p[a + 2]!;
      // Möller & Trumbore 1997.
      const px = dy * vz - dz * vy;
      const py = dz * vx - dx * vz;
      const pz = dx * vy - dy * vx;
      const det = ux * px + uy * py + uz * pz;
      if (Math.abs(det) < 1e-12) continue;
      const tx = origin[0] - p[a]!;
      const ty = origin[1] - p[a + 1]!;
      const tz = origin[2] - p[a + 2]!;
      const u = (tx * px + ty * py + tz * pz) / det;
      if (u < 0 || u > 1) continue;
      const qx = ty * uz - tz * uy;
      const qy = tz * ux - tx * uz;
      const qz = tx * uy - ty * ux;
      const v = (dx * qx + dy * qy + dz * qz) / det;
      if (v < 0 || u + v > 1) continue;
      const t = (vx * qx + vy * qy + vz * qz) / det;
      const above = Math.sign(layer - (parts[part]?.layer ?? 0));
      if (t > 1e-4 && t < nearest + above * TOGETHER && isThere(at, k, u, v)) {
        nearest = t;
        part = at;
      }
    }
  }
  if (part < 0) return null;
  return { point: [origin[0] + dx * nearest, origin[1] + dy * nearest, origin[2] + dz * nearest], part };
}
