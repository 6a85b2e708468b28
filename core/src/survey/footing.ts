import type { Vec3, Walker } from '../document/index.ts';
import { isGlass, triangleSoup, type SceneModel } from '../format/index.ts';
import { TRIANGLE, triangleNormal, type TriangleSoup } from '../geometry/index.ts';
import { FloorIndex, trianglesWith, walkableFlags } from './floor-index.ts';
import { SolidCells } from './solid-cells.ts';
import { isDoorLeaf } from './door-leaf.ts';

/** What a surface is to a walker who comes up against it. */
export const SURFACE = { solid: 0, door: 1, glass: 2 } as const;

/** How thick things are that lie on a floor without taking it away, metres: what is nearer overhead than this is the floor itself. */
export const SAME_SURFACE = 0.02;

/** What is looked past is left behind by so much, metres. */
const BEYOND = 1e-4;

/**
 * What a walker of this site stands on and comes up against: walkable surfaces, everything overhead, everything in the
 * way. The page keeps one a site; its indexes are made when they are first asked.
 */
export class Footing {
  /** Surfaces that can be stood on, whatever is above them. */
  readonly floors: FloorIndex;
  readonly others: TriangleSoup;
  /** Is it known what stands in the way? Sites measured long ago kept their floors only. */
  readonly knowsSolids: boolean;
  private readonly kinds: Uint8Array;
  private cover: FloorIndex | null = null;
  private everything: FloorIndex | null = null;
  private joined: SolidCells | null = null;

  /**
   * @param walkable triangles that can be stood on
   * @param given all other triangles; null where they are not known
   * @param otherKinds their kinds
   */
  constructor(
    readonly walkable: TriangleSoup,
    given: TriangleSoup | null = null,
    readonly otherKinds: Uint8Array = new Uint8Array((given?.length ?? 0) / TRIANGLE),
  ) {
    const others = given ?? new Float32Array(0);
    this.others = others;
    this.knowsSolids = given !== null;
    this.floors = new FloorIndex(walkable);
    this.kinds = new Uint8Array((walkable.length + others.length) / TRIANGLE);
    this.kinds.set(otherKinds, walkable.length / TRIANGLE);
  }

  /** Everything that blocks, floors too; kinds one a triangle, see {@link SURFACE}. Joined when first asked. */
  get solids(): SolidCells {
    if (!this.joined) {
      const all = new Float32Array(this.walkable.length + this.others.length);
      all.set(this.walkable);
      all.set(this.others, this.walkable.length);
      this.joined = new SolidCells(all);
    }
    return this.joined;
  }

  kindOf(triangle: number): number {
    return this.kinds[triangle]!;
  }

  /**
   * Free height above a floor at (x, z), metres; Infinity under the sky. Door leaves do not count: they open.
   * @param most beyond this nobody asks how much it is, metres: the answer is Infinity
   */
  headroom(x: number, z: number, floor: number, most = Infinity): number {
    this.cover ??= new FloorIndex(coverTriangles(this.solids.triangles, (i) => this.kinds[i] !== SURFACE.door));
    return this.cover.nextAbove(x, z, floor + SAME_SURFACE, floor + most) - floor;
  }

  /** The highest thing at (x, z), whatever it is, metres; −Infinity where there is nothing. */
  topAt(x: number, z: number): number {
    this.everything ??= new FloorIndex(coverTriangles(this.solids.triangles));
    return this.everything.floorBelow(x, z, Infinity);
  }

  /**
   * Where something hides a place from an eye, metres; null where it is seen. Glass hides nothing.
   * @param short so near to the place it is the thing itself, metres
   * @param gone has what rests somewhere moved away from there? It hides nothing then.
   */
  hiding(
    eye: Readonly<Vec3>,
    place: Readonly<Vec3>,
    short = 0,
    gone: (point: Vec3) => boolean = () => false,
  ): { point: Vec3; distance: number } | null {
    const way = place.map((value, k) => value - eye[k]!) as Vec3;
    const length = Math.hypot(...way);
    if (length <= short) return null;
    const direction = way.map((value) => value / length) as Vec3;
    const counts = (triangle: number) => this.kinds[triangle] !== SURFACE.glass;
    const at = (distance: number) => eye.map((value, k) => value + direction[k]! * distance) as Vec3;
    for (let start = 0; ;) {
      const hit = this.solids.first(at(start), direction, length - short - start, counts);
      if (!hit) return null;
      const distance = start + hit.distance;
      if (!gone(at(distance))) return { point: at(distance), distance };
      start = distance + BEYOND;
      if (start >= length - short) return null;
    }
  }

  /** The surface at (x, z) nearest to a height; null where there is none. */
  surfaceNear(x: number, z: number, height: number): number | null {
    const [first, ...others] = this.floors.surfacesAt(x, z);
    if (first === undefined) return null;
    return others.reduce((best, y) => (Math.abs(y - height) < Math.abs(best - height) ? y : best), first);
  }

  /**
   * The surface that a press on a plan means: the topmost floor below the plan's cut, else the lowest above it (a hill
   * that rises through the cut). Null where there is nothing to stand on.
   * @param cut height of the plan's cut, metres
   */
  surfaceUnder(x: number, z: number, cut: number): number | null {
    const below = this.floors.floorBelow(x, z, cut);
    if (below > -Infinity) return below;
    const above = this.floors.nextAbove(x, z, cut);
    return above < Infinity ? above : null;
  }
}

/**
 * Every face one could look down on or up at, turned upward: what can cover a floor.
 * @param counts whether a triangle does, by its number and whether it looks up
 */
export function coverTriangles(
  soup: TriangleSoup,
  counts: (triangle: number, up: boolean) => boolean = () => true,
): TriangleSoup {
  const normal = new Float64Array(3);
  const keep: number[] = [];
  for (let i = 0; i < soup.length / TRIANGLE; i += 1) {
    triangleNormal(soup, i, normal);
    const size = Math.hypot(normal[0]!, normal[1]!, normal[2]!);
    if (size > 0 && Math.abs(normal[1]!) >= 0.1 * size && counts(i, normal[1]! > 0))
      keep.push(normal[1]! > 0 ? i : -1 - i);
  }
  const out = new Float32Array(keep.length * TRIANGLE);
  keep.forEach((which, k) => {
    const o = (which < 0 ? -1 - which : which) * TRIANGLE;
    (which < 0 ? [0, 6, 3] : [0, 3, 6]).forEach((corner, n) =>
      out.set(soup.subarray(o + corner, o + corner + 3), k * TRIANGLE + 3 * n),
    );
  });
  return out;
}

/** What a placed model is to a walker. @param slope beyond which nothing is a floor, degrees */
export function footingOf(model: SceneModel, { slope }: Pick<Walker, 'slope'>): Footing {
  const { soup, partOf } = triangleSoup(model);
  // A railing that is cut out of a picture stops a walker as any railing does.
  const glass = model.parts.map(({ material }) => isGlass(model.materials[material]!));
  const doors = model.parts.map(isDoorLeaf);
  const stands = walkableFlags(soup, slope);
  const others = trianglesWith(soup, stands, 0);
  const kinds = new Uint8Array(others.length / TRIANGLE);
  for (let i = 0, o = 0; i < stands.length; i += 1)
    if (!stands[i]) kinds[o++] = doors[partOf[i]!] ? SURFACE.door : glass[partOf[i]!] ? SURFACE.glass : SURFACE.solid;
  return new Footing(trianglesWith(soup, stands, 1), others, kinds);
}

/** Says that a file is a footing: as a float it is no number, so a file of mere triangles never begins so. */
const MAGIC = 0x7fc0_f007;
const HEADER = 12;

/** Footing as bytes: magic, number of walkable and of other triangles, triangles, kinds. */
export function packFooting({ walkable, others, otherKinds }: Footing): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(HEADER + 4 * (walkable.length + others.length) + otherKinds.length);
  const head = new DataView(out.buffer);
  head.setUint32(0, MAGIC, true);
  head.setUint32(4, walkable.length / TRIANGLE, true);
  head.setUint32(8, others.length / TRIANGLE, true);
  out.set(new Uint8Array(walkable.buffer, walkable.byteOffset, walkable.byteLength), HEADER);
  out.set(new Uint8Array(others.buffer, others.byteOffset, others.byteLength), HEADER + walkable.byteLength);
  out.set(otherKinds, HEADER + walkable.byteLength + others.byteLength);
  return out;
}

/** @throws RangeError for bytes that are neither a footing nor the walkable triangles of an older site */
export function unpackFooting(bytes: ArrayBuffer): Footing {
  const head = new DataView(bytes);
  if (bytes.byteLength < HEADER || head.getUint32(0, true) !== MAGIC) {
    if (bytes.byteLength % (4 * TRIANGLE) !== 0) throw new RangeError('the floors of this site are damaged');
    return new Footing(new Float32Array(bytes));
  }
  const [walkable, others] = [head.getUint32(4, true), head.getUint32(8, true)];
  if (bytes.byteLength !== HEADER + 4 * TRIANGLE * (walkable + others) + others)
    throw new RangeError('the floors of this site are damaged');
  const end = HEADER + 4 * TRIANGLE * walkable;
  return new Footing(
    new Float32Array(bytes, HEADER, TRIANGLE * walkable),
    new Float32Array(bytes, end, TRIANGLE * others),
    new Uint8Array(bytes, end + 4 * TRIANGLE * others, others),
  );
}
