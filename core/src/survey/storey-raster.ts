import type { TriangleSoup } from '../geometry/index.ts';
import { COLUMN, type StoreyColumns } from './columns.ts';
import { HEAD_ROOM, SEPARATION } from './levels.ts';
import { lintelHeights, wallLines } from './lintels.ts';
import { CUT_HEIGHT } from './plan-cut.ts';
import {
  AROUND,
  besideCell,
  cellsOfLines,
  crosses,
  extentOfCells,
  flood,
  innermost,
  middleOfCell,
  type Raster,
} from './room-raster.ts';

const LEAST_AREA = 1;
/** What is nowhere wider than twice this is the inside of a wall, metres. */
const LEAST_REACH = 0.35;
/** What hangs and is nowhere wider than twice this is a cupboard or a duct, not a ceiling, metres. */
const CEILING_REACH = 0.5;
/** Share of a room's edge that walls must make up: under an open porch there is no room. */
const LEAST_ENCLOSED = 0.55;
/** Sub-points per side with which the area of a cell that an edge goes through is counted. */
const FINE = 6;
/** What closes an opening higher up than the walls are cut is a door's head up to this width, else a beam. Metres. */
const WIDEST_DOOR = 2.6;
/** Air over a beam that makes it one of an open roof, metres. */
const TRUSS_AIR = 0.3;

/** An enclosed part of a storey. */
interface Region {
  /** Square metres. */
  area: number;
  /** A point inside, as far from its edge as it gets, metres. */
  at: [number, number, number];
  cells: number[];
}

/** A storey as cells, and the walls that go through them. */
export class StoreyRaster {
  private readonly what: Uint8Array;
  private readonly lines: Float64Array;
  /** Lines of the walls that close rooms, by cell. */
  private readonly walls: Map<number, number[]>;
  /** Lines of the walls that the plan shows. */
  private readonly drawn: Map<number, number[]>;

  constructor(
    private readonly raster: Raster,
    private readonly columns: StoreyColumns,
    walls: TriangleSoup,
    extent: readonly [number, number, number, number],
  ) {
    const { main, upper } = lintelHeights(columns, extent);
    const cuts = [main, CUT_HEIGHT, HEAD_ROOM, ...upper].map((height) => wallLines(walls, columns.elevation + height));
    this.lines = new Float64Array(cuts.reduce((sum, { length }) => sum + length, 0));
    let offset = 0;
    const [closed, drawn, low, ...higher] = cuts.map((lines) => {
      this.lines.set(lines, offset);
      offset += lines.length;
      return cellsOfLines(raster, this.lines, offset - lines.length, offset);
    }) as [Map<number, number[]>, Map<number, number[]>, Map<number, number[]>];
    this.walls = closed;
    this.drawn = drawn;
    this.openTrusses(main);
    this.closeUnderRoofs(low, main);
    for (const cells of higher) this.closeDoors(cells);
    this.what = this.look();
  }

  /** Takes away what is open below and above: the trusses of an open roof close no room. */
  private openTrusses(cut: number): void {
    const { raster, walls, drawn, columns } = this;
    const hangs = (at: number) => walls.has(at) && !drawn.has(at);
    const seen = new Uint8Array(raster.columns * raster.rows);
    for (const start of [...walls.keys()]) {
      if (seen[start] || !hangs(start)) continue;
      const cells = flood(raster, start, hangs, seen, true);
      let [airy, massive] = [0, 0];
      for (const at of cells) {
        const air = columns.airAbove(...middleOfCell(raster, at), cut);
        if (air === null) continue;
        if (air >= TRUSS_AIR) airy += 1;
        else massive += 1;
      }
      if (airy > massive) for (const at of cells) walls.delete(at);
    }
  }

  /** Adds walls where a roof comes down below the height at which walls were cut. */
  private closeUnderRoofs(lower: ReadonlyMap<number, number[]>, cut: number): void {
    for (const [at, lines] of lower) {
      if (this.walls.has(at)) continue;
      const [x, z] = middleOfCell(this.raster, at);
      if (this.columns.underRoof(x, z, cut)) this.walls.set(at, lines);
    }
  }

  /** Adds the heads of doors that reach higher than the walls were cut; beams close no room. */
  private closeDoors(higher: ReadonlyMap<number, number[]>): void {
    const { raster } = this;
    const seen = new Uint8Array(raster.columns * raster.rows);
    for (const start of higher.keys()) {
      if (seen[start] || this.walls.has(start)) continue;
      const cells = flood(raster, start, (at) => higher.has(at) && !this.walls.has(at), seen, true);
      const [x0, z0, x1, z1] = extentOfCells(raster, cells);
      if (Math.hypot(x1 - x0, z1 - z0) <= WIDEST_DOOR) for (const at of cells) this.walls.set(at, higher.get(at)!);
    }
  }

  /** What each cell is. Narrow things that hang take nothing from a room; a wide one is its ceiling. */
  private look(): Uint8Array {
    const { raster, columns } = this;
    const what = new Uint8Array(raster.columns * raster.rows);
    for (let at = 0; at < what.length; at += 1) {
      const [x, z] = middleOfCell(raster, at);
      what[at] = columns.at(x, z);
    }
    const seen = new Uint8Array(what.length);
    for (let at = 0; at < what.length; at += 1) {
      if (seen[at] || what[at] !== COLUMN.hanging) continue;
      const cells = flood(raster, at, (next) => what[next] === COLUMN.hanging, seen);
      const is = innermost(raster, cells).reach < CEILING_REACH ? COLUMN.room : COLUMN.low;
      for (const one of cells) what[one] = is;
    }
    return what;
  }

  /** Enclosed regions of one kind. */
  regions(kind: typeof COLUMN.room | typeof COLUMN.void): Region[] {
    const { raster, what } = this;
    const walls = this.wallsAbout(kind);
    const size = raster.cell ** 2;
    const seen = new Uint8Array(what.length);
    const out: Region[] = [];
    for (let start = 0; start < what.length; start += 1) {
      if (seen[start] || what[start] !== kind || walls.has(start)) continue;
      const cells = flood(raster, start, (at) => what[at] === kind && !walls.has(at), seen);
      if (cells.length * size < LEAST_AREA || this.enclosed(cells, kind) < LEAST_ENCLOSED) continue;
      const middle = innermost(raster, cells);
      if (middle.reach < LEAST_REACH) continue;
      const area = Math.round(this.areaOf(cells, kind) * 100) / 100;
      out.push({ area, at: [middle.x, this.columns.elevation, middle.z], cells });
    }
    return out;
  }

  /** Square metres of floor with head room under cover, enclosed or not. */
  floorArea(): number {
    let count = 0;
    for (const one of this.what) if (one === COLUMN.room) count += 1;
    return Math.round(100 * count * this.raster.cell ** 2) / 100;
  }

  /** A void ends at the walls that are drawn around it: nobody goes through doors there. */
  private wallsAbout(kind: number): Map<number, number[]> {
    return kind === COLUMN.void ? this.drawn : this.walls;
  }

  /** Does a region lie beside cells of a kind, without a wall between? */
  touches(cells: readonly number[], kind: number): boolean {
    return cells.some((here) =>
      AROUND.slice(0, 4).some((offset) => {
        const next = besideCell(this.raster, here, offset);
        return next >= 0 && this.what[next] === kind && !this.drawn.has(next);
      }),
    );
  }

  /** Does the floor below some of the cells lie at least a storey lower? */
  drops(cells: readonly number[]): boolean {
    return cells.some((at) => {
      const [x, z] = middleOfCell(this.raster, at);
      return this.columns.drops(x, z, SEPARATION);
    });
  }

  /** Share of a region's edge that is closed. Where a gallery ends over its hall it is neither closed nor open. */
  private enclosed(cells: readonly number[], kind: number): number {
    let [closed, open] = [0, 0];
    for (const here of cells)
      for (let k = 0; k < 4; k += 1) {
        const next = besideCell(this.raster, here, AROUND[k]!);
        if (next >= 0 && (this.wallsAbout(kind).has(next) || this.what[next] === COLUMN.low)) closed += 1;
        else if (next < 0 || this.what[next] === COLUMN.out) open += 1;
        else if (kind === COLUMN.void && this.what[next] === COLUMN.room) closed += 1;
      }
    return closed / Math.max(1, closed + open);
  }

  private areaOf(cells: readonly number[], kind: number): number {
    const { raster, what } = this;
    const walls = this.wallsAbout(kind);
    const region = new Set(cells);
    /** Wall cells around the region and the cell that each is seen from. */
    const atWall = new Map<number, number>();
    const atEdge = new Set<number>();
    for (const here of cells)
      AROUND.forEach((offset, k) => {
        const next = besideCell(raster, here, offset);
        if (next < 0 || region.has(next)) return;
        if (walls.has(next)) {
          // Straight neighbours see more of the cell than diagonal ones.
          if (!atWall.has(next) || k < 4) atWall.set(next, here);
        } else if (what[next] !== kind) {
          atEdge.add(next);
          atEdge.add(here);
        }
      });
    let [whole, points] = [0, 0];
    for (const here of cells) if (!atEdge.has(here)) whole += 1;
    for (const at of atEdge) points += this.pointsIn(at, (x, z) => this.columns.at(x, z) === kind);
    for (const [at, from] of atWall) {
      const lines = walls.get(at)!;
      const [fx, fz] = middleOfCell(raster, from);
      points += this.pointsIn(at, (x, z) => !lines.some((s) => crosses(this.lines, s, fx, fz, x, z)));
    }
    return (whole + points / FINE ** 2) * raster.cell ** 2;
  }

  private pointsIn(at: number, counts: (x: number, z: number) => boolean): number {
    const [mx, mz] = middleOfCell(this.raster, at);
    let count = 0;
    for (let i = 0; i < FINE * FINE; i += 1) {
      const x = mx + (((i % FINE) + 0.5) / FINE - 0.5) * this.raster.cell;
      const z = mz + ((Math.floor(i / FINE) + 0.5) / FINE - 0.5) * this.raster.cell;
      if (counts(x, z)) count += 1;
    }
    return count;
  }
}
