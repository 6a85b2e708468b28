import type { TriangleSoup } from '../geometry/index.ts';
import { COLUMN, type StoreyColumns } from './columns.ts';
import { extentOfCells, middleOfCell, rasterOver, type Raster } from './room-raster.ts';
import { StoreyRaster } from './storey-raster.ts';

export interface Room {
  name: string;
  /** Square metres. */
  area: number;
  /** A point inside, as far from the walls as it gets: where its name is written. Metres. */
  at: [number, number, number];
  /** Places all over it, about a metre apart: x, z pairs, metres. A name that was given at a place finds it by them. */
  places: number[];
}

/** Air of a storey over a lower floor: the hall beside a gallery, a stair well. */
export interface Void extends Omit<Room, 'name' | 'places'> {
  /** [minX, minZ, maxX, maxZ] of one that fills its rectangle, metres; it is crossed out in the plan. */
  extent: [number, number, number, number] | null;
}

/** A void that fills so much of its rectangle is one. */
const FILLS = 0.9;

/**
 * Finds the rooms of a storey: floor with head room under cover that walls enclose, told apart where doors are because
 * walls close above them. Cells that an edge goes through are counted by fine points on the room's side of it, so that
 * areas hold to about one part in a hundred. A gallery ends where its floor ends; a room under a roof where there is
 * no head room any more.
 * @param walls triangles that walls are made of; see `wallsOf`
 * @param extent [minX, minZ, maxX, maxZ] of the storey, metres
 */
export function findRooms(
  walls: TriangleSoup,
  columns: StoreyColumns,
  extent: readonly [number, number, number, number],
): { rooms: Room[]; voids: Void[]; floor: number } {
  const raster = rasterOver(extent);
  const storey = new StoreyRaster(raster, columns, walls, extent);
  const rooms = storey
    .regions(COLUMN.room)
    .map(({ area, at, cells }, i) => ({ name: `Room ${i + 1}`, area, at, places: placesIn(raster, cells) }));
  // Behind a wall it is the upper part of another room, and half a storey down it is the half storey's own air.
  const voids = storey
    .regions(COLUMN.void)
    .filter(({ cells }) => storey.touches(cells, COLUMN.room) && storey.drops(cells))
    .map(({ area, at, cells }) => ({ area, at, extent: rectangleOf(raster, cells) }));
  return { rooms, voids, floor: storey.floorArea() };
}

/** Middles of every so many cells. */
function placesIn(raster: Raster, cells: readonly number[]): number[] {
  const every = Math.max(1, Math.round(1 / raster.cell));
  const isPlace = (at: number) => (at % raster.columns) % every === 0 && Math.floor(at / raster.columns) % every === 0;
  return cells.filter(isPlace).flatMap((at) => middleOfCell(raster, at).map((value) => Math.round(value * 100) / 100));
}

function rectangleOf(raster: Raster, cells: readonly number[]): Void['extent'] {
  const extent = extentOfCells(raster, cells);
  const [x0, z0, x1, z1] = extent;
  if (cells.length * raster.cell ** 2 < FILLS * (x1 - x0) * (z1 - z0)) return null;
  return extent.map((value) => Math.round(value * 100) / 100) as [number, number, number, number];
}
