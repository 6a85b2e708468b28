import type { Bounds, SiteLight } from '@eskovan/core/document';
import { countTriangles, seesThrough, type SceneModel, type ScenePart } from '@eskovan/core/format';
import { boundsOf, joinBounds } from '@eskovan/core/geometry';
import { isLandscape } from '@eskovan/core/survey';
import {
  DataTexture,
  DoubleSide,
  LinearFilter,
  Mesh,
  MeshBasicMaterial,
  PlaneGeometry,
  RedFormat,
  type Matrix4,
} from 'three';

/** Points of the shadow's side. */
const SIDE = 256;
/** So many triangles cast a shadow; of more, evenly chosen ones do, each for its neighbours. */
const MOST_TRIANGLES = 250_000;
/** The shadow of a larger model stays where it was at the beginning, whatever moves. */
const MOST_FOLLOWED = 60_000;
/** How dark the shadow is in its middle. */
const DARKNESS = 0.42;
/** And so much of that where only the sky casts it. */
const WITHOUT_SUN = 0.6;
/** The sun is taken as no lower than this, so that shadows stay near what casts them (sine of its height). */
const LOWEST_SUN = 0.35;

/** Where the shadow of a model falls on level ground: numbers 0…1, row by row, and where they lie in plan, metres. */
export interface ShadowCast {
  values: Uint8Array;
  x0: number;
  z0: number;
  size: number;
  y: number;
}

/** Where a part is: what takes it there from where it rests, or null. */
export type PlaceOf = (part: ScenePart) => Matrix4 | null;

/**
 * The shadow that a model without ground of its own casts on a level ground at its lowest point, softly.
 * @param sun unit vector towards the sun
 * @param moved what of it moves, and where that is now; it has room to turn
 * @returns null for a model that brings its ground along
 */
export function castShadow(
  model: SceneModel,
  sun: readonly [number, number, number],
  moved: PlaceOf | null = null,
  side = SIDE,
): ShadowCast | null {
  if (model.parts.length === 0 || model.parts.some(isLandscape)) return null;
  const { min, max } = withRoom(joinBounds(model.parts.map(({ positions }) => boundsOf(positions)))!, moved !== null);
  const height = max[1]! - min[1]!;
  const up = Math.max(LOWEST_SUN, sun[1]);
  const flat = Math.hypot(sun[0], sun[2]) || 1;
  // Away from the sun, by so much per metre of height.
  const lean = Math.min(1.6, Math.sqrt(Math.max(0, 1 - up * up)) / up);
  const [dx, dz] = [(-sun[0] / flat) * lean, (-sun[2] / flat) * lean];
  const reach = [
    Math.min(0, dx * height),
    Math.max(0, dx * height),
    Math.min(0, dz * height),
    Math.max(0, dz * height),
  ];
  const wide = Math.max(max[0]! - min[0]! + reach[1]! - reach[0]!, max[2]! - min[2]! + reach[3]! - reach[2]!);
  const size = 1.5 * wide;
  const [x0, z0] = [
    (min[0]! + reach[0]! + max[0]! + reach[1]!) / 2 - size / 2,
    (min[2]! + reach[2]! + max[2]! + reach[3]!) / 2 - size / 2,
  ];
  const grid = new Float32Array(side * side);
  const scale = side / size;
  const total = model.parts.reduce((sum, { indices }) => sum + indices.length / 3, 0);
  const every = Math.ceil(total / MOST_TRIANGLES);
  for (const part of model.parts) {
    if (seesThrough(model.materials[part.material]!)) continue;
    const { indices } = part;
    const place = moved?.(part);
    const p = place ? movedBy(part.positions, place) : part.positions;
    for (let t = 0; t < indices.length; t += 3 * every) {
      const at = (k: number, axis: 0 | 2) => {
        const v = 3 * indices[t + k]!;
        const above = p[v + 1]! - min[1]!;
        return axis === 0 ? (p[v]! + dx * above - x0) * scale : (p[v + 2]! + dz * above - z0) * scale;
      };
      fill(grid, side, [at(0, 0), at(1, 0), at(2, 0)], [at(0, 2), at(1, 2), at(2, 2)]);
    }
  }
  const soft = blur(blur(grid, side, Math.round(side / 64)), side, Math.round(side / 64));
  return { values: Uint8Array.from(soft, (value) => Math.round(255 * Math.min(1, value))), x0, z0, size, y: min[1]! };
}

/** What turns about its middle needs room for its corners. */
function withRoom({ min, max }: Bounds, turns: boolean): Bounds {
  if (!turns) return { min, max };
  const [x, z] = [(min[0] + max[0]) / 2, (min[2] + max[2]) / 2];
  const reach = Math.hypot(max[0] - min[0], max[2] - min[2]) / 2;
  return { min: [x - reach, min[1], z - reach], max: [x + reach, max[1], z + reach] };
}

function movedBy(positions: Float32Array, { elements: m }: Matrix4): Float32Array {
  const out = new Float32Array(positions.length);
  for (let o = 0; o < positions.length; o += 3) {
    const [x, y, z] = [positions[o]!, positions[o + 1]!, positions[o + 2]!];
    for (let k = 0; k < 3; k += 1) out[o + k] = m[k]! * x + m[4 + k]! * y + m[8 + k]! * z + m[12 + k]!;
  }
  return out;
}

type Three = readonly [number, number, number];

/** Fills a triangle of the grid; one that is smaller than a point fills the point it is in. */
function fill(grid: Float32Array, side: number, xs: Three, zs: Three): void {
  // What has gone elsewhere casts its shadow elsewhere.
  if (Math.min(...xs) > side || Math.max(...xs) < 0 || Math.min(...zs) > side || Math.max(...zs) < 0) return;
  const clamp = (value: number) => Math.min(side - 1, Math.max(0, Math.floor(value)));
  const [c0, c1] = [clamp(Math.min(...xs)), clamp(Math.max(...xs))];
  const [r0, r1] = [clamp(Math.min(...zs)), clamp(Math.max(...zs))];
  const edge = (i: 0 | 1 | 2, j: 0 | 1 | 2, x: number, z: number) =>
    (xs[j] - xs[i]) * (z - zs[i]) - (zs[j] - zs[i]) * (x - xs[i]);
  const small = c1 - c0 < 2 && r1 - r0 < 2;
  for (let r = r0; r <= r1; r += 1)
    for (let c = c0; c <= c1; c += 1) {
      const [x, z] = [c + 0.5, r + 0.5];
      const [a, b, d] = [edge(0, 1, x, z), edge(1, 2, x, z), edge(2, 0, x, z)];
      if (small || (a >= 0 && b >= 0 && d >= 0) || (a <= 0 && b <= 0 && d <= 0)) grid[r * side + c] = 1;
    }
}

/** A running mean of ± reach points along rows, then along columns. */
function blur(grid: Float32Array, side: number, reach: number): Float32Array {
  const along = (from: Float32Array, step: number, next: number) => {
    const out = new Float32Array(from.length);
    for (let line = 0; line < side; line += 1) {
      let sum = 0;
      for (let i = -reach; i < side + reach; i += 1) {
        if (i + reach < side) sum += from[line * next + (i + reach) * step]!;
        if (i - reach - 1 >= 0) sum -= from[line * next + (i - reach - 1) * step]!;
        if (i >= 0 && i < side) out[line * next + i * step] = sum / (2 * reach + 1);
      }
    }
    return out;
  };
  return along(along(grid, 1, side), side, 1);
}

/** The shadow as something to draw, a hair under the model, that follows what moves. Without a sun it lies below. */
export class GroundShadow {
  /** The groups whose places the shadow was cast with. */
  private at = '';

  private constructor(
    readonly mesh: Mesh,
    private readonly map: DataTexture,
    private readonly model: SceneModel,
    private readonly sun: readonly [number, number, number],
    /** The groups of the parts that it follows; null where it stays. */
    private readonly groups: ReadonlyMap<ScenePart, number> | null,
  ) {}

  /**
   * Null where there is none.
   * @param groupOf the group of a part that is lit where it moves to; −1 for others
   */
  static of(
    model: SceneModel,
    { sun, sky }: Pick<SiteLight, 'sun' | 'sky'>,
    groupOf: (part: ScenePart) => number = () => -1,
  ): GroundShadow | null {
    const shines = sky === 'clear' && sun[1] > 0;
    const from = shines ? sun : ([0, 1, 0] as const);
    const groups = new Map(model.parts.map((part) => [part, groupOf(part)] as const).filter(([, group]) => group >= 0));
    const cast = castShadow(model, from, groups.size > 0 ? () => null : null);
    if (!cast) return null;
    const map = new DataTexture(cast.values as Uint8Array<ArrayBuffer>, SIDE, SIDE, RedFormat);
    map.minFilter = LinearFilter;
    map.magFilter = LinearFilter;
    map.needsUpdate = true;
    const follows = groups.size > 0 && countTriangles(model) <= MOST_FOLLOWED;
    return new GroundShadow(makeMesh(cast, map, shines), map, model, from, follows ? groups : null);
  }

  /** Casts it anew where something has moved. @param placeOf where a group is */
  follow(placeOf: (group: number) => Matrix4): void {
    const { groups } = this;
    if (!groups) return;
    const at = [...new Set(groups.values())].map((group) => placeOf(group).elements.join()).join(';');
    if (at === this.at) return;
    this.at = at;
    const cast = castShadow(this.model, this.sun, (part) => {
      const group = groups.get(part);
      return group === undefined ? null : placeOf(group);
    });
    (this.map.image.data as Uint8Array).set(cast!.values);
    this.map.needsUpdate = true;
  }

  dispose(): void {
    this.map.dispose();
    (this.mesh.material as MeshBasicMaterial).dispose();
    this.mesh.geometry.dispose();
  }
}

function makeMesh(cast: ShadowCast, alphaMap: DataTexture, shines: boolean): Mesh {
  const geometry = new PlaneGeometry(1, 1);
  // Turned to lie with its first row in the north, as the grid is.
  geometry.rotateX(Math.PI / 2);
  const material = new MeshBasicMaterial({
    color: 0x1d2126,
    alphaMap,
    transparent: true,
    opacity: shines ? DARKNESS : WITHOUT_SUN * DARKNESS,
    depthWrite: false,
    fog: false,
    side: DoubleSide,
  });
  material.onBeforeCompile = (shader) => {
    // One channel is all there is.
    shader.fragmentShader = shader.fragmentShader.replace(
      '#include <alphamap_fragment>',
      'diffuseColor.a *= texture2D(alphaMap, vAlphaMapUv).r;',
    );
  };
  const mesh = new Mesh(geometry, material);
  mesh.scale.set(cast.size, 1, cast.size);
  mesh.position.set(cast.x0 + cast.size / 2, cast.y - 0.0005 * cast.size, cast.z0 + cast.size / 2);
  mesh.renderOrder = -0.5;
  return mesh;
}
