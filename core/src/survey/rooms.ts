import type { FloorIndex } from './floor-index.ts';
import { segmentsOf, type PlanCut } from './plan-cut.ts';

export interface Room {
  name: string;
  /** Square metres. */
  area: number;
  /** A point inside, as far from the walls as it gets: where its name is written. Metres. */
  at: [number, number, number];
}

/** Heights above a floor between which rooms are told apart, metres: above door leaves, below ceilings. */
const LOWEST_LINTEL = 2.12;
const HIGHEST_LINTEL = 2.6;
/** The cut stays this far below low ceilings, metres. */
const BELOW_CEILING = 0.15;
/** Ceilings are looked for on a grid of this spacing, metres. */
const CEILING_STEP = 0.5;

/**
 * Height above a storey's floor at which walls close over doors and wide openings: as high as its low ceilings allow,
 * metres.
 */
export function lintelOf(
  elevation: number,
  [x0, z0, x1, z1]: readonly [number, number, number, number],
  floor: FloorIndex,
  cover: FloorIndex,
): number {
  const step = Math.max(CEILING_STEP, Math.sqrt(((x1 - x0) * (z1 - z0)) / 40_000));
  const ceilings: number[] = [];
  for (let x = x0; x <= x1; x += step)
    for (let z = z0; z <= z1; z += step) {
      if (floor.floorBelow(x, z, elevation + LEVEL) < elevation - LEVEL) continue;
      const ceiling = cover.nextAbove(x, z, elevation + LOWEST_LINTEL) - elevation;
      if (Number.isFinite(ceiling)) ceilings.push(ceiling);
    }
  ceilings.sort((a, b) => a - b);
  // A few beams and pipes are no ceiling.
  const low = ceilings[Math.floor(ceilings.length * 0.2)] ?? Infinity;
  return Math.max(LOWEST_LINTEL, Math.min(HIGHEST_LINTEL, low - BELOW_CEILING));
}

/** Side of a raster cell, metres; larger on a storey with more than so many cells. */
const CELL = 0.06;
const MOST_CELLS = 1_500_000;
/** Less overhead and it is no room, metres. */
const HEAD_ROOM = 1.9;
/** Floors this far above or below the storey's own belong to a room: a step, a rug. Metres. */
const LEVEL = 0.3;
const LEAST_AREA = 1;
/** What is nowhere wider than twice this is the inside of a wall, metres. */
const LEAST_REACH = 0.35;
/** Share of a room's edge that walls must make up: under an open porch there is no room. */
const LEAST_ENCLOSED = 0.55;
/** Sub-points per side with which the area of a cell that a wall goes through is counted. */
const FINE = 6;

interface Raster {
  columns: number;
  rows: number;
  cell: number;
  x0: number;
  z0: number;
}

/**
 * Finds the rooms of a storey: floor under cover that walls enclose, told apart where doors are because walls close
 * above them. Cells that a wall goes through are counted by fine points on the room's side of it, so that areas hold
 * to about one part in a hundred.
 * @param walls what a cut at {@link lintelOf} goes through
 * @param extent [minX, minZ, maxX, maxZ] of the storey, metres
 */
export function findRooms(
  walls: Omit<PlanCut, 'below'>,
  elevation: number,
  extent: readonly [number, number, number, number],
  floor: FloorIndex,
  cover: FloorIndex,
): Room[] {
  const [x0, z0, x1, z1] = [extent[0] - 0.5, extent[1] - 0.5, extent[2] + 0.5, extent[3] + 0.5];
  const cell = Math.max(CELL, Math.sqrt(Math.max(0, (x1 - x0) * (z1 - z0)) / MOST_CELLS));
  const raster: Raster = {
    x0,
    z0,
    cell,
    columns: Math.max(1, Math.ceil((x1 - x0) / cell)),
    rows: Math.max(1, Math.ceil((z1 - z0) / cell)),
  };
  const segments = Float64Array.from(segmentsOf(walls));
  const inCell = wallCells(raster, segments);
  const open = openCells(raster, elevation, floor, cover);
  const seen = new Uint8Array(open.length);
  const rooms: Room[] = [];
  for (let start = 0; start < open.length; start += 1) {
    if (seen[start] || !open[start] || inCell.has(start)) continue;
    const region = flood(raster, start, open, inCell, seen);
    if (region.cells.length * cell * cell < LEAST_AREA || region.enclosed < LEAST_ENCLOSED) continue;
    const middle = innermost(raster, region.cells);
    if (middle.reach < LEAST_REACH) continue;
    const area = region.cells.length * cell * cell + edgeArea(raster, region.cells, segments, inCell);
    rooms.push({
      name: `Room ${rooms.length + 1}`,
      area: Math.round(area * 100) / 100,
      at: [middle.x, elevation, middle.z],
    });
  }
  return rooms;
}

/** The segments that go through each cell. */
function wallCells({ columns, rows, cell, x0, z0 }: Raster, segments: Float64Array): Map<number, number[]> {
  const out = new Map<number, number[]>();
  for (let s = 0; s < segments.length; s += 4) {
    const [ax, az] = [(segments[s]! - x0) / cell, (segments[s + 1]! - z0) / cell];
    const [bx, bz] = [(segments[s + 2]! - x0) / cell, (segments[s + 3]! - z0) / cell];
    // Every cell passed: a row at a time, the stretch of columns that the segment covers in it.
    const low = Math.floor(Math.min(az, bz));
    const high = Math.floor(Math.max(az, bz));
    for (let row = Math.max(0, low); row <= Math.min(rows - 1, high); row += 1) {
      const part = (z: number) => Math.min(1, Math.max(0, bz === az ? (z <= az ? 0 : 1) : (z - az) / (bz - az)));
      const [xa, xb] = [ax + (bx - ax) * part(row), ax + (bx - ax) * part(row + 1)];
      const from = Math.max(0, Math.floor(Math.min(xa, xb)));
      const to = Math.min(columns - 1, Math.floor(Math.max(xa, xb)));
      for (let column = from; column <= to; column += 1) {
        const list = out.get(row * columns + column);
        if (list) list.push(s);
        else out.set(row * columns + column, [s]);
      }
    }
  }
  return out;
}

/** Cells with floor at this storey's height and something overhead. */
function openCells(raster: Raster, elevation: number, floor: FloorIndex, cover: FloorIndex): Uint8Array {
  const { columns, rows, cell, x0, z0 } = raster;
  const out = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; column += 1) {
      const [x, z] = [x0 + (column + 0.5) * cell, z0 + (row + 0.5) * cell];
      if (floor.floorBelow(x, z, elevation + LEVEL) < elevation - LEVEL) continue;
      if (cover.nextAbove(x, z, elevation + HEAD_ROOM) < Infinity) out[row * columns + column] = 1;
    }
  return out;
}

const AROUND = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;

function flood(
  { columns, rows }: Raster,
  start: number,
  open: Uint8Array,
  walls: ReadonlyMap<number, unknown>,
  seen: Uint8Array,
): { cells: number[]; enclosed: number } {
  const cells = [start];
  seen[start] = 1;
  let [atWalls, atEdge] = [0, 0];
  for (let i = 0; i < cells.length; i += 1) {
    const here = cells[i]!;
    const column = here % columns;
    const row = (here - column) / columns;
    for (const [dc, dr] of AROUND) {
      const [c, r] = [column + dc, row + dr];
      const next = r * columns + c;
      const inside = c >= 0 && r >= 0 && c < columns && r < rows;
      if (inside && walls.has(next)) atWalls += 1;
      else if (!inside || !open[next]) atEdge += 1;
      else if (!seen[next]) {
        seen[next] = 1;
        cells.push(next);
      }
    }
  }
  return { cells, enclosed: atWalls / Math.max(1, atWalls + atEdge) };
}

/** The cell farthest from the region's edge, by a two-pass chamfer distance (Borgefors 1986). */
function innermost(
  { columns, cell, x0, z0 }: Raster,
  cells: readonly number[],
): { x: number; z: number; reach: number } {
  const distance = new Map<number, number>(cells.map((at) => [at, Infinity]));
  const sorted = [...cells].sort((a, b) => a - b);
  const relax = (at: number, neighbours: readonly (readonly [number, number])[]) => {
    let best = distance.get(at)!;
    for (const [offset, cost] of neighbours) best = Math.min(best, (distance.get(at + offset) ?? 0) + cost);
    distance.set(at, best);
  };
  const before = [
    [-1, 1],
    [-columns, 1],
    [-columns - 1, Math.SQRT2],
    [-columns + 1, Math.SQRT2],
  ] as const;
  const after = before.map(([offset, cost]) => [-offset, cost] as const);
  for (const at of sorted) relax(at, before);
  let [best, reach] = [sorted[0]!, 0];
  for (const at of sorted.reverse()) {
    relax(at, after);
    if (distance.get(at)! > reach) [best, reach] = [at, distance.get(at)!];
  }
  const column = best % columns;
  return { x: x0 + (column + 0.5) * cell, z: z0 + ((best - column) / columns + 0.5) * cell, reach: reach * cell };
}

/** Area of the wall cells around a region that lies on the region's side of the wall. */
function edgeArea(
  raster: Raster,
  cells: readonly number[],
  segments: Float64Array,
  walls: ReadonlyMap<number, readonly number[]>,
): number {
  const { columns, rows, cell, x0, z0 } = raster;
  const region = new Set(cells);
  const edge = new Map<number, number>();
  for (const here of cells)
    for (let dr = -1; dr <= 1; dr += 1)
      for (let dc = -1; dc <= 1; dc += 1) {
        const c = (here % columns) + dc;
        const r = Math.floor(here / columns) + dr;
        const at = r * columns + c;
        // Straight neighbours see more of the cell than diagonal ones.
        if (c < 0 || r < 0 || c >= columns || r >= rows || region.has(at) || !walls.has(at)) continue;
        if (!edge.has(at) || dr === 0 || dc === 0) edge.set(at, here);
      }
  let points = 0;
  for (const [at, from] of edge) {
    const list = walls.get(at)!;
    const fx = x0 + ((from % columns) + 0.5) * cell;
    const fz = z0 + (Math.floor(from / columns) + 0.5) * cell;
    for (let i = 0; i < FINE * FINE; i += 1) {
      const px = x0 + ((at % columns) + ((i % FINE) + 0.5) / FINE) * cell;
      const pz = z0 + (Math.floor(at / columns) + (Math.floor(i / FINE) + 0.5) / FINE) * cell;
      if (!list.some((s) => crosses(segments, s, fx, fz, px, pz))) points += 1;
    }
  }
  return (points * cell * cell) / (FINE * FINE);
}

/** Do the segment at offset `s` and the line from a to b cross? */
function crosses(t: Float64Array, s: number, ax: number, az: number, bx: number, bz: number): boolean {
  const [cx, cz, dx, dz] = [t[s]!, t[s + 1]!, t[s + 2]!, t[s + 3]!];
  const side = (px: number, pz: number, qx: number, qz: number, x: number, z: number) =>
    (qx - px) * (z - pz) - (qz - pz) * (x - px);
  return (
    side(cx, cz, dx, dz, ax, az) > 0 !== side(cx, cz, dx, dz, bx, bz) > 0 &&
    side(ax, az, bx, bz, cx, cz) > 0 !== side(ax, az, bx, bz, dx, dz) > 0
  );
}
