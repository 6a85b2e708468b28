/** Square cells over the plan of a storey. Metres. */
export interface Raster {
  columns: number;
  rows: number;
  cell: number;
  x0: number;
  z0: number;
}

/** Side of a raster cell, metres; larger on a storey with more than so many cells. */
const CELL = 0.1;
const MOST_CELLS = 1_500_000;
/** Cells reach this far around the storey, metres. */
const MARGIN = 0.5;

/** @param extent [minX, minZ, maxX, maxZ], metres */
export function rasterOver(extent: readonly [number, number, number, number]): Raster {
  const [x0, z0, x1, z1] = [extent[0] - MARGIN, extent[1] - MARGIN, extent[2] + MARGIN, extent[3] + MARGIN];
  const cell = Math.max(CELL, Math.sqrt(Math.max(0, (x1 - x0) * (z1 - z0)) / MOST_CELLS));
  return {
    x0,
    z0,
    cell,
    columns: Math.max(1, Math.ceil((x1 - x0) / cell)),
    rows: Math.max(1, Math.ceil((z1 - z0) / cell)),
  };
}

/** Middle of a cell, metres. */
export function middleOfCell({ columns, cell, x0, z0 }: Raster, at: number): [number, number] {
  const column = at % columns;
  return [x0 + (column + 0.5) * cell, z0 + ((at - column) / columns + 0.5) * cell];
}

/** Four offsets to straight neighbours, then four to diagonal ones. */
export const AROUND = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [1, -1],
  [-1, 1],
  [-1, -1],
] as const;

/** The neighbour of a cell, −1 outside the raster. */
export function besideCell({ columns, rows }: Raster, at: number, [dc, dr]: readonly [number, number]): number {
  const column = at % columns;
  const [c, r] = [column + dc, (at - column) / columns + dr];
  return c < 0 || r < 0 || c >= columns || r >= rows ? -1 : r * columns + c;
}

/** The lines from one offset to another that go through each cell: their offsets, four numbers a line. */
export function cellsOfLines(
  { columns, rows, cell, x0, z0 }: Raster,
  lines: Float64Array,
  from: number,
  to: number,
): Map<number, number[]> {
  const out = new Map<number, number[]>();
  for (let s = from; s < to; s += 4) {
    const [ax, az] = [(lines[s]! - x0) / cell, (lines[s + 1]! - z0) / cell];
    const [bx, bz] = [(lines[s + 2]! - x0) / cell, (lines[s + 3]! - z0) / cell];
    // Every cell passed: a row at a time, the stretch of columns that the line covers in it.
    const low = Math.floor(Math.min(az, bz));
    const high = Math.floor(Math.max(az, bz));
    for (let row = Math.max(0, low); row <= Math.min(rows - 1, high); row += 1) {
      const part = (z: number) => Math.min(1, Math.max(0, bz === az ? (z <= az ? 0 : 1) : (z - az) / (bz - az)));
      const [xa, xb] = [ax + (bx - ax) * part(row), ax + (bx - ax) * part(row + 1)];
      const last = Math.min(columns - 1, Math.floor(Math.max(xa, xb)));
      for (let column = Math.max(0, Math.floor(Math.min(xa, xb))); column <= last; column += 1) {
        const list = out.get(row * columns + column);
        if (list) list.push(s);
        else out.set(row * columns + column, [s]);
      }
    }
  }
  return out;
}

/** Cells that hang together with a first one. Marks them as seen. @param diagonal do cells touch at corners? */
export function flood(
  raster: Raster,
  start: number,
  belongs: (cell: number) => boolean,
  seen: Uint8Array,
  diagonal = false,
): number[] {
  const cells = [start];
  seen[start] = 1;
  for (let i = 0; i < cells.length; i += 1)
    for (let k = 0; k < (diagonal ? 8 : 4); k += 1) {
      const next = besideCell(raster, cells[i]!, AROUND[k]!);
      if (next < 0 || seen[next] || !belongs(next)) continue;
      seen[next] = 1;
      cells.push(next);
    }
  return cells;
}

/** The cell farthest from a region's edge, by a two-pass chamfer distance (Borgefors 1986). Metres. */
export function innermost(raster: Raster, cells: readonly number[]): { x: number; z: number; reach: number } {
  const { columns, cell } = raster;
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
  const [x, z] = middleOfCell(raster, best);
  return { x, z, reach: reach * cell };
}

/** Plan extent of cells, metres. */
export function extentOfCells(raster: Raster, cells: readonly number[]): [number, number, number, number] {
  const out: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  const half = raster.cell / 2;
  for (const at of cells) {
    const [x, z] = middleOfCell(raster, at);
    out[0] = Math.min(out[0], x - half);
    out[1] = Math.min(out[1], z - half);
    out[2] = Math.max(out[2], x + half);
    out[3] = Math.max(out[3], z + half);
  }
  return out;
}

/** Do the line at offset `s` and the line from a to b cross? */
export function crosses(t: Float64Array, s: number, ax: number, az: number, bx: number, bz: number): boolean {
  const [cx, cz, dx, dz] = [t[s]!, t[s + 1]!, t[s + 2]!, t[s + 3]!];
  const side = (px: number, pz: number, qx: number, qz: number, x: number, z: number) =>
    (qx - px) * (z - pz) - (qz - pz) * (x - px);
  return (
    side(cx, cz, dx, dz, ax, az) > 0 !== side(cx, cz, dx, dz, bx, bz) > 0 &&
    side(ax, az, bx, bz, cx, cz) > 0 !== side(ax, az, bx, bz, dx, dz) > 0
  );
}
