import type { SiteLight } from '../../document/index.ts';
import type { SceneModel, ScenePart } from '../../format/index.ts';
import { GOLDEN_ANGLE } from '../../geometry/index.ts';
import { sunShines } from './daylight.ts';
import { BULB_SIZE, BURIED, lampAt } from './gather.ts';
import { FIELD, harmonics, soften } from './harmonics.ts';
import { LitSite } from './lit-site.ts';

/** Rays from a place that is looked at, all round: the same ones everywhere, so that neighbours are even. */
const RAYS = 320;
/** Places lie this far off whole steps: floors and walls often stand on those. */
const OFFSET = 0.37;
/** The edge of a shadow is softened over this part of a cell: what lies beside a shadow is not in it. */
const SUN_CELL = 1 / 8;
/** Places are kept, at most, and so many of them to look at the sun from. */
const MOST_KEPT = 20_000;
const MOST_SUNS = 200_000;
/** What moves in a site of more triangles takes its light along: looking about in it would stop the picture for seconds. */
export const LARGEST_LIT_ANEW = 400_000;
/** Numbers of a place: its field, and how much of the sun is open there. */
export const PLACE = FIELD + 1;

/**
 * Light as it comes to any place of a lit site, from what stands still: sky, lamps, and what its surfaces send out.
 * It is looked at where it is asked for, at the corners of a lattice, and kept.
 */
export class PlaceLight {
  private readonly site: LitSite;
  private readonly places = new Map<string, Float64Array | null>();
  private readonly suns = new Map<string, number>();
  private readonly basis = new Float64Array(9);
  private readonly way = new Float64Array(3);

  /**
   * @param lit the whole site with its baked light
   * @param stands tells what of it never moves: the rest gives and takes no light here
   */
  constructor(
    lit: SceneModel,
    private readonly light: SiteLight,
    stands: (part: ScenePart) => boolean,
  ) {
    const standing = { ...lit, parts: lit.parts.filter(stands) };
    this.site = new LitSite(standing, light, (mesh) => ({ sheets: mesh.sheets(), quick: true }));
  }

  /** Direction of the sun, of length 1. */
  get sun(): SiteLight['sun'] {
    return this.light.sun;
  }

  /** Does nothing that stands lie between two places? Metres. */
  isFree(ax: number, ay: number, az: number, bx: number, by: number, bz: number): boolean {
    const [x, y, z] = [bx - ax, by - ay, bz - az];
    const distance = Math.hypot(x, y, z);
    return distance < 1e-6 || !this.site.tree.hits(ax, ay, az, x / distance, y / distance, z / distance, distance);
  }

  /**
   * What comes to a place, between the corners of its cell that can be seen from it: as it falls on surfaces.
   * @param step side of the cells, metres
   * @param out its field and its sun
   * @returns false where it lies inside of something
   */
  at(x: number, y: number, z: number, step: number, out: Float64Array): boolean {
    const [u, v, w] = [x / step - OFFSET, y / step - OFFSET, z / step - OFFSET];
    const [i, j, k] = [Math.floor(u), Math.floor(v), Math.floor(w)];
    out.fill(0);
    let whole = 0;
    for (let corner = 0; corner < 8; corner += 1) {
      const [a, b, c] = [corner & 1, (corner >> 1) & 1, corner >> 2];
      const weight = Math.abs(1 - a - (u - i)) * Math.abs(1 - b - (v - j)) * Math.abs(1 - c - (w - k));
      if (weight < 1e-6) continue;
      const [px, py, pz] = [i + a, j + b, k + c].map((n) => (n + OFFSET) * step) as [number, number, number];
      const place = this.isFree(x, y, z, px, py, pz) ? this.place(px, py, pz) : null;
      if (!place) continue;
      whole += weight;
      for (let n = 0; n < FIELD; n += 1) out[n]! += weight * place[n]!;
    }
    if (whole === 0) return false;
    for (let n = 0; n < FIELD; n += 1) out[n]! /= whole;
    out[FIELD] = sunShines(this.light) ? this.openSun(x, y, z, step * SUN_CELL) : 0;
    return true;
  }

  /** How much of the sun is open at a place, 0…1. @param side over which the edge of a shadow is softened, metres */
  private openSun(x: number, y: number, z: number, side: number): number {
    const [sx, sy, sz] = this.light.sun;
    const [u, v, w] = [x / side - OFFSET, y / side - OFFSET, z / side - OFFSET];
    const [i, j, k] = [Math.floor(u), Math.floor(v), Math.floor(w)];
    let open = 0;
    for (let corner = 0; corner < 8; corner += 1) {
      const [a, b, c] = [i + (corner & 1), j + ((corner >> 1) & 1), k + (corner >> 2)];
      const key = `${side} ${a} ${b} ${c}`;
      let sun = this.suns.get(key);
      if (sun === undefined) {
        if (this.suns.size >= MOST_SUNS) this.suns.clear();
        const [px, py, pz] = [(a + OFFSET) * side, (b + OFFSET) * side, (c + OFFSET) * side];
        this.suns.set(key, (sun = this.site.tree.hits(px, py, pz, sx, sy, sz, Infinity) ? 0 : 1));
      }
      open += sun * (1 - Math.abs(a - u)) * (1 - Math.abs(b - v)) * (1 - Math.abs(c - w));
    }
    return open;
  }

  private place(x: number, y: number, z: number): Float64Array | null {
    const key = `${x.toFixed(4)} ${y.toFixed(4)} ${z.toFixed(4)}`;
    let place = this.places.get(key);
    if (place === undefined) {
      if (this.places.size >= MOST_KEPT) this.places.clear();
      this.places.set(key, (place = this.look(x, y, z)));
    }
    return place;
  }

  /** Looks all round from a place; null inside of things. */
  private look(x: number, y: number, z: number): Float64Array | null {
    const { site, way } = this;
    const { tree, mesh } = site;
    const field = new Float64Array(FIELD);
    const seen = new Float64Array(3);
    let backs = 0;
    for (let i = 0; i < RAYS; i += 1) {
      const dy = 1 - (2 * (i + 0.5)) / RAYS;
      const flat = Math.sqrt(1 - dy * dy);
      const [dx, dz] = [flat * Math.cos(i * GOLDEN_ANGLE), flat * Math.sin(i * GOLDEN_ANGLE)];
      seen.fill(0);
      if (site.addSeen(x, y, z, dx, dy, dz, seen)) this.add(field, dx, dy, dz, seen, 1);
      else backs += 1;
    }
    if (backs > BURIED * RAYS) return null;
    for (let n = 0; n < FIELD; n += 1) field[n]! *= (4 * Math.PI) / (RAYS - backs);
    for (const { position, color } of mesh.lamps) {
      for (let k = 0; k < 3; k += 1) way[k] = position[k]! - [x, y, z][k]!;
      // A surface square to the lamp: which way others face is what the field knows.
      const length = Math.hypot(way[0]!, way[1]!, way[2]!) || 1;
      const { strength, distance } = lampAt(way, way[0]! / length, way[1]! / length, way[2]! / length);
      if (strength === 0 || tree.hits(x, y, z, way[0]!, way[1]!, way[2]!, distance - BULB_SIZE)) continue;
      seen.set(color);
      this.add(field, way[0]!, way[1]!, way[2]!, seen, Math.PI * strength);
    }
    soften(field);
    return field;
  }

  private add(field: Float64Array, x: number, y: number, z: number, light: Float64Array, strength: number): void {
    const { basis } = this;
    harmonics(x, y, z, basis);
    for (let i = 0; i < 9; i += 1) for (let k = 0; k < 3; k += 1) field[3 * i + k]! += strength * basis[i]! * light[k]!;
  }
}
