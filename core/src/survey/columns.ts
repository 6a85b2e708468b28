import type { TriangleSoup } from '../geometry/index.ts';
import { FloorIndex, walkableTriangles } from './floor-index.ts';
import { coverTriangles, SAME_SURFACE } from './footing.ts';
import { HEAD_ROOM, LEVEL } from './levels.ts';

/** What a place of the plan is to a storey. */
export const COLUMN = {
  /** Nothing of it: no floor, or open to the sky. */
  out: 0,
  /** Floor with head room under cover. */
  room: 1,
  /** Air of the storey under cover, above a floor that is lower. */
  void: 2,
  /** Floor under a roof or ceiling too low to count. */
  low: 3,
  /** Floor under something that hangs: a cupboard, a duct, or a low ceiling; which of them only its width tells. */
  hanging: 4,
} as const;
export type Column = (typeof COLUMN)[keyof typeof COLUMN];

/** What begins so far above the floor stands on it, on feet or a plinth, metres. */
const STANDS = 0.3;

/** What stands above and below a place: floors, and everything overhead. */
export class Columns {
  readonly floor: FloorIndex;
  readonly cover: FloorIndex;
  /** Of what is overhead, the faces that look down. */
  private readonly undersides: FloorIndex;

  /** @param walkable triangles of the soup that can be stood on, where they are known already */
  constructor(soup: TriangleSoup, walkable = walkableTriangles(soup)) {
    this.floor = new FloorIndex(walkable);
    this.cover = new FloorIndex(coverTriangles(soup));
    this.undersides = new FloorIndex(coverTriangles(soup, (_, up) => !up));
  }

  /** What the place at (x, z) is to a storey with its floor at a height, metres. */
  at(x: number, z: number, elevation: number): Column {
    const { floor, cover, undersides } = this;
    const below = floor.floorBelow(x, z, elevation + LEVEL);
    if (below < elevation - LEVEL) {
      if (below === -Infinity) return COLUMN.out;
      const above = cover.nextAbove(x, z, elevation + SAME_SURFACE);
      return above >= elevation + HEAD_ROOM && above < Infinity ? COLUMN.void : COLUMN.out;
    }
    const head = elevation + HEAD_ROOM;
    const above = cover.nextAbove(x, z, head);
    if (above === Infinity)
      return cover.nextAbove(x, z, Math.max(below, elevation) + STANDS) < Infinity ? COLUMN.low : COLUMN.out;
    if (undersides.nextAbove(x, z, head) <= above) return COLUMN.room;
    // The next face above looks up: this is inside of something, or under a sheet that was drawn from above.
    const [outer, inner] = [cover, undersides].map((index) =>
      index.surfacesAt(x, z, -1).filter((y) => y > below + SAME_SURFACE && y <= head),
    ) as [number[], number[]];
    if (2 * inner.length <= outer.length) return COLUMN.room;
    if (cover.nextAbove(x, z, above + SAME_SURFACE) === Infinity) return COLUMN.low;
    return inner[0]! <= elevation + STANDS ? COLUMN.room : COLUMN.hanging;
  }

  /** Does a roof come down between two heights at (x, z), with nothing of the house above it? Metres. */
  underRoof(x: number, z: number, from: number, to: number): boolean {
    if (this.undersides.nextAbove(x, z, to) < Infinity) return false;
    return this.cover.nextAbove(x, z, to) === Infinity || this.cover.nextAbove(x, z, from) < to;
  }
}
