import { boundsOfBody } from '@eskovan/core/geometry';
import type { Levels } from './stand-in.ts';

/** Triangles of a cluster, at most: fewer cost more to look over than they save. */
const MOST = 16;
/** Places along each axis that a cell's triangles are sorted by, as a power of two. */
const BITS = 9;
const PLACES = 2 ** BITS;
/** Numbers of triangles of one cell are below this: a place and a number are a whole number of 53 bits. */
const NUMBERS = 2 ** (53 - 3 * BITS);

/** Triangles of one cell, with one reach. */
export interface CellTriangles {
  /** Three vertices each. */
  indices: Uint32Array;
  /** Distance beyond which moving pictures leave them out, metres. */
  reach: number;
}

/** Triangles of a mesh in groups of what lies together: pictures draw those that show. */
export interface Clusters {
  /** Three vertices a triangle, cluster after cluster. */
  indices: Uint32Array;
  /** Where in `indices` each begins, and where the last ends. */
  starts: Uint32Array;
  /** Extents: least x, y and z, greatest x, y and z of each, metres. */
  boxes: Float32Array;
  /** Which cell each is of: what moving pictures leave out at a distance, they leave out cell by cell, or things break. */
  cells: Uint32Array;
  /** Distance beyond which moving pictures leave out each cell, metres. */
  reaches: Float32Array;
  /** Extents of the cells, as `boxes`. */
  cellBoxes: Float32Array;
}

/** Triangles of one cell in each level. */
export interface CellLevels extends Levels<Uint32Array> {
  /** Distance beyond which moving pictures leave them out, metres. */
  reach: number;
}

/** The clusters of a mesh in each level of detail, made when they are asked for first. */
export class ClusterLevels {
  private readonly made: Partial<Levels<Clusters>> = {};

  /** @param positions of the mesh, three numbers a vertex, metres */
  constructor(
    private readonly cells: readonly CellLevels[],
    private readonly positions: Float32Array,
  ) {}

  of(level: keyof Levels<Clusters>): Clusters {
    return (this.made[level] ??= this.alike(level) ?? this.make(level));
  }

  /** Most meshes are drawn whole in every level. */
  private alike(level: keyof Levels<Clusters>): Clusters | undefined {
    const known = Object.keys(this.made) as (keyof Levels<Clusters>)[];
    const other = known.find((one) => this.cells.every((cell) => cell[one] === cell[level]));
    return other && this.made[other];
  }

  private make(level: keyof Levels<Clusters>): Clusters {
    const cells = this.cells.map((cell) => ({ indices: cell[level], reach: cell.reach }));
    return clustersOf(cells, this.positions);
  }
}

/**
 * Puts the triangles of cells into clusters, along a curve that comes to each place once (Morton, 1966).
 * @param positions of the mesh, three numbers a vertex, metres
 */
export function clustersOf(cells: readonly CellTriangles[], positions: Float32Array): Clusters {
  const clusters = cells.reduce((sum, { indices }) => sum + Math.ceil(indices.length / (3 * MOST)), 0);
  const out: Clusters = {
    indices: new Uint32Array(cells.reduce((sum, { indices }) => sum + indices.length, 0)),
    starts: new Uint32Array(clusters + 1),
    boxes: new Float32Array(6 * clusters),
    cells: new Uint32Array(clusters),
    reaches: Float32Array.from(cells, ({ reach }) => reach),
    cellBoxes: new Float32Array(6 * cells.length),
  };
  let to = 0;
  let cluster = 0;
  cells.forEach(({ indices }, cell) => {
    out.cellBoxes.set(boxOf(indices, positions), 6 * cell);
    const order = alongCurve(indices, positions);
    for (let from = 0; from < order.length; from += MOST) {
      const last = Math.min(order.length, from + MOST);
      out.starts[cluster] = to;
      out.cells[cluster] = cell;
      for (let i = from; i < last; i += 1)
        for (let corner = 0; corner < 3; corner += 1) out.indices[to++] = indices[3 * (order[i]! % NUMBERS) + corner]!;
      out.boxes.set(boxOf(out.indices.subarray(out.starts[cluster], to), positions), 6 * cluster);
      cluster += 1;
    }
  });
  out.starts[cluster] = to;
  return out;
}

/** Triangles in order; their number is the rest of each after division by {@link NUMBERS}. */
function alongCurve(indices: Uint32Array, p: Float32Array): Float64Array {
  const count = indices.length / 3;
  const keys = new Float64Array(count);
  // Sums of three corners: the order is that of their middles.
  const middle = (triangle: number, k: number) =>
    p[3 * indices[3 * triangle]! + k]! +
    p[3 * indices[3 * triangle + 1]! + k]! +
    p[3 * indices[3 * triangle + 2]! + k]!;
  const least = [Infinity, Infinity, Infinity];
  let side = 0;
  for (let k = 0; k < 3; k += 1) {
    let most = -Infinity;
    for (let triangle = 0; triangle < count; triangle += 1) {
      const at = middle(triangle, k);
      if (at < least[k]!) least[k] = at;
      if (at > most) most = at;
    }
    side = Math.max(side, most - least[k]!);
  }
  const perMetre = side > 0 ? (PLACES - 1) / side : 0;
  for (let triangle = 0; triangle < count; triangle += 1) {
    let place = 0;
    for (let k = 0; k < 3; k += 1) place |= spread((middle(triangle, k) - least[k]!) * perMetre) << k;
    keys[triangle] = place * NUMBERS + triangle;
  }
  return keys.sort();
}

/** The bits of a whole number below {@link PLACES}, each third place. */
function spread(place: number): number {
  let bits = place & (PLACES - 1);
  bits = (bits | (bits << 16)) & 0x30000ff;
  bits = (bits | (bits << 8)) & 0x300f00f;
  bits = (bits | (bits << 4)) & 0x30c30c3;
  return (bits | (bits << 2)) & 0x9249249;
}

function boxOf(indices: Uint32Array, positions: Float32Array): number[] {
  const { min, max } = boundsOfBody({ positions, indices });
  return [...min, ...max];
}
