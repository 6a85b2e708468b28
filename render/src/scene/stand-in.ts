import { HEAVY, shareOf, thinMesh } from '@eskovan/core/site';
import { DataUtils } from 'three';

/** Triangles of a whole site in pictures that move, and in those that rest; finished ones have all. */
const MOVING = 60_000;
const RESTING = 260_000;
/** Of any piece so many are left. */
const LEAST = 4;

/** In how much detail something is drawn, from coarse to whole; all on the same vertices. */
export interface Levels<T> {
  moving: T;
  resting: T;
  whole: T;
}

/** How many triangles a piece of a heavy site may have in each; null where the site is light enough to be drawn whole. */
export interface LevelShares {
  moving: number;
  resting: number;
}

/** @param counts triangles of all pieces of the site */
export function levelShares(counts: readonly number[]): LevelShares | null {
  if (counts.reduce((sum, count) => sum + count, 0) <= HEAVY) return null;
  return { moving: shareOf(counts, MOVING), resting: shareOf(counts, RESTING) };
}

/** Makes coarser stand-ins for cells of a heavy mesh. */
export class Thinner {
  /** Which vertex of a cell taken by itself one of the mesh is; −1 where it is none of it. */
  private numbers: Int32Array | null = null;

  /**
   * @param positions of the mesh, three numbers a vertex, metres
   * @param colors what is seen of each, four half floats
   */
  constructor(
    private readonly positions: Float32Array,
    private readonly colors: Uint16Array,
    private readonly shares: LevelShares,
  ) {}

  /** @param whole three vertices a triangle */
  async levelsOf(whole: Uint32Array): Promise<Levels<Uint32Array>> {
    const resting = await this.thin(whole, this.shares.resting);
    return { moving: await this.thin(resting, this.shares.moving), resting, whole };
  }

  private async thin(given: Uint32Array, share: number): Promise<Uint32Array> {
    const target = 3 * Math.max(LEAST, Math.floor(share));
    // Most cells stay whole.
    if (target >= given.length) return given;
    const { indices, vertices } = this.takenOut(given);
    const [positions, shown] = [new Float32Array(3 * vertices.length), new Float32Array(4 * vertices.length)];
    vertices.forEach((from, vertex) => {
      for (let k = 0; k < 3; k += 1) positions[3 * vertex + k] = this.positions[3 * from + k]!;
      for (let k = 0; k < 4; k += 1) shown[4 * vertex + k] = DataUtils.fromHalfFloat(this.colors[4 * from + k]!);
    });
    return (await thinMesh(indices, positions, shown, target)).map((vertex) => vertices[vertex]!);
  }

  /** Numbers only the vertices that a cell has: of a large mesh that is a small part. */
  private takenOut(given: Uint32Array): { indices: Uint32Array; vertices: number[] } {
    const numbers = (this.numbers ??= new Int32Array(this.positions.length / 3).fill(-1));
    const vertices: number[] = [];
    const indices = given.map((vertex) => {
      if (numbers[vertex]! < 0) numbers[vertex] = vertices.push(vertex) - 1;
      return numbers[vertex]!;
    });
    for (const vertex of vertices) numbers[vertex] = -1;
    return { indices, vertices };
  }
}
