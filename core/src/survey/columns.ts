import { TRIANGLE, type TriangleSoup } from '../geometry/index.ts';
import { FloorIndex, trianglesWith } from './floor-index.ts';
import { coverTriangles, SAME_SURFACE } from './footing.ts';
import { HEAD_ROOM, INSIDE, LEVEL } from './levels.ts';
import type { SolidBodies } from './solid-bodies.ts';

/** What a place of the plan is to a storey. */
export const COLUMN = {
  /** Nothing of it: no floor, or open to the sky. */
  out: 0,
  /** Floor with head room under cover. */
  room: 1,
  /** Air of the storey under cover, above a floor that is lower. */
  void: 2,
  /** Under a roof or ceiling too low to count. */
  low: 3,
  /** Floor under something that hangs: a cupboard, a duct, or a low ceiling; which of them only its width tells. */
  hanging: 4,
} as const;
export type Column = (typeof COLUMN)[keyof typeof COLUMN];

/** A body that leaves less air below the ceiling reaches up to it, metres. */
const NO_AIR = 0.3;
/** What begins so far above the floor stands on it, on feet or a plinth, metres. */
const STANDS = 0.3;

/** What stands above and below any place of a site. */
export class Columns {
  readonly cover: FloorIndex;
  /** Of what is overhead, the faces that look down. */
  readonly undersides: FloorIndex;

  /**
   * @param floor of what can be stood on of the soup
   * @param solid what has no rooms in it; null where nothing is
   */
  constructor(
    soup: TriangleSoup,
    readonly floor: FloorIndex,
    readonly solid: SolidBodies | null = null,
  ) {
    this.cover = new FloorIndex(coverTriangles(soup));
    this.undersides = new FloorIndex(coverTriangles(soup, (_, up) => !up));
  }
}

/** What stands above and below a place, for a storey with its floor at a height. Metres. */
export class StoreyColumns {
  private readonly head: number;
  /** The few triangles that most questions are about. */
  private readonly floors: FloorIndex;
  private readonly above: FloorIndex;
  private readonly overhead: FloorIndex;
  private readonly ceilings: FloorIndex;
  private readonly feet: FloorIndex;

  constructor(
    private readonly all: Columns,
    readonly elevation: number,
  ) {
    this.head = elevation + HEAD_ROOM;
    this.floors = between(all.floor, elevation - LEVEL, elevation + LEVEL);
    this.above = between(all.cover, elevation, Infinity);
    this.overhead = between(this.above, this.head, Infinity);
    this.ceilings = between(all.undersides, this.head, Infinity);
    this.feet = between(all.undersides, elevation - LEVEL, elevation + LEVEL);
  }

  hasFloor(x: number, z: number): boolean {
    return this.floors.floorBelow(x, z, this.elevation + LEVEL) >= this.elevation - LEVEL;
  }

  /** Height over the storey's floor of what is overhead, head room at least; Infinity under the sky. */
  ceiling(x: number, z: number): number {
    return this.overhead.nextAbove(x, z, this.head) - this.elevation;
  }

  /** What the place at (x, z) is to the storey. */
  at(x: number, z: number): Column {
    const { all, elevation, head } = this;
    const floor = this.floors.floorBelow(x, z, elevation + LEVEL);
    if (all.solid?.contains(x, Math.max(floor, elevation) + INSIDE, z)) return COLUMN.out;
    if (floor < elevation - LEVEL) {
      if (all.floor.floorBelow(x, z, elevation - LEVEL) === -Infinity) return COLUMN.out;
      const above = this.above.nextAbove(x, z, elevation + SAME_SURFACE);
      if (above === Infinity) return COLUMN.out;
      return above >= head ? COLUMN.void : COLUMN.low;
    }
    const above = this.overhead.nextAbove(x, z, head);
    if (above === Infinity)
      return this.above.nextAbove(x, z, Math.max(floor, elevation) + STANDS) < Infinity ? COLUMN.low : COLUMN.out;
    if (this.isStructure(x, z, floor, above)) return COLUMN.out;
    if (this.ceilings.nextAbove(x, z, head) <= above) return COLUMN.room;
    // The next face above looks up: this is inside of something, or under a sheet that was drawn from above.
    const [outer, inner] = [all.cover, all.undersides].map((index) =>
      index.surfacesAt(x, z, -1).filter((y) => y > floor + SAME_SURFACE && y <= head),
    ) as [number[], number[]];
    if (2 * inner.length <= outer.length) return COLUMN.room;
    if (this.overhead.nextAbove(x, z, above + SAME_SURFACE) === Infinity) return COLUMN.low;
    return inner[0]! <= elevation + STANDS ? COLUMN.room : COLUMN.hanging;
  }

  /** Is this inside of a wall, a pillar, a core: a body that stands on the floor and reaches up to the ceiling, or the sky? */
  private isStructure(x: number, z: number, floor: number, above: number): boolean {
    if (this.feet.nextAbove(x, z, floor - SAME_SURFACE) > floor + SAME_SURFACE) return false;
    const tops = this.all.cover.nextAbove(x, z, floor + SAME_SURFACE);
    if (tops < above - SAME_SURFACE) return false;
    const open = this.overhead.nextAbove(x, z, above + SAME_SURFACE) === Infinity;
    return open || this.ceilings.nextAbove(x, z, above - SAME_SURFACE) < above + NO_AIR;
  }

  /** Does a roof come down below a height over the floor at (x, z), with nothing of the house above it? */
  underRoof(x: number, z: number, height: number): boolean {
    const cut = this.elevation + height;
    if (this.ceilings.nextAbove(x, z, cut) < Infinity) return false;
    return this.overhead.nextAbove(x, z, cut) === Infinity || this.overhead.nextAbove(x, z, this.head) < cut;
  }

  /** Height of the air over whatever is at (x, z) at a height over the floor, head room at least; null where nothing is. */
  airAbove(x: number, z: number, height: number): number | null {
    const cut = this.elevation + height;
    const top = this.overhead.nextAbove(x, z, cut);
    if (top === Infinity || this.ceilings.nextAbove(x, z, cut) <= top) return null;
    return this.overhead.nextAbove(x, z, top + SAME_SURFACE) - top;
  }

  /** Does the floor below (x, z) lie at least so much lower? */
  drops(x: number, z: number, by: number): boolean {
    return this.all.floor.floorBelow(x, z, this.elevation) <= this.elevation - by;
  }
}

/** The triangles of an index that reach into a range of heights. */
function between({ triangles: t }: FloorIndex, low: number, high: number): FloorIndex {
  const within = new Uint8Array(t.length / TRIANGLE);
  for (let i = 0; i < within.length; i += 1) {
    const o = i * TRIANGLE;
    const [a, b, c] = [t[o + 1]!, t[o + 4]!, t[o + 7]!];
    if (Math.max(a, b, c) >= low && Math.min(a, b, c) <= high) within[i] = 1;
  }
  return new FloorIndex(trianglesWith(t, within, 1));
}
