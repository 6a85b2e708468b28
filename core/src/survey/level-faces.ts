import { joined, samePlace, TRIANGLE, triangleNormal, type TriangleSoup } from '../geometry/index.ts';

/** A face is level up to about 26°. */
const LEVEL = 0.9;
/** Faces that lean more but rise no more than this, together with those they hang together with, are a bump in a floor. */
const BUMP = 0.03;
/** Of a bump no larger than this in plan the faces may look anywhere: scans fold over themselves. */
const FOLD = 0.15;

/**
 * One flag a triangle: is it a level one that is seen from above, or of a bump in one, as scanned floors have them? Only
 * what lies between two heights is asked; metres.
 */
export function levelFaces(soup: TriangleSoup, lowest: number, highest: number): Uint8Array {
  const flags = new Uint8Array(soup.length / TRIANGLE);
  const leaning: number[] = [];
  let small = false;
  const normal = new Float64Array(3);
  for (let i = 0; i < flags.length; i += 1) {
    const o = i * TRIANGLE;
    const top = Math.max(soup[o + 1]!, soup[o + 4]!, soup[o + 7]!);
    if (top > highest || top < lowest) continue;
    triangleNormal(soup, i, normal);
    if (normal[1]! >= LEVEL * Math.hypot(normal[0]!, normal[1]!, normal[2]!)) flags[i] = 1;
    else {
      leaning.push(i);
      small ||= top - Math.min(soup[o + 1]!, soup[o + 4]!, soup[o + 7]!) <= BUMP;
    }
  }
  if (small) for (const i of bumpsOf(soup, leaning)) flags[i] = 1;
  return flags;
}

/** Those of some triangles that hang together, by their corners, with none that together rise more than a bump. */
function bumpsOf(soup: TriangleSoup, triangles: readonly number[]): number[] {
  const corners = new Float32Array(triangles.length * TRIANGLE);
  triangles.forEach((i, k) => corners.set(soup.subarray(i * TRIANGLE, (i + 1) * TRIANGLE), k * TRIANGLE));
  const count = corners.length / 3;
  const rootOf = joined(
    Uint32Array.from({ length: count }, (_, v) => v),
    samePlace(corners),
  );
  const [low, high] = [
    new Float32Array(corners.length).fill(Infinity),
    new Float32Array(corners.length).fill(-Infinity),
  ];
  for (let v = 0; v < count; v += 1) {
    const group = 3 * rootOf(v);
    for (let k = 0; k < 3; k += 1) {
      low[group + k] = Math.min(low[group + k]!, corners[3 * v + k]!);
      high[group + k] = Math.max(high[group + k]!, corners[3 * v + k]!);
    }
  }
  const normal = new Float64Array(3);
  const looksAway = new Uint8Array(count);
  for (let k = 0; k < triangles.length; k += 1) {
    triangleNormal(corners, k, normal);
    if (normal[1]! <= 0) looksAway[rootOf(3 * k)] = 1;
  }
  return triangles.filter((_, i) => {
    const group = rootOf(3 * i);
    const size = (k: number) => high[3 * group + k]! - low[3 * group + k]!;
    return size(1) <= BUMP && (!looksAway[group] || Math.max(size(0), size(2)) <= FOLD);
  });
}
