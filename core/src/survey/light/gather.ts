import type { ScenePart } from '../../format/index.ts';
import { GOLDEN_ANGLE } from '../../geometry/index.ts';
import { daylight, sunShines, type Daylight } from './daylight.ts';
import type { LightMesh, LitPart, SharedLamp } from './light-mesh.ts';
import { hemisphere, setFrame } from './hemisphere.ts';
import { PortalLight, type Through } from './portal-light.ts';
import { findPortals } from './portals.ts';
import { RayTree, type RayHit } from './ray-tree.ts';
import type { SiteLight } from '../../document/index.ts';

/** Rays start this far off their surface, metres. */
export const LIFT = 0.012;
const SUN_RAYS = 5;
const ROUGH_SUN_RAYS = 2;
/** Spread of the points from which the sun is looked for, metres. */
const SUN_SPREAD = 0.16;
const LAMP_REACH = 7;
/** Over this share of rays that meet backs a point lies inside something. */
export const BURIED = 0.35;
/** Rays everywhere, of a rough light, and where a point stands for a good piece of a room. */
const FEW_RAYS = 20;
const ROUGH_RAYS = 12;
const FEWEST_RAYS = 6;
const MANY_RAYS = 144;
/** The same where openings are looked through: what is left to find is even. */
const FEWER_RAYS = 96;
/** A point that sees more of the sky than this is lit evenly enough by few rays. */
const OPEN = 0.55;
/** Places this far apart look through other points of openings, metres. */
const HASHED = 0.0317;
/** A point that sees more of it than this needs no look through openings. */
const BRIGHT = 0.12;
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
  /**
   * For each of the lights: red, green, blue that comes straight from sky and lamps, as a white surface would send it
   * out, and the sun.
   */
  direct: Float32Array<ArrayBuffer>[];
  /** Rays that count, and how many of them met a surface. No ray at all: the point lies inside something. */
  rays: Uint16Array<ArrayBuffer>;
  met: Uint16Array<ArrayBuffer>;
  /** Triangles that were met, vertex after vertex. */
  hits: Uint32Array<ArrayBuffer>;
  /** How many triangles each vertex saw through openings that were looked through; which, and how much of what each sends. */
  through: Uint16Array<ArrayBuffer>;
  throughHits: Uint32Array<ArrayBuffer>;
  throughWeights: Float32Array<ArrayBuffer>;
}

/** Numbers of a vertex in `direct`. */
export const LIGHT_CHANNELS = 4;

/** Shoots the rays of one vertex at a time. What they meet is the same in every light: several lights share it. */
export class Gatherer {
  readonly tree: RayTree;
  private readonly few: Float64Array;
  /** By part: one where light is looked for; null where it is everywhere. */
  private readonly asked: readonly (Uint8Array | null)[];
  private readonly many: Float64Array;
  private readonly fewer: Float64Array;
  private readonly days: readonly Daylight[];
  /** Tangent frame of the vertex at hand: tangent, bitangent. */
  private readonly frame = new Float64Array(6);
  /** Red, green and blue of each light. */
  private readonly sums: Float64Array;
  private readonly hit: RayHit = { triangle: -1, distance: 0, back: false };
  private readonly start = new Float64Array(3);
  private readonly way = new Float64Array(3);
  private met: Uint32Array = new Uint32Array(4096);
  private metCount = 0;
  /** Rays of the last vertex that went on to the sky, and all that was seen through openings. */
  private escaped = 0;
  private throughHits: number[] = [];
  private throughWeights: number[] = [];
  private readonly portals: PortalLight;

  constructor(
    private readonly mesh: LightMesh,
    private readonly lights: readonly SiteLight[],
    private readonly rough = false,
  ) {
    this.tree = new RayTree(mesh.soup);
    this.portals = new PortalLight(rough ? [] : findPortals(mesh.soup, this.tree), this.tree);
    const lit = mesh.parts.reduce((sum, { unlit, first }) => sum + (unlit ? 0 : first.length), 0);
    const budgeted = (most: number, least: number, budget: number) =>
      hemisphere(Math.round(Math.min(most, Math.max(least, budget / Math.max(1, lit)))));
    this.few = budgeted(rough ? ROUGH_RAYS : FEW_RAYS, FEWEST_RAYS, FEW_BUDGET);
    this.asked = mesh.parts.map((part) => (rough && !part.unlit ? oneOfEachTriangle(part) : null));
    this.many = budgeted(MANY_RAYS, FEWEST_RAYS, MANY_BUDGET);
    this.fewer = budgeted(FEWER_RAYS, FEWEST_RAYS, MANY_BUDGET);
    this.days = lights.map(daylight);
    this.sums = new Float64Array(3 * lights.length);
  }

  /**
   * Light of the vertices from…to − 1. Those at the place of another one, unlit ones, and in a
   * rough light those beside others, are left empty.
   */
  block(from: number, to: number): GatheredBlock {
    const count = to - from;
    const direct = this.lights.map(() => new Float32Array(count * LIGHT_CHANNELS));
    const rays = new Uint16Array(count);
    const met = new Uint16Array(count);
    const through = new Uint16Array(count);
    this.metCount = 0;
    this.throughHits = [];
    this.throughWeights = [];
    for (const [i, { fine, first: places, inward, start, unlit }] of this.mesh.parts.entries()) {
      if (unlit) continue;
      const asked = this.asked[i]!;
      const last = Math.min(fine.positions.length / 3, to - start);
      for (let v = Math.max(0, from - start); v < last; v += 1) {
        if (places[v] !== v || (asked && !asked[v])) continue;
        const at = start + v - from;
        const before = this.metCount;
        const seen = this.throughHits.length;
        rays[at] = this.vertex(fine, inward, v, this.mesh.area[start + v]!, direct, at * LIGHT_CHANNELS);
        met[at] = this.metCount - before;
        through[at] = this.throughHits.length - seen;
      }
    }
    return {
      from,
      direct,
      rays,
      met,
      hits: this.met.slice(0, this.metCount),
      through,
      throughHits: Uint32Array.from(this.throughHits),
      throughWeights: Float32Array.from(this.throughWeights),
    };
  }

  /** Writes the direct light of a vertex. Returns how many rays count. */
  private vertex(
    part: ScenePart,
    inward: Float32Array,
    v: number,
    area: number,
    out: readonly Float32Array[],
    at: number,
  ): number {
    const o = 3 * v;
    const [nx, ny, nz] = [part.normals[o]!, part.normals[o + 1]!, part.normals[o + 2]!];
    // On the back of a rounded shape the way to its faces leads under them: only the level part of it is gone.
    const under = Math.min(0, inward[o]! * nx + inward[o + 1]! * ny + inward[o + 2]! * nz) - LIFT;
    for (let k = 0; k < 3; k += 1)
      this.start[k] = part.positions[o + k]! + inward[o + k]! - part.normals[o + k]! * under;
    setFrame(this.frame, nx, ny, nz);
    const before = this.metCount;
    this.portals.at(this.start[0]!, this.start[1]!, this.start[2]!, nx, ny, nz);
    let counted = this.shoot(this.few, nx, ny, nz);
    const seen = counted > 0 ? this.escaped / counted : 0;
    // What sees much of the sky is lit evenly enough by rays everywhere.
    if (seen > BRIGHT && this.portals.any()) {
      this.portals.none();
      this.metCount = before;
      counted = this.shoot(this.few, nx, ny, nz);
    }
    if (!this.rough && this.many.length > this.few.length && area > SMALL && seen < OPEN && counted > 0) {
      this.metCount = before;
      counted = this.shoot(this.portals.any() ? this.fewer : this.many, nx, ny, nz);
    }
    if (counted === 0) return 0;
    const [x, y, z] = [this.start[0]!, this.start[1]!, this.start[2]!];
    const { sums } = this;
    for (let k = 0; k < sums.length; k += 1) sums[k]! /= counted;
    // A house far from the origin is lit as the one at it: by places within the part, and not by roundings.
    const within = (k: number) => Math.round((this.start[k]! - part.positions[k]!) / HASHED);
    this.lookThrough(x, y, z, nx, ny, nz, 12.9898 * within(0) + 78.233 * within(1) + 37.719 * within(2));
    for (const lamp of this.mesh.lamps) this.addLamp(lamp, x, y, z, nx, ny, nz);
    for (const [i, own] of out.entries()) {
      for (let k = 0; k < 3; k += 1) own[at + k] = sums[3 * i + k]!;
      own[at + 3] = this.sunAt(this.lights[i]!, x, y, z, nx, ny, nz);
    }
    return counted;
  }

  /** Sends rays over the hemisphere; `sums` gets what comes from the sky. Returns how many count, 0 inside of things. */
  private shoot(set: Float64Array, nx: number, ny: number, nz: number): number {
    const { frame: f, sums, tree, hit, mesh, days } = this;
    const [x, y, z] = [this.start[0]!, this.start[1]!, this.start[2]!];
    const first = this.metCount;
    const count = set.length / 3;
    sums.fill(0);
    let backs = 0;
    this.escaped = 0;
    for (let i = 0; i < count; i += 1) {
      const [a, b, c] = [set[3 * i]!, set[3 * i + 1]!, set[3 * i + 2]!];
      const dx = a * f[0]! + b * nx + c * f[3]!;
      const dy = a * f[1]! + b * ny + c * f[4]!;
      const dz = a * f[2]! + b * nz + c * f[5]!;
      if (!tree.closest(x, y, z, dx, dy, dz, hit)) {
        this.escaped += 1;
        if (this.portals.goesThrough(dx, dy, dz, Infinity)) continue;
        for (let k = 0; k < days.length; k += 1) addSky(days[k]!, dy, sums, 3 * k);
        continue;
      }
      if (hit.back && !mesh.twoSided[hit.triangle]) {
        backs += 1;
        continue;
      }
      if (this.portals.goesThrough(dx, dy, dz, hit.distance)) continue;
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

  /** Adds what the vertex at hand sees through openings: the sky to `sums`, surfaces to what bounces. */
  private lookThrough(x: number, y: number, z: number, nx: number, ny: number, nz: number, seed: number): void {
    const { tree, hit, sums, days, mesh } = this;
    const see: Through = (dx, dy, dz, far, weight) => {
      if (!tree.closest(x, y, z, dx, dy, dz, hit)) {
        for (let k = 0; k < days.length; k += 1) addSky(days[k]!, dy, sums, 3 * k, weight);
      } else if (hit.distance > far && (!hit.back || mesh.twoSided[hit.triangle])) {
        this.throughHits.push(hit.triangle);
        this.throughWeights.push(weight);
      }
    };
    // Places beside each other look through other points: where a reveal cuts the view off, no steps are seen on a wall.
    const shift = (k: number) => Math.abs(43_758.5453 * Math.sin(seed + k)) % 1;
    this.portals.look(nx, ny, nz, see, [shift(0), shift(1)]);
  }

  private grow(): void {
    const larger = new Uint32Array(2 * this.met.length);
    larger.set(this.met);
    this.met = larger;
  }

  /** The sun that falls on a place: 1 where it is seen whole and square on, 0 in shade. */
  private sunAt(light: SiteLight, x: number, y: number, z: number, nx: number, ny: number, nz: number): number {
    const [sx, sy, sz] = light.sun;
    const cosine = nx * sx + ny * sy + nz * sz;
    if (cosine <= 0 || !sunShines(light)) return 0;
    const { frame } = this;
    const rays = this.rough ? ROUGH_SUN_RAYS : SUN_RAYS;
    let seen = 0;
    for (let i = 0; i < rays; i += 1) {
      // Points spread over the surface about the vertex: as fine as the mesh can show.
      const a = i * GOLDEN_ANGLE;
      const r = i === 0 ? 0 : SUN_SPREAD;
      const [u, v] = [r * Math.cos(a), r * Math.sin(a)];
      const px = x + u * frame[0]! + v * frame[3]!;
      const py = y + u * frame[1]! + v * frame[4]!;
      const pz = z + u * frame[2]! + v * frame[5]!;
      if (!this.tree.hits(px, py, pz, sx, sy, sz, Infinity)) seen += 1;
    }
    return (cosine * seen) / rays;
  }

  private addLamp(lamp: SharedLamp, x: number, y: number, z: number, nx: number, ny: number, nz: number): void {
    const { way } = this;
    way[0] = lamp.position[0] - x;
    way[1] = lamp.position[1] - y;
    way[2] = lamp.position[2] - z;
    const { strength, distance } = lampAt(way, nx, ny, nz);
    if (strength === 0 || this.tree.hits(x, y, z, way[0], way[1], way[2], distance - BULB_SIZE)) return;
    for (const light of lamp.lights)
      for (let k = 0; k < 3; k += 1) this.sums[3 * light + k]! += lamp.color[k]! * strength;
  }
}

/** Some vertices of a part, so that every triangle has one of them: the others have a neighbour that knows. */
function oneOfEachTriangle({ fine: { indices }, first }: LitPart): Uint8Array {
  const asked = new Uint8Array(first.length);
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [first[indices[t]!]!, first[indices[t + 1]!]!, first[indices[t + 2]!]!];
    if (!asked[a] && !asked[b] && !asked[c]) asked[a] = 1;
  }
  return asked;
}

/** What a direction of the sky or of the ground below it sends, added to three numbers. @param dy sine of its height */
export function addSky(
  { ground, horizon, zenith, rise }: Daylight,
  dy: number,
  to: Float64Array,
  at = 0,
  weight = 1,
): void {
  const up = Math.max(0, dy) ** rise;
  for (let k = 0; k < 3; k += 1)
    to[at + k]! += weight * (dy < 0 ? ground[k]! : horizon[k]! + (zenith[k]! - horizon[k]!) * up);
}

/**
 * What a lamp gives a place, of its colour, if nothing is in the way.
 * @param way from the place to the lamp, metres; it is made a unit vector
 * @returns strength and distance; nothing beyond its reach and from behind
 */
export function lampAt(way: Float64Array, nx: number, ny: number, nz: number): { strength: number; distance: number } {
  const distance = Math.hypot(way[0]!, way[1]!, way[2]!);
  if (distance > LAMP_REACH || distance < 0.05) return DARK;
  for (let k = 0; k < 3; k += 1) way[k]! /= distance;
  const cosine = nx * way[0]! + ny * way[1]! + nz * way[2]!;
  if (cosine <= 0) return DARK;
  const fade = (1 - distance / LAMP_REACH) ** 2;
  return { strength: (cosine * fade) / (distance * distance + 0.25), distance };
}
const DARK = { strength: 0, distance: 0 };
/** Rays to a lamp stop short of the bulb itself, metres. */
export const BULB_SIZE = 0.13;
