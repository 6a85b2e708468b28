import type { TriangleSoup } from '../../geometry/index.ts';
import { LIFT } from './gather.ts';
import { RayTree } from './ray-tree.ts';

/** Directions of the sun that differ by less than this are one: about five degrees. */
const STEP = 0.09;
/** So many directions are kept. */
const MOST_KEPT = 90;
/** More vertices than this are taken to shade nothing of each other: nobody waits for that while something moves. */
const MOST_VERTICES = 40_000;

/** Where a thing that turns in the sun is in its own shade. */
export class SelfShade {
  private readonly tree: RayTree;
  private readonly known = new Map<string, Uint8Array>();

  /** @param soup triangles of the whole thing at rest */
  constructor(soup: TriangleSoup) {
    this.tree = new RayTree(soup);
  }

  /**
   * One for each vertex that the sun reaches, as far as the thing itself goes.
   * @param of names the vertices
   * @param sun its direction as the thing at rest would see it
   */
  open(
    of: number,
    { positions: p, normals: n }: { positions: Float32Array; normals: Float32Array },
    sun: readonly [number, number, number],
  ): Uint8Array | null {
    if (p.length > 3 * MOST_VERTICES) return null;
    const near = sun.map((value) => Math.round(value / STEP) * STEP) as [number, number, number];
    const key = [of, ...near].join();
    const kept = this.known.get(key);
    if (kept) return kept;
    const length = Math.hypot(...near);
    const [x, y, z] = near.map((value) => value / length) as [number, number, number];
    const open = new Uint8Array(p.length / 3);
    for (let v = 0; v < open.length; v += 1) {
      const o = 3 * v;
      if (n[o]! * x + n[o + 1]! * y + n[o + 2]! * z <= 0) continue;
      const from = [0, 1, 2].map((k) => p[o + k]! + LIFT * n[o + k]!) as [number, number, number];
      open[v] = this.tree.hits(...from, x, y, z, Infinity) ? 0 : 1;
    }
    if (this.known.size >= MOST_KEPT) this.known.clear();
    this.known.set(key, open);
    return open;
  }
}
