import type { ScenePart } from '../../format/index.ts';
import { daylight, type Daylight } from './daylight.ts';
import type { Lamp } from './lamps.ts';
import type { LightMesh } from './light-mesh.ts';
import { RayTree, type RayHit } from './ray-tree.ts';

/** Rays start this far off their surface, metres. */
const LIFT = 0.012;
const SUN_RAYS = 5;
/** Spread of the points from which the sun is looked for, metres. */
const SUN_SPREAD = 0.16;
const LAMP_REACH = 7;
/** Over this share of rays that meet backs a point lies inside something. */
const BURIED = 0.35;
/** Rays of a first light, everywhere, and where a point stands for a good piece of a room. */
const FEW_RAYS = 20;
const FIRST_RAYS = 12;
const FEWEST_RAYS = 6;
const MANY_RAYS = 144;
/** A point that sees more of the sky than this is lit evenly enough by few rays. */
const OPEN = 0.55;
/** A point that stands for less than this is too small to be looked at, square metres. */
const SMALL = 0.03;
/** Rays of a whole bake, at most about this many. */
const FEW_BUDGET = 2_800_000;
/** Only a part of the vertices of a site are worth many rays. */
const MANY_BUDGET = 36_000_000;

/** Light that falls on some vertices directly, and what their rays met. */
export interface GatheredBlock {
  /** Number of the first vertex. */
  from: number;
  /** Red, green, blue that comes straight from sky and lamps, as a white surface would send it out, and the sun. */
  direct: Float32Array<ArrayBuffer>;
  /** Rays that count, and how many of them met a surface. No ray at all: the point lies inside something. */
  rays: Uint16Array<ArrayBuffer>;
  met: Uint16Array<ArrayBuffer>;
  /** Triangles that were met, vertex after vertex. */
  hits: Uint32Array<ArrayBuffer>;
}

/** Numbers of a vertex in `direct`. */
export const LIGHT_CHANNELS = 4;

/** Shoots the rays of one vertex at a time. */
export class Gatherer {
  readonly tree: RayTree;
  private readonly first: Float64Array;
  private readonly few: Float64Array;
  private readonly many: Float64Array;
  private readonly day: Daylight;
  /** Tangent frame of the vertex at hand: tangent, bitangent. */
  private readonly frame = new Float64Array(6);
  private readonly sum = new Float64Array(3);
  private readonly hit: RayHit = { triangle: -1, distance: 0, back: false };
  private readonly start = new Float64Array(3);
  private met: Uint32Array = new Uint32Array(4096);
  private metCount = 0;
  private hurried = false;

  constructor(
    private readonly mesh: LightMesh,
    private readonly sun: readonly [number, number, number],
  ) {
    this.tree = new RayTree(mesh.soup);
    const budgeted = (most: number, least: number, budget: number) =>
      hemisphere(Math.round(Math.min(most, Math.max(least, budget / Math.max(1, mesh.count)))));
    this.few = budgeted(FEW_RAYS, FEWEST_RAYS, FEW_BUDGET);
    this.first = budgeted(FIRST_RAYS, FEWEST_RAYS, FEW_BUDGET);
    this.many = budgeted(MANY_RAYS, FEWEST_RAYS, MANY_BUDGET);
    this.day = daylight(sun);
  }

  /**
   * Light of the vertices from…to − 1. Those at the place of another one are left empty.
   * @param first with few rays everywhere: to be seen soon
   */
  block(from: number, to: number, first = false): GatheredBlock {
    this.hurried = first;
    const count = to - from;
    const direct = new Float32Array(count * LIGHT_CHANNELS);
    const rays = new Uint16Array(count);
    const met = new Uint16Array(count);
    this.metCount = 0;
    for (const { fine, first: places, inward, start } of this.mesh.parts) {
      const last = Math.min(fine.positions.length / 3, to - start);
      for (let v = Math.max(0, from - start); v < last; v += 1) {
        if (places[v] !== v) continue;
        const at = start + v - from;
        const before = this.metCount;
        rays[at] = this.vertex(fine, inward, v, this.mesh.area[start + v]!, direct, at * LIGHT_CHANNELS);
        met[at] = this.metCount - before;
      }
    }
    return { from, direct, rays, met, hits: this.met.slice(0, this.metCount) };
  }

  /** Writes the direct light of a vertex. Returns how many rays count. */
  private vertex(
    part: ScenePart,
    inward: Float32Array,
    v: number,
    area: number,
    out: Float32Array,
    at: number,
  ): number {
    const o = 3 * v;
    const [nx, ny, nz] = [part.normals[o]!, part.normals[o + 1]!, part.normals[o + 2]!];
    // On the back of a rounded shape the way to its faces leads under them: only the level part of it is gone.
    const under = Math.min(0, inward[o]! * nx + inward[o + 1]! * ny + inward[o + 2]! * nz) - LIFT;
    for (let k = 0; k < 3; k += 1)
      this.start[k] = part.positions[o + k]! + inward[o + k]! - part.normals[o + k]! * under;
    this.setFrame(nx, ny, nz);
    const before = this.metCount;
    let counted = this.shoot(this.hurried ? this.first : this.few, nx, ny, nz);
    const seen = counted > 0 ? (counted - (this.metCount - before)) / counted : 0;
    if (!this.hurried && this.many.length > this.few.length && area > SMALL && seen < OPEN && counted > 0) {
      this.metCount = before;
      counted = this.shoot(this.many, nx, ny, nz);
    }
    if (counted === 0) return 0;
    const [x, y, z] = [this.start[0]!, this.start[1]!, this.start[2]!];
    for (let k = 0; k < 3; k += 1) this.sum[k]! /= counted;
    for (const lamp of this.mesh.lamps) this.addLamp(lamp, x, y, z, nx, ny, nz);
    out.set(this.sum, at);
    out[at + 3] = this.sunAt(x, y, z, nx, ny, nz);
    return counted;
  }

  /** Sends rays over the hemisphere; `sum` gets what comes from the sky. Returns how many count, 0 inside of things. */
  private shoot(set: Float64Array, nx: number, ny: number, nz: number): number {
    const { frame: f, sum, tree, hit, mesh } = this;
    const [x, y, z] = [this.start[0]!, this.start[1]!, this.start[2]!];
    const first = this.metCount;
    const count = set.length / 3;
    sum.fill(0);
    let backs = 0;
    for (let i = 0; i < count; i += 1) {
      const [a, b, c] = [set[3 * i]!, set[3 * i + 1]!, set[3 * i + 2]!];
      const dx = a * f[0]! + b * nx + c * f[3]!;
      const dy = a * f[1]! + b * ny + c * f[4]!;
      const dz = a * f[2]! + b * nz + c * f[5]!;
      if (!tree.closest(x, y, z, dx, dy, dz, hit)) {
        this.addSky(dy);
        continue;
      }
      if (hit.back && !mesh.twoSided[hit.triangle]) {
        backs += 1;
        continue;
      }
      if (this.metCount === this.met.length) this.grow();
      this.met[this.metCount] = hit.triangle;
      this.metCount += 1;
    }
    if (backs > BURIED * count) {
      this.metCount = first;
      return 0;
    }
    return count - backs;
  }

  private addSky(dy: number): void {
    const { day, sum } = this;
    const up = Math.max(0, dy) ** 0.6;
    for (let k = 0; k < 3; k += 1)
      sum[k]! += dy < 0 ? day.ground[k]! : day.horizon[k]! + (day.zenith[k]! - day.horizon[k]!) * up;
  }

  private grow(): void {
    const larger = new Uint32Array(2 * this.met.length);
    larger.set(this.met);
    this.met = larger;
  }

  /** The sun that falls on a place: 1 where it is seen whole and square on, 0 in shade. */
  private sunAt(x: number, y: number, z: number, nx: number, ny: number, nz: number): number {
    const [sx, sy, sz] = this.sun;
    const cosine = nx * sx + ny * sy + nz * sz;
    if (cosine <= 0 || sy < -0.02) return 0;
    const { frame } = this;
    let seen = 0;
    for (let i = 0; i < SUN_RAYS; i += 1) {
      // Points spread over the surface about the vertex: as fine as the mesh can show.
      const a = i * 2.399963229728653;
      const r = i === 0 ? 0 : SUN_SPREAD;
      const [u, v] = [r * Math.cos(a), r * Math.sin(a)];
      const px = x + u * frame[0]! + v * frame[3]!;
      const py = y + u * frame[1]! + v * frame[4]!;
      const pz = z + u * frame[2]! + v * frame[5]!;
      if (!this.tree.hits(px, py, pz, sx, sy, sz, Infinity)) seen += 1;
    }
    return (cosine * seen) / SUN_RAYS;
  }

  private addLamp(lamp: Lamp, x: number, y: number, z: number, nx: number, ny: number, nz: number): void {
    const [dx, dy, dz] = [lamp.position[0] - x, lamp.position[1] - y, lamp.position[2] - z];
    const distance = Math.hypot(dx, dy, dz);
    if (distance > LAMP_REACH || distance < 0.05) return;
    const cosine = (nx * dx + ny * dy + nz * dz) / distance;
    if (cosine <= 0) return;
    // Stops short of the bulb itself.
    if (this.tree.hits(x, y, z, dx / distance, dy / distance, dz / distance, distance - 0.13)) return;
    const fade = (1 - distance / LAMP_REACH) ** 2;
    const strength = (cosine * fade) / (distance * distance + 0.25);
    for (let k = 0; k < 3; k += 1) this.sum[k]! += lamp.color[k]! * strength;
  }

  /**
   * Duff et al. 2017, "Building an orthonormal basis, revisited". The same for all points of a plane: their rays make the
   * same errors, so that a wall is even.
   */
  private setFrame(nx: number, ny: number, nz: number): void {
    // A hair of rounding must not turn the frame: walls far from the origin are lit as those at it.
    const sign = nz >= -1e-4 ? 1 : -1;
    const a = -1 / (sign + nz);
    const b = nx * ny * a;
    this.frame.set([1 + sign * nx * nx * a, sign * b, -sign * nx, b, sign + ny * ny * a, -ny]);
  }
}

/** Points of a unit disc and heights of a cosine-weighted hemisphere, by the golden angle. */
function hemisphere(count: number): Float64Array {
  const out = new Float64Array(3 * count);
  for (let i = 0; i < count; i += 1) {
    const r = Math.sqrt((i + 0.5) / count);
    const a = i * 2.399963229728653;
    out.set([r * Math.cos(a), Math.sqrt(1 - r * r), r * Math.sin(a)], 3 * i);
  }
  return out;
}
