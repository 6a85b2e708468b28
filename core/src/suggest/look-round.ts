import type { Vec3 } from '../document/index.ts';
import { toRadians, TRIANGLE, triangleNormal } from '../geometry/index.ts';
import { RayTree, SURFACE, type Footing, type RayHit } from '../survey/index.ts';

/** Directions that are looked into: all round, and a few steps down and up. */
export const AZIMUTHS = 48;
export const TILTS = [-20, -8, 4, 16].map(toRadians);
/** Rows about the height of the eyes. */
export const LEVEL_ROWS = [1, 2] as const;
/** Nothing is looked for beyond this, metres. */
export const FAR = 30;
/** Behind a pane it goes on this far from it, metres; through so many panes at most. */
const PAST = 0.005;
const MOST_PANES = 4;

/** What is seen all round from a place: for each azimuth and tilt, see {@link at}. */
export interface Fan {
  from: Vec3;
  /** metres; {@link FAR} where there is nothing */
  distance: Float64Array;
  /** 1 where it goes through glass, or into the open. */
  open: Uint8Array;
  /** Which way an upright surface looks in the plan, radians from −Z towards −X, as pans are; NaN where it is none. */
  facing: Float64Array;
}

/** Where a direction is in a fan. */
export const at = (azimuth: number, tilt: number): number =>
  (((azimuth % AZIMUTHS) + AZIMUTHS) % AZIMUTHS) * TILTS.length + tilt;

/** The pan of an azimuth, radians. */
export const panOf = (azimuth: number): number => (2 * Math.PI * azimuth) / AZIMUTHS;

/** A surface that leans by less than this (sine) is upright. */
const UPRIGHT = 0.3;

/** What a walker's world looks like from inside: rays among everything that is in the way. */
export class LookRound {
  private readonly tree: RayTree;
  private readonly soup: Float32Array;

  constructor(private readonly footing: Footing) {
    this.soup = footing.solids.triangles as Float32Array;
    this.tree = new RayTree(this.soup);
  }

  /** Is a straight line free? Glass counts as something. */
  isFree(from: Vec3, to: Vec3): boolean {
    const way = to.map((value, k) => value - from[k]!) as Vec3;
    const length = Math.hypot(...way);
    if (length === 0) return true;
    return !this.tree.hits(...from, way[0] / length, way[1] / length, way[2] / length, length);
  }

  /** The nearest thing along a ray that is no glass; null where there is none within {@link FAR}. */
  nearest(from: Vec3, direction: Vec3): { distance: number; triangle: number; throughGlass: boolean } | null {
    const hit: RayHit = { triangle: 0, distance: 0, back: false };
    let gone = 0;
    for (let pane = 0; pane <= MOST_PANES && gone < FAR; pane += 1) {
      const [x, y, z] = from.map((value, k) => value + direction[k]! * gone) as Vec3;
      if (!this.tree.closest(x, y, z, ...direction, hit)) return null;
      gone += hit.distance;
      if (gone > FAR) return null;
      if (this.footing.kindOf(hit.triangle) !== SURFACE.glass)
        return { distance: gone, triangle: hit.triangle, throughGlass: pane > 0 };
      gone += PAST;
    }
    return null;
  }

  /** Looks all round from a place. */
  fan(from: Vec3): Fan {
    const count = AZIMUTHS * TILTS.length;
    const fan: Fan = {
      from,
      distance: new Float64Array(count).fill(FAR),
      open: new Uint8Array(count),
      facing: new Float64Array(count).fill(NaN),
    };
    for (let azimuth = 0; azimuth < AZIMUTHS; azimuth += 1)
      TILTS.forEach((tilt, row) => {
        const pan = panOf(azimuth);
        const flat = Math.cos(tilt);
        const met = this.nearest(from, [-Math.sin(pan) * flat, Math.sin(tilt), -Math.cos(pan) * flat]);
        const o = at(azimuth, row);
        fan.open[o] = !met || met.throughGlass ? 1 : 0;
        if (!met) return;
        fan.distance[o] = met.distance;
        fan.facing[o] = this.facingOf(met.triangle, from);
      });
    return fan;
  }

  /** Which way a triangle looks towards an eye, whichever way it is wound. */
  private facingOf(triangle: number, eye: Vec3): number {
    triangleNormal(this.soup, triangle, normal);
    const [x, y, z] = normal as unknown as Vec3;
    const size = Math.hypot(x, y, z);
    if (size === 0 || Math.abs(y) > UPRIGHT * size) return NaN;
    const o = triangle * TRIANGLE;
    const towards = x * (eye[0] - this.soup[o]!) + z * (eye[2] - this.soup[o + 2]!);
    return towards >= 0 ? Math.atan2(-x, -z) : Math.atan2(x, z);
  }
}

const normal = new Float64Array(3);
