import type { SiteLight } from '../../document/index.ts';
import type { SceneModel } from '../../format/index.ts';
import { GOLDEN_ANGLE, TRIANGLE } from '../../geometry/index.ts';
import type { Projection } from '../../optics/index.ts';
import { BULB_SIZE, BURIED, lampAt, LIFT } from './gather.ts';
import { hemisphere, setFrame } from './hemisphere.ts';
import type { LightMesh } from './light-mesh.ts';
import { LitSite } from './lit-site.ts';
import type { PixelGather } from './pixel-gather.ts';
import { PortalLight } from './portal-light.ts';
import { findPortals } from './portals.ts';
import type { RayHit } from './ray-tree.ts';

/** Light at a place of the picture is never corrected by more than this factor. */
const MOST = 5;
/** How large lamps are, metres, and how many points of each a place looks at. */
const LAMP_RADIUS = 0.11;
const LAMP_SAMPLES = 2;
/**
 * A lamp that gives less than this part of the light at a place is looked at for some of the pixels only, which count for
 * the others (Russian roulette: Arvo & Kirk 1990).
 */
const FAINT = 0.08;
/** Darker than this the bake says nothing that could be corrected. */
const DARK = 1e-4;

/**
 * Gathers light for pixels from a model that has been lit (a final gather: Reichert 1992; Jensen 2001, ch. 8): rays over
 * the hemisphere find the sky or the baked radiance of what they meet. The sun's own rays are not part of it: they are
 * drawn. The bake lights vertices half a metre apart; this sees what lies between.
 */
export class PixelLight {
  private readonly site: LitSite;
  /** Normals of all vertices. */
  private readonly normals: Float32Array;
  private readonly hit: RayHit = { triangle: -1, distance: 0, back: false };
  private readonly frame = new Float64Array(6);
  private readonly sum = new Float64Array(3);
  private readonly way = new Float64Array(3);
  private readonly weights = new Float64Array(3);
  private readonly portals: PortalLight;

  /** @param lit the whole site with its baked light, as `LightBake.finish` gave it */
  constructor(lit: SceneModel, light: SiteLight) {
    this.site = new LitSite(lit, light);
    this.portals = new PortalLight(findPortals(this.site.mesh.soup, this.site.tree), this.site.tree);
    const { count, parts } = this.site.mesh;
    this.normals = new Float32Array(3 * count);
    for (const { fine, start } of parts) this.normals.set(fine.normals, 3 * start);
  }

  /** Gathers the rows from…to − 1 with so many rays a pixel. */
  rows(projection: Projection, out: PixelGather, rays: number, from: number, to: number): void {
    const set = hemisphere(rays);
    for (let y = from; y < to; y += 1)
      for (let x = 0; x < out.width; x += 1) {
        const { from: eye, direction } = projection.ray(
          (2 * (x + 0.5)) / out.width - 1,
          1 - (2 * (y + 0.5)) / out.height,
        );
        // What glows is looked at itself, not at what falls on it.
        const { hit, site } = this;
        if (site.tree.closest(...eye, ...direction, hit) && !hit.back && !site.mesh.seenToGlow[hit.triangle]) {
          const { triangle, distance } = hit;
          const place = eye.map((value, k) => value + distance * direction[k]!) as [number, number, number];
          this.pixel(out, y * out.width + x, triangle, place, distance, set);
        }
      }
  }

  private pixel(
    out: PixelGather,
    at: number,
    triangle: number,
    [px, py, pz]: readonly [number, number, number],
    distance: number,
    set: Float64Array,
  ): void {
    const { weights, sum } = this;
    const { mesh, ambient } = this.site;
    this.weigh(triangle, px, py, pz);
    const mixed = (values: Float32Array, k: number) =>
      [0, 1, 2].reduce((total, c) => total + weights[c]! * values[3 * mesh.vertices[3 * triangle + c]! + k]!, 0);
    let [nx, ny, nz] = [mixed(this.normals, 0), mixed(this.normals, 1), mixed(this.normals, 2)];
    const length = Math.hypot(nx, ny, nz) || 1;
    [nx, ny, nz] = [nx / length, ny / length, nz / length];
    // Off the surface, and with the distance: what is far away is known less exactly.
    const lift = LIFT * Math.min(1, 0.1 + distance / 8) + 1e-5 * distance;
    const [x, y, z] = [px + nx * lift, py + ny * lift, pz + nz * lift];
    // Neighbours look elsewhere: what is wrong with one is right with the other, and a filter makes it even.
    const turn =
      2 *
      Math.PI *
      ((52.9829189 * ((0.06711056 * (at % out.width) + 0.00583715 * Math.floor(at / out.width)) % 1)) % 1);
    this.portals.at(x, y, z, nx, ny, nz);
    const counted = this.shoot(set, turn, x, y, z, nx, ny, nz);
    if (counted === 0) return;
    for (let k = 0; k < 3; k += 1) sum[k]! /= counted;
    this.lookThrough(turn, x, y, z, nx, ny, nz);
    const faint = FAINT * Math.max(DARK, mixed(ambient, 0), mixed(ambient, 1), mixed(ambient, 2));
    for (const [i, lamp] of mesh.lamps.entries())
      for (let sample = 0; sample < LAMP_SAMPLES; sample += 1)
        this.addLamp(lamp, turn + (LAMP_SAMPLES * i + sample) * GOLDEN_ANGLE, faint, x, y, z, nx, ny, nz);
    out.distances[at] = distance;
    out.normals.set([nx, ny, nz], 3 * at);
    out.places.set([px, py, pz], 3 * at);
    for (let k = 0; k < 3; k += 1) {
      const baked = mixed(ambient, k);
      out.factors[3 * at + k] = baked > DARK ? Math.min(MOST, Math.max(1 / MOST, sum[k]! / baked)) : 1;
    }
  }

  /**
   * A lamp is as large as a bulb: each place looks at another point of it, so that its shadows have soft edges.
   * @param faint what it gives at least where it is looked at for certain
   */
  private addLamp(
    lamp: LightMesh['lamps'][number],
    turn: number,
    faint: number,
    x: number,
    y: number,
    z: number,
    nx: number,
    ny: number,
    nz: number,
  ): void {
    const { way, sum } = this;
    // Points of a disc, all as likely: the square root of a number that the turn gives, too.
    const out = LAMP_RADIUS * Math.sqrt((turn * 7.1305) % 1);
    way[0] = lamp.position[0] + out * Math.cos(turn) - x;
    way[1] = lamp.position[1] - y;
    way[2] = lamp.position[2] + out * Math.sin(turn) - z;
    const { strength, distance } = lampAt(way, nx, ny, nz);
    if (strength === 0) return;
    const [red, green, blue] = lamp.color;
    const odds = Math.min(1, (Math.max(red, green, blue) * strength) / faint);
    if ((turn * 3.6137) % 1 >= odds || this.site.tree.hits(x, y, z, way[0], way[1], way[2], distance - BULB_SIZE))
      return;
    for (let k = 0; k < 3; k += 1) sum[k]! += (lamp.color[k]! * strength) / (odds * LAMP_SAMPLES);
  }

  /** What is seen through openings: each place looks through other points of them, so that shadows have soft edges. */
  private lookThrough(turn: number, x: number, y: number, z: number, nx: number, ny: number, nz: number): void {
    const { site, sum, hit } = this;
    this.portals.look(
      nx,
      ny,
      nz,
      (dx, dy, dz, far, weight) => {
        const met = site.tree.closest(x, y, z, dx, dy, dz, hit);
        if (!met || hit.distance > far) site.add(met ? hit : null, dy, sum, weight);
      },
      [(turn * 5.3173) % 1, (turn * 8.6811) % 1],
      0.3,
    );
  }

  /** Weights of a triangle's corners at a point of it. */
  private weigh(triangle: number, px: number, py: number, pz: number): void {
    const s = this.site.mesh.soup;
    const o = triangle * TRIANGLE;
    const [ax, ay, az] = [s[o]!, s[o + 1]!, s[o + 2]!];
    const [ux, uy, uz] = [s[o + 3]! - ax, s[o + 4]! - ay, s[o + 5]! - az];
    const [vx, vy, vz] = [s[o + 6]! - ax, s[o + 7]! - ay, s[o + 8]! - az];
    const [wx, wy, wz] = [px - ax, py - ay, pz - az];
    const uu = ux * ux + uy * uy + uz * uz;
    const uv = ux * vx + uy * vy + uz * vz;
    const vv = vx * vx + vy * vy + vz * vz;
    const wu = wx * ux + wy * uy + wz * uz;
    const wv = wx * vx + wy * vy + wz * vz;
    const d = uu * vv - uv * uv || 1;
    const b = Math.min(1, Math.max(0, (vv * wu - uv * wv) / d));
    const c = Math.min(1 - b, Math.max(0, (uu * wv - uv * wu) / d));
    this.weights[0] = 1 - b - c;
    this.weights[1] = b;
    this.weights[2] = c;
  }

  /** Sends rays over the hemisphere; `sum` gets what comes back. Returns how many count, 0 inside of things. */
  private shoot(
    set: Float64Array,
    turn: number,
    x: number,
    y: number,
    z: number,
    nx: number,
    ny: number,
    nz: number,
  ): number {
    const { frame: f, sum, site, hit } = this;
    const { tree } = site;
    setFrame(f, nx, ny, nz);
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const count = set.length / 3;
    sum.fill(0);
    let backs = 0;
    for (let i = 0; i < count; i += 1) {
      const a = set[3 * i]! * c - set[3 * i + 2]! * s;
      const b = set[3 * i + 1]!;
      const d = set[3 * i]! * s + set[3 * i + 2]! * c;
      const dx = a * f[0]! + b * nx + d * f[3]!;
      const dy = a * f[1]! + b * ny + d * f[4]!;
      const dz = a * f[2]! + b * nz + d * f[5]!;
      const met = tree.closest(x, y, z, dx, dy, dz, hit);
      if (this.portals.goesThrough(dx, dy, dz, met ? hit.distance : Infinity)) continue;
      if (!site.add(met ? hit : null, dy, sum)) backs += 1;
    }
    return backs > BURIED * count ? 0 : count - backs;
  }
}
