import { TRIANGLE, type TriangleSoup } from '../../geometry/index.ts';
import { bestSplit, boxesOf, centreOf, middleSplit } from './ray-tree-split.ts';

const LEAF = 2;
/** Of a tree that is made for few rays. */
const QUICK_LEAF = 6;
/** Deepest tree that the fixed stack of a query can walk. */
const STACK = 64;
/** Faces are at one place on a ray where they differ by no more than this part of their distance. */
const SAME_PLACE = 1e-6;

/** What the nearest surface on a ray is. */
export interface RayHit {
  /** Number of the triangle in the soup. */
  triangle: number;
  /** metres */
  distance: number;
  /** It was met from behind: from where its corners go clockwise. */
  back: boolean;
}

export interface RayTreeOptions {
  /**
   * Names the sheet that a triangle is of, 0 for none: of two faces of one sheet at one place, back to back, a ray meets
   * the one that shows its front. Faces of bodies that touch are no sheet: from within, a body shows its back.
   */
  sheets?: Uint32Array | null;
  /** Made in a third of the time, for a few thousand rays, which take longer. */
  quick?: boolean;
}

/**
 * A bounding volume tree with two questions: is anything in the way, and what is the nearest thing? For shadows the
 * first is all one needs, and leaving out "what" and "where" makes it several times faster.
 *
 * Layout: inner node n keeps the boxes of both its children in `boxes[12n…12n+11]` (left min, max, right min, max), so
 * that a child that is missed is never visited, and in `links[2n]`, `links[2n + 1]` what they are: an inner node, or
 * −1 − a leaf. Leaf l is the triangles `leaves[l]…leaves[l + 1] − 1` of `faces`: corner a, edge b − a, edge c − a.
 */
export class RayTree {
  private readonly boxes: Float32Array;
  private readonly links: Int32Array;
  private readonly leaves: Int32Array;
  private readonly faces: Float32Array;
  /** Number of each of the `faces` in the soup. */
  private readonly order: Uint32Array;
  private readonly stack = new Int32Array(STACK);
  /** Distances at which what waits on the stack is entered. */
  private readonly waits = new Float64Array(STACK);
  private nodes = 0;
  private leafCount = 0;
  /** What the whole is: 0, a leaf, or nothing at all. */
  private readonly root: number | null;

  private readonly sheets: Uint32Array | null;
  private readonly quick: boolean;
  /** What is nearer than this times the best is looked at: without sheets nothing is at the place of something else. */
  private readonly reach: number;

  constructor(soup: TriangleSoup, { sheets = null, quick = false }: RayTreeOptions = {}) {
    this.sheets = sheets;
    this.quick = quick;
    this.reach = sheets ? 1 + SAME_PLACE : 1;
    const count = soup.length / TRIANGLE;
    const boxes = boxesOf(soup);
    this.boxes = new Float32Array(12 * Math.max(1, count));
    this.links = new Int32Array(2 * Math.max(1, count));
    this.leaves = new Int32Array(count + 1);
    this.faces = new Float32Array(9 * count);
    const order = Uint32Array.from({ length: count }, (_, i) => i);
    this.order = order;
    this.root = count > 0 ? this.build(boxes, order, 0, count, 0) : null;
    for (let i = 0; i < count; i += 1) {
      const o = order[i]! * TRIANGLE;
      for (let k = 0; k < 3; k += 1) {
        this.faces[9 * i + k] = soup[o + k]!;
        this.faces[9 * i + 3 + k] = soup[o + 3 + k]! - soup[o + k]!;
        this.faces[9 * i + 6 + k] = soup[o + 6 + k]! - soup[o + k]!;
      }
    }
  }

  /**
   * Does the ray from (x, y, z) along the unit vector (dx, dy, dz) meet a triangle before `far` metres?
   * Both sides of a triangle count.
   */
  hits(x: number, y: number, z: number, dx: number, dy: number, dz: number, far: number): boolean {
    if (this.root === null) return false;
    const boxes = this.boxes;
    const links = this.links;
    const stack = this.stack;
    // A component of exactly nothing would make 0 · ∞ = NaN at a box plane.
    const ix = 1 / (dx || 1e-12);
    const iy = 1 / (dy || 1e-12);
    const iz = 1 / (dz || 1e-12);
    const ox = x * ix;
    const oy = y * iy;
    const oz = z * iz;
    // Which of a box's two planes is met first depends on the ray's sign alone.
    const nearX = dx >= 0 ? 0 : 3;
    const nearY = dy >= 0 ? 1 : 4;
    const nearZ = dz >= 0 ? 2 : 5;
    const farX = 3 - nearX;
    const farY = 5 - nearY;
    const farZ = 7 - nearZ;
    let top = 0;
    let node = this.root;
    for (;;) {
      if (node < 0) {
        if (this.leafHit(-1 - node, x, y, z, dx, dy, dz, far)) return true;
        if (top === 0) return false;
        top -= 1;
        node = stack[top]!;
        continue;
      }
      const b = 12 * node;
      let enterA = boxes[b + nearX]! * ix - ox;
      let leaveA = boxes[b + farX]! * ix - ox;
      const enterAY = boxes[b + nearY]! * iy - oy;
      const leaveAY = boxes[b + farY]! * iy - oy;
      if (enterAY > enterA) enterA = enterAY;
      if (leaveAY < leaveA) leaveA = leaveAY;
      const enterAZ = boxes[b + nearZ]! * iz - oz;
      const leaveAZ = boxes[b + farZ]! * iz - oz;
      if (enterAZ > enterA) enterA = enterAZ;
      if (leaveAZ < leaveA) leaveA = leaveAZ;
      let enterB = boxes[b + 6 + nearX]! * ix - ox;
      let leaveB = boxes[b + 6 + farX]! * ix - ox;
      const enterBY = boxes[b + 6 + nearY]! * iy - oy;
      const leaveBY = boxes[b + 6 + farY]! * iy - oy;
      if (enterBY > enterB) enterB = enterBY;
      if (leaveBY < leaveB) leaveB = leaveBY;
      const enterBZ = boxes[b + 6 + nearZ]! * iz - oz;
      const leaveBZ = boxes[b + 6 + farZ]! * iz - oz;
      if (enterBZ > enterB) enterB = enterBZ;
      if (leaveBZ < leaveB) leaveB = leaveBZ;
      const meetsA = enterA <= leaveA && leaveA >= 0 && enterA < far;
      const meetsB = enterB <= leaveB && leaveB >= 0 && enterB < far;
      if (meetsA && meetsB) {
        // The nearer child first: an early hit ends the search.
        const aFirst = enterA <= enterB;
        stack[top] = links[2 * node + (aFirst ? 1 : 0)]!;
        top += 1;
        node = links[2 * node + (aFirst ? 0 : 1)]!;
      } else if (meetsA) node = links[2 * node]!;
      else if (meetsB) node = links[2 * node + 1]!;
      else {
        if (top === 0) return false;
        top -= 1;
        node = stack[top]!;
      }
    }
  }

  /** Writes the nearest triangle on a ray into `out`; false where there is none. As {@link hits}, both sides count. */
  closest(x: number, y: number, z: number, dx: number, dy: number, dz: number, out: RayHit): boolean {
    out.triangle = -1;
    out.distance = Infinity;
    if (this.root === null) return false;
    const boxes = this.boxes;
    const links = this.links;
    const stack = this.stack;
    const waits = this.waits;
    const ix = 1 / (dx || 1e-12);
    const iy = 1 / (dy || 1e-12);
    const iz = 1 / (dz || 1e-12);
    const ox = x * ix;
    const oy = y * iy;
    const oz = z * iz;
    const nearX = dx >= 0 ? 0 : 3;
    const nearY = dy >= 0 ? 1 : 4;
    const nearZ = dz >= 0 ? 2 : 5;
    const farX = 3 - nearX;
    const farY = 5 - nearY;
    const farZ = 7 - nearZ;
    let best = Infinity;
    /** What begins here or beyond is farther away than the best, for certain. */
    let bound = Infinity;
    let top = 0;
    let node = this.root;
    for (;;) {
      if (node < 0) {
        best = this.leafClosest(-1 - node, x, y, z, dx, dy, dz, best, out);
        bound = best * this.reach;
      } else {
        // As in `hits`: written out, for a call a box would cost more than the box.
        const b = 12 * node;
        let enterA = boxes[b + nearX]! * ix - ox;
        let leaveA = boxes[b + farX]! * ix - ox;
        const enterAY = boxes[b + nearY]! * iy - oy;
        const leaveAY = boxes[b + farY]! * iy - oy;
        if (enterAY > enterA) enterA = enterAY;
        if (leaveAY < leaveA) leaveA = leaveAY;
        const enterAZ = boxes[b + nearZ]! * iz - oz;
        const leaveAZ = boxes[b + farZ]! * iz - oz;
        if (enterAZ > enterA) enterA = enterAZ;
        if (leaveAZ < leaveA) leaveA = leaveAZ;
        let enterB = boxes[b + 6 + nearX]! * ix - ox;
        let leaveB = boxes[b + 6 + farX]! * ix - ox;
        const enterBY = boxes[b + 6 + nearY]! * iy - oy;
        const leaveBY = boxes[b + 6 + farY]! * iy - oy;
        if (enterBY > enterB) enterB = enterBY;
        if (leaveBY < leaveB) leaveB = leaveBY;
        const enterBZ = boxes[b + 6 + nearZ]! * iz - oz;
        const leaveBZ = boxes[b + 6 + farZ]! * iz - oz;
        if (enterBZ > enterB) enterB = enterBZ;
        if (leaveBZ < leaveB) leaveB = leaveBZ;
        const meetsA = enterA <= leaveA && leaveA >= 0 && enterA < bound;
        const meetsB = enterB <= leaveB && leaveB >= 0 && enterB < bound;
        if (meetsA && meetsB) {
          const aFirst = enterA <= enterB;
          stack[top] = links[2 * node + (aFirst ? 1 : 0)]!;
          waits[top] = aFirst ? enterB : enterA;
          top += 1;
          node = links[2 * node + (aFirst ? 0 : 1)]!;
          continue;
        }
        if (meetsA) {
          node = links[2 * node]!;
          continue;
        }
        if (meetsB) {
          node = links[2 * node + 1]!;
          continue;
        }
      }
      // What was put aside may lie behind what has been found since.
      do {
        if (top === 0) return out.triangle >= 0;
        top -= 1;
      } while (waits[top]! >= bound);
      node = stack[top]!;
    }
  }

  /** Takes the faces of a leaf that are nearer than what is known; see {@link leafHit} for the method. */
  private leafClosest(
    leaf: number,
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    dz: number,
    known: number,
    out: RayHit,
  ): number {
    const f = this.faces;
    const last = this.leaves[leaf + 1]!;
    let best = known;
    for (let i = this.leaves[leaf]!; i < last; i += 1) {
      const o = 9 * i;
      const ux = f[o + 3]!;
      const uy = f[o + 4]!;
      const uz = f[o + 5]!;
      const vx = f[o + 6]!;
      const vy = f[o + 7]!;
      const vz = f[o + 8]!;
      const px = dy * vz - dz * vy;
      const py = dz * vx - dx * vz;
      const pz = dx * vy - dy * vx;
      const det = ux * px + uy * py + uz * pz;
      if (det > -1e-12 && det < 1e-12) continue;
      const inverse = 1 / det;
      const tx = x - f[o]!;
      const ty = y - f[o + 1]!;
      const tz = z - f[o + 2]!;
      const u = (tx * px + ty * py + tz * pz) * inverse;
      if (u < 0 || u > 1) continue;
      const qx = ty * uz - tz * uy;
      const qy = tz * ux - tx * uz;
      const qz = tx * uy - ty * ux;
      const v = (dx * qx + dy * qy + dz * qz) * inverse;
      if (v < 0 || u + v > 1) continue;
      const t = (vx * qx + vy * qy + vz * qz) * inverse;
      if (t <= 0 || t >= best * this.reach) continue;
      if (t * this.reach >= best) {
        const backToBack = det < 0 !== out.back && this.isOneSheet(this.order[i]!, out.triangle);
        if (backToBack ? det < 0 : t >= best) continue;
      }
      best = t;
      out.distance = t;
      out.triangle = this.order[i]!;
      out.back = det < 0;
    }
    return best;
  }

  private isOneSheet(a: number, b: number): boolean {
    const { sheets } = this;
    return sheets !== null && sheets[a]! > 0 && sheets[a] === sheets[b];
  }

  /** Möller & Trumbore 1997, without culling. */
  private leafHit(
    leaf: number,
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    dz: number,
    far: number,
  ): boolean {
    const f = this.faces;
    const last = 9 * this.leaves[leaf + 1]!;
    for (let o = 9 * this.leaves[leaf]!; o < last; o += 9) {
      const ux = f[o + 3]!;
      const uy = f[o + 4]!;
      const uz = f[o + 5]!;
      const vx = f[o + 6]!;
      const vy = f[o + 7]!;
      const vz = f[o + 8]!;
      const px = dy * vz - dz * vy;
      const py = dz * vx - dx * vz;
      const pz = dx * vy - dy * vx;
      const det = ux * px + uy * py + uz * pz;
      if (det > -1e-12 && det < 1e-12) continue;
      const inverse = 1 / det;
      const tx = x - f[o]!;
      const ty = y - f[o + 1]!;
      const tz = z - f[o + 2]!;
      const u = (tx * px + ty * py + tz * pz) * inverse;
      if (u < 0 || u > 1) continue;
      const qx = ty * uz - tz * uy;
      const qy = tz * ux - tx * uz;
      const qz = tx * uy - ty * ux;
      const v = (dx * qx + dy * qy + dz * qz) * inverse;
      if (v < 0 || u + v > 1) continue;
      const t = (vx * qx + vy * qy + vz * qz) * inverse;
      if (t > 0 && t < far) return true;
    }
    return false;
  }

  /** Builds what is over order[first…last − 1] by the binned surface area heuristic (Wald 2007). */
  private build(boxes: Float32Array, order: Uint32Array, first: number, last: number, depth: number): number {
    const splits = last - first > (this.quick ? QUICK_LEAF : LEAF) && depth < STACK - 2;
    const split = splits ? (this.quick ? middleSplit : bestSplit)(boxes, order, first, last) : null;
    if (!split) {
      const leaf = this.leafCount;
      this.leafCount += 1;
      this.leaves[leaf] = first;
      this.leaves[leaf + 1] = last;
      return -1 - leaf;
    }
    let middle = first;
    for (let i = first; i < last; i += 1) {
      if (centreOf(boxes, order[i]!, split.axis) >= split.at) continue;
      const swap = order[i]!;
      order[i] = order[middle]!;
      order[middle] = swap;
      middle += 1;
    }
    if (middle === first || middle === last) middle = (first + last) >> 1;
    const node = this.nodes;
    this.nodes += 1;
    this.setBox(12 * node, boxes, order, first, middle);
    this.setBox(12 * node + 6, boxes, order, middle, last);
    this.links[2 * node] = this.build(boxes, order, first, middle, depth + 1);
    this.links[2 * node + 1] = this.build(boxes, order, middle, last, depth + 1);
    return node;
  }

  private setBox(at: number, boxes: Float32Array, order: Uint32Array, first: number, last: number): void {
    const box = this.boxes;
    for (let k = 0; k < 3; k += 1) {
      let low = Infinity;
      let high = -Infinity;
      for (let i = first; i < last; i += 1) {
        const o = 6 * order[i]! + k;
        if (boxes[o]! < low) low = boxes[o]!;
        if (boxes[o + 3]! > high) high = boxes[o + 3]!;
      }
      box[at + k] = low;
      box[at + 3 + k] = high;
    }
  }
}
