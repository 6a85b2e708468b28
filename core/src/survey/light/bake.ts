import { countTriangles, isGlass, triangleSoup, type SceneModel, type ScenePart } from '../../format/index.ts';
import { AnyHitTree } from './any-hit-tree.ts';
import { daylight, type Daylight } from './daylight.ts';
import { evenOut, samePlaces, towardsCentres } from './even-out.ts';
import { findLamps, type Lamp } from './lamps.ts';
import { withBacks } from './sheets.ts';
import { subdivide, subdividedCount } from './subdivide.ts';

/** An afternoon in the south-west, 34° high: unit vector towards the sun. */
export const AFTERNOON: readonly [number, number, number] = [-0.53, 0.559, 0.638];

/** Directions over the hemisphere for the sky, and for what is near; fewer where a model has very many vertices. */
const SKY_RAYS = 28;
const FEWEST_SKY_RAYS = 8;
const NEAR = 1.1;
/** Rays start this far off their surface, metres. */
const LIFT = 0.012;
const SUN_RAYS = 5;
const LAMP_REACH = 7;
/** Sky rays of a whole bake, at most about this many. */
const RAY_BUDGET = 2_800_000;
/** A finer mesh than this is not worth its drawing time, unless the model came with more. */
const MOST_TRIANGLES = 120_000;
/** A model of more triangles is fine enough as it came. */
const FINE_ENOUGH = 300_000;
/** Edges wanted, from fine to coarse; the first that fits the budget is taken. */
const EDGES = [0.7, 1, 1.5, 2.5, 4, 8];
/** Numbers that are gathered for a vertex: ambient red, green, blue, and sun. */
export const LIGHT_CHANNELS = 4;

/**
 * Bakes light into vertices: sky through windows, sun, lamps, and the darkness of corners, so that a plain unlit
 * material looks like a lit model and the working view is cheap. Several workers can share one bake: each makes the
 * same `LightBake` and gathers other vertices; one of them finishes.
 */
export class LightBake {
  /** Vertices to gather, all parts in a row. */
  readonly count: number;
  private readonly parts: { fine: ScenePart; seeThrough: boolean; first: Uint32Array; inward: Float32Array }[];
  private readonly gatherer: Gatherer;
  private readonly model: SceneModel;

  /** @param sun unit vector towards the sun */
  constructor(given: SceneModel, sun: readonly [number, number, number] = AFTERNOON) {
    const fineEnough = countTriangles(given) > FINE_ENOUGH;
    const model = fineEnough ? given : withBacks(given);
    this.model = model;
    const { soup, seeThrough } = triangleSoup(model);
    const solid: number[] = [];
    for (let i = 0; i < seeThrough.length; i += 1) if (!seeThrough[i]) solid.push(i);
    const blockers = new Float32Array(solid.length * 9);
    solid.forEach((triangle, k) => blockers.set(soup.subarray(triangle * 9, triangle * 9 + 9), k * 9));
    const budget = Math.max(MOST_TRIANGLES, countTriangles(model) * 1.5);
    const edge =
      EDGES.find((e) => model.parts.reduce((sum, part) => sum + subdividedCount(part, e), 0) <= budget) ??
      EDGES.at(-1)!;
    this.parts = model.parts.map((part) => {
      const fine = fineEnough ? part : subdivide(part, edge);
      // Glass is as bright as what is behind it; what is cut out of a picture is lit as any surface.
      const clear = isGlass(model.materials[part.material]!);
      return { fine, seeThrough: clear, first: samePlaces(fine), inward: towardsCentres(fine) };
    });
    this.count = this.parts.reduce((sum, { fine }) => sum + fine.positions.length / 3, 0);
    const rays = Math.round(Math.min(SKY_RAYS, Math.max(FEWEST_SKY_RAYS, RAY_BUDGET / Math.max(1, this.count))));
    this.gatherer = new Gatherer(new AnyHitTree(blockers), findLamps(model), sun, rays);
  }

  /** Light of the vertices from…to − 1: {@link LIGHT_CHANNELS} numbers each. Vertices at the same place are left empty. */
  gather(from: number, to: number): Float32Array<ArrayBuffer> {
    const out = new Float32Array((to - from) * LIGHT_CHANNELS);
    let start = 0;
    for (const { fine, seeThrough, first, inward } of this.parts) {
      const size = fine.positions.length / 3;
      const last = Math.min(size, to - start);
      for (let v = Math.max(0, from - start); v < last; v += 1) {
        if (first[v] !== v) continue;
        const o = (start + v - from) * LIGHT_CHANNELS;
        if (seeThrough) out.fill(1, o, o + 3);
        else this.gatherer.vertex(fine, inward, v, out, o);
      }
      start += size;
    }
    return out;
  }

  /** The model on finer triangles, every part with its `light`; `raw` is what `gather` gave for all vertices. */
  finish(raw: Float32Array): SceneModel {
    let start = 0;
    const parts = this.parts.map(({ fine, seeThrough, first }) => {
      const size = fine.positions.length / 3;
      const light = raw.slice(start * LIGHT_CHANNELS, (start + size) * LIGHT_CHANNELS);
      start += size;
      for (let v = 0; v < size; v += 1)
        if (first[v] !== v)
          light.copyWithin(v * LIGHT_CHANNELS, first[v]! * LIGHT_CHANNELS, (first[v]! + 1) * LIGHT_CHANNELS);
      const even = seeThrough ? light : evenOut(fine, light, first);
      const ambient = new Float32Array(size * 3);
      const sun = new Float32Array(size);
      for (let v = 0; v < size; v += 1) {
        ambient.set(even.subarray(v * LIGHT_CHANNELS, v * LIGHT_CHANNELS + 3), 3 * v);
        sun[v] = even[v * LIGHT_CHANNELS + 3]!;
      }
      return { ...fine, light: { ambient, sun } };
    });
    return { ...this.model, parts };
  }
}

/** The whole bake in one go. `onProgress` is told 0…1. */
export function bakeLight(
  model: SceneModel,
  sun: readonly [number, number, number] = AFTERNOON,
  onProgress: (part: number) => void = () => {},
): SceneModel {
  const bake = new LightBake(model, sun);
  const raw = new Float32Array(bake.count * LIGHT_CHANNELS);
  const step = 2000;
  for (let from = 0; from < bake.count; from += step) {
    const to = Math.min(bake.count, from + step);
    raw.set(bake.gather(from, to), from * LIGHT_CHANNELS);
    onProgress(to / bake.count);
  }
  return bake.finish(raw);
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

/** Shoots the rays of one vertex at a time. */
class Gatherer {
  private readonly sky: Float64Array;
  private readonly near: Float64Array;
  private readonly day: Daylight;
  /** Tangent frame of the vertex at hand: tangent, bitangent. */
  private readonly frame = new Float64Array(6);
  private readonly sum = new Float64Array(3);

  constructor(
    private readonly tree: AnyHitTree,
    private readonly lamps: readonly Lamp[],
    private readonly sun: readonly [number, number, number],
    private readonly skyRays: number,
  ) {
    this.sky = hemisphere(skyRays);
    this.near = hemisphere(Math.max(4, Math.round(skyRays * 0.36)));
    this.day = daylight(sun);
  }

  /** Writes what a white surface at vertex v would send out (three numbers) and the sun that falls there (one). */
  vertex(part: ScenePart, inward: Float32Array, v: number, out: Float32Array, at: number): void {
    const o = 3 * v;
    const [nx, ny, nz] = [part.normals[o]!, part.normals[o + 1]!, part.normals[o + 2]!];
    // On the back of a rounded shape the way to its faces leads under them: only the level part of it is gone.
    const under = Math.min(0, inward[o]! * nx + inward[o + 1]! * ny + inward[o + 2]! * nz) - LIFT;
    const x = part.positions[o]! + inward[o]! - nx * under;
    const y = part.positions[o + 1]! + inward[o + 1]! - ny * under;
    const z = part.positions[o + 2]! + inward[o + 2]! - nz * under;
    this.setFrame(nx, ny, nz, (v * 0.618033988749895) % 1);
    this.gatherAmbient(x, y, z, nx, ny, nz);
    for (const lamp of this.lamps) this.addLamp(lamp, x, y, z, nx, ny, nz);
    out.set(this.sum, at);
    out[at + 3] = this.sunAt(x, y, z, nx, ny, nz);
  }

  private gatherAmbient(x: number, y: number, z: number, nx: number, ny: number, nz: number): void {
    const { frame, sum, tree, day, skyRays } = this;
    sum.fill(0);
    const dir = (set: Float64Array, i: number, axis: number) =>
      set[3 * i]! * frame[axis]! +
      set[3 * i + 1]! * (axis === 0 ? nx : axis === 1 ? ny : nz) +
      set[3 * i + 2]! * frame[3 + axis]!;
    let open = 0;
    for (let i = 0; i < skyRays; i += 1) {
      const [dx, dy, dz] = [dir(this.sky, i, 0), dir(this.sky, i, 1), dir(this.sky, i, 2)];
      if (tree.hits(x, y, z, dx, dy, dz, Infinity)) continue;
      open += 1;
      const up = Math.max(0, dy) ** 0.6;
      for (let k = 0; k < 3; k += 1)
        sum[k]! += (dy < 0 ? day.ground[k]! : day.horizon[k]! + (day.zenith[k]! - day.horizon[k]!) * up) / skyRays;
    }
    let clear = 0;
    const nearRays = this.near.length / 3;
    for (let i = 0; i < nearRays; i += 1)
      if (!tree.hits(x, y, z, dir(this.near, i, 0), dir(this.near, i, 1), dir(this.near, i, 2), NEAR)) clear += 1;
    const corner = 0.35 + (0.65 * clear) / nearRays;
    const closed = 1 - open / skyRays;
    // Ceilings get what the floor throws back, floors what comes down: a little less from the sides.
    const facing = 0.86 + 0.14 * Math.abs(ny);
    for (let k = 0; k < 3; k += 1) sum[k]! += day.room[k]! * closed * corner * facing;
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
      const r = i === 0 ? 0 : 0.16;
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

  /** Duff et al. 2017, "Building an orthonormal basis, revisited", turned by a part of a full turn. */
  private setFrame(nx: number, ny: number, nz: number, turn: number): void {
    const sign = nz >= 0 ? 1 : -1;
    const a = -1 / (sign + nz);
    const b = nx * ny * a;
    const [tx, ty, tz] = [1 + sign * nx * nx * a, sign * b, -sign * nx];
    const [ux, uy, uz] = [b, sign + ny * ny * a, -ny];
    const [c, s] = [Math.cos(2 * Math.PI * turn), Math.sin(2 * Math.PI * turn)];
    this.frame.set([
      tx * c + ux * s,
      ty * c + uy * s,
      tz * c + uz * s,
      ux * c - tx * s,
      uy * c - ty * s,
      uz * c - tz * s,
    ]);
  }
}
