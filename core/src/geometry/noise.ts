import { smooth } from './smooth.ts';

/** A number 0…1 that only its place in a lattice decides. @param layer of several lattices */
export function latticeValue(x: number, y: number, layer = 0): number {
  let h = Math.imul(x, 374_761_393) ^ Math.imul(y, 668_265_263) ^ Math.imul(layer, 2_147_483_629);
  h = Math.imul(h ^ (h >>> 13), 1_274_126_177);
  return ((h ^ (h >>> 16)) >>> 0) / 4_294_967_295;
}

/** Smooth noise over the plane, 0…1, with a value of its own at every whole place. */
export function smoothNoise(x: number, y: number): number {
  const [column, row] = [Math.floor(x), Math.floor(y)];
  const [sx, sy] = [smooth(0, 1, x - column), smooth(0, 1, y - row)];
  const above = latticeValue(column, row) * (1 - sx) + latticeValue(column + 1, row) * sx;
  const below = latticeValue(column, row + 1) * (1 - sx) + latticeValue(column + 1, row + 1) * sx;
  return above * (1 - sy) + below * sy;
}

/**
 * Adds smooth noise to a square field, row by row, seamless at its edges.
 * @param cells across the field
 * @param weight of values 0…1
 * @param layer noises of one field differ
 */
export function addSeamlessNoise(out: Float32Array, cells: number, weight: number, layer: number): void {
  const side = Math.round(Math.sqrt(out.length));
  const values = Float32Array.from({ length: cells * cells }, (_, i) =>
    latticeValue(i % cells, Math.floor(i / cells), layer),
  );
  for (let y = 0; y < side; y += 1) {
    const v = (y * cells) / side;
    const [top, sy] = [Math.floor(v), smooth(0, 1, v % 1)];
    const [row, next] = [top * cells, ((top + 1) % cells) * cells];
    for (let x = 0; x < side; x += 1) {
      const u = (x * cells) / side;
      const left = Math.floor(u);
      const right = (left + 1) % cells;
      const sx = smooth(0, 1, u - left);
      const above = values[row + left]! * (1 - sx) + values[row + right]! * sx;
      const below = values[next + left]! * (1 - sx) + values[next + right]! * sx;
      out[y * side + x]! += weight * (above * (1 - sy) + below * sy);
    }
  }
}
