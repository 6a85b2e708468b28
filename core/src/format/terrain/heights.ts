import { PLAIN_MATERIAL, type ReadModel, type SceneMaterial } from '../scene-model.ts';
import { FormatError } from '../errors.ts';

/** A regular grid of heights. */
export interface HeightGrid {
  columns: number;
  rows: number;
  /** Metres between neighbours, along x and along z. */
  cell: [number, number];
  /** Row by row from the north, metres; NaN where nothing was measured. */
  heights: Float32Array;
}

/** A working view of a landscape needs no finer mesh than this, triangles. */
const MOST_TRIANGLES = 400_000;

const GROUND: SceneMaterial = {
  ...PLAIN_MATERIAL,
  name: 'Ground',
  color: [0.235, 0.25, 0.115],
  roughness: 1,
  doubleSided: false,
};

/** Steep faces are rock: a terrain of one colour reads as a sheet of paper. */
const STEEP: SceneMaterial = { ...GROUND, name: 'Steep ground', color: [0.23, 0.2, 0.16] };
const STEEP_SLOPE = Math.cos((38 * Math.PI) / 180);

/**
 * The ground that a grid of heights describes, at true scale: x to the east, z to the south, the middle of the grid
 * at the origin, heights as they are. Every point of the grid is a vertex, unless there are too many.
 */
export function terrainModel(grid: HeightGrid, fileName: string, notes: string[]): ReadModel {
  const step = Math.max(1, Math.ceil(Math.sqrt((2 * grid.columns * grid.rows) / MOST_TRIANGLES)));
  const columns = Math.floor((grid.columns - 1) / step) + 1;
  const rows = Math.floor((grid.rows - 1) / step) + 1;
  if (step > 1)
    notes.push(
      `The grid has ${grid.columns} × ${grid.rows} heights; every ${step}${step === 2 ? 'nd' : step === 3 ? 'rd' : 'th'} is used.`,
    );
  const positions = new Float32Array(columns * rows * 3);
  const normals = new Float32Array(columns * rows * 3);
  const [dx, dz] = [grid.cell[0] * step, grid.cell[1] * step];
  const at = (c: number, r: number) => grid.heights[r * step * grid.columns + c * step]!;
  for (let r = 0; r < rows; r += 1)
    for (let c = 0; c < columns; c += 1) {
      const o = 3 * (r * columns + c);
      const y = at(c, r);
      positions[o] = (c - (columns - 1) / 2) * dx;
      positions[o + 1] = Number.isFinite(y) ? y : 0;
      positions[o + 2] = (r - (rows - 1) / 2) * dz;
      const slope = (c0: number, r0: number, c1: number, r1: number) => {
        const difference = at(c1, r1) - at(c0, r0);
        return Number.isFinite(difference) ? difference : 0;
      };
      const [w, e, n, s] = [
        Math.max(0, c - 1),
        Math.min(columns - 1, c + 1),
        Math.max(0, r - 1),
        Math.min(rows - 1, r + 1),
      ];
      const nx = -slope(w, r, e, r) / (Math.max(1, e - w) * dx);
      const nz = -slope(c, n, c, s) / (Math.max(1, s - n) * dz);
      const length = Math.hypot(nx, 1, nz);
      normals.set([nx / length, 1 / length, nz / length], o);
    }
  const indices: [number[], number[]] = [[], []];
  for (let r = 0; r + 1 < rows; r += 1)
    for (let c = 0; c + 1 < columns; c += 1) {
      const [a, b, d, e] = [r * columns + c, (r + 1) * columns + c, (r + 1) * columns + c + 1, r * columns + c + 1];
      if (![at(c, r), at(c, r + 1), at(c + 1, r + 1), at(c + 1, r)].every(Number.isFinite)) continue;
      const up = (normals[3 * a + 1]! + normals[3 * d + 1]!) / 2;
      indices[up < STEEP_SLOPE ? 1 : 0].push(a, b, d, a, d, e);
    }
  const parts = indices
    .map((list, material) => ({
      name: material === 0 ? 'Terrain / Ground' : 'Terrain / Steep ground',
      role: 'terrain' as const,
      material,
      positions,
      normals,
      uvs: null,
      light: null,
      indices: Uint32Array.from(list),
    }))
    .filter((part) => part.indices.length > 0);
  if (parts.length === 0)
    throw new FormatError('no-geometry', fileName, 'it holds no heights.', 'Export the terrain again.');
  return {
    parts,
    materials: [GROUND, STEEP],
    textures: [],
    cameras: [],
    declares: { metresPerUnit: 1, up: 'y' },
    notes,
  };
}
