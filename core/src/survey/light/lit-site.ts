import type { SiteLight } from '../../document/index.ts';
import type { SceneModel } from '../../format/index.ts';
import { daylight, type Daylight } from './daylight.ts';
import { addSky } from './gather.ts';
import { LightMesh } from './light-mesh.ts';
import { RayTree, type RayHit, type RayTreeOptions } from './ray-tree.ts';

/** A site that has been lit, as rays see it: the sky, and what its surfaces send out by the light that was baked. */
export class LitSite {
  readonly mesh: LightMesh;
  readonly tree: RayTree;
  /** Baked light of all vertices in a row, without the sun: red, green, blue. */
  readonly ambient: Float32Array;
  private readonly day: Daylight;
  /** What each triangle sends out: red, green, blue. */
  private readonly sent: Float32Array;
  private readonly hit: RayHit = { triangle: -1, distance: 0, back: false };

  /**
   * @param lit with its baked light, as `LightBake.finish` gave it
   * @param options of the tree that rays go through
   */
  constructor(lit: SceneModel, light: SiteLight, options?: (mesh: LightMesh) => RayTreeOptions) {
    this.mesh = new LightMesh(lit, [light], 'not');
    this.tree = new RayTree(this.mesh.soup, options?.(this.mesh));
    this.day = daylight(light);
    const { count, parts } = this.mesh;
    this.ambient = new Float32Array(3 * count);
    const sun = new Float32Array(count);
    for (const { fine, start } of parts) {
      if (!fine.light) continue;
      this.ambient.set(fine.light.ambient, 3 * start);
      sun.set(fine.light.sun, start);
    }
    this.sent = sentBy(this.mesh, this.ambient, sun, this.day);
  }

  /**
   * Adds what comes along a ray, against its direction, to three numbers.
   * @returns false where it meets the back of something: it is no ray that counts
   */
  addSeen(x: number, y: number, z: number, dx: number, dy: number, dz: number, to: Float64Array): boolean {
    const { hit } = this;
    return this.add(this.tree.closest(x, y, z, dx, dy, dz, hit) ? hit : null, dy, to);
  }

  /**
   * Adds a part of what comes from something that a ray met, or from the sky, to three numbers.
   * @param hit null for the sky
   * @param dy sine of the height that the ray goes to
   * @returns false where it meets the back of something
   */
  add(hit: RayHit | null, dy: number, to: Float64Array, weight = 1): boolean {
    const { mesh, sent } = this;
    if (!hit) addSky(this.day, dy, to, 0, weight);
    else if (hit.back && !mesh.twoSided[hit.triangle]) return false;
    else for (let k = 0; k < 3; k += 1) to[k]! += weight * sent[3 * hit.triangle + k]!;
    return true;
  }
}

function sentBy(
  { vertices, albedo, glows: [glow] }: LightMesh,
  ambient: Float32Array,
  sun: Float32Array,
  day: Pick<Daylight, 'sun'>,
): Float32Array {
  const sent = new Float32Array(albedo.length);
  for (let t = 0; t < albedo.length / 3; t += 1)
    for (let k = 0; k < 3; k += 1) {
      let falls = 0;
      for (let c = 0; c < 3; c += 1) {
        const v = vertices[3 * t + c]!;
        falls += ambient[3 * v + k]! + sun[v]! * day.sun[k]!;
      }
      sent[3 * t + k] = glow![3 * t + k]! + (albedo[3 * t + k]! * falls) / 3;
    }
  return sent;
}
