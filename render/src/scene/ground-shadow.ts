import type { SiteLight } from '@eskovan/core/document';
import { countTriangles, type SceneModel, type ScenePart } from '@eskovan/core/format';
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
import { castShadow, SIDE, type ShadowCast } from './cast-shadow.ts';

/** The shadow of a larger model stays where it was at the beginning, whatever moves. */
const MOST_FOLLOWED = 60_000;

/** The shadow as something to draw, a hair under the model, that follows what moves. Without a sun it lies below. */
export class GroundShadow {
  /** The groups whose places the shadow was cast with. */
  private at = '';

  private constructor(
    readonly mesh: Mesh,
    private readonly map: DataTexture,
    private readonly model: SceneModel,
    private readonly sun: readonly [number, number, number] | null,
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
    const from = sky === 'clear' && sun[1] > 0 ? sun : null;
    const groups = new Map(model.parts.map((part) => [part, groupOf(part)] as const).filter(([, group]) => group >= 0));
    const cast = castShadow(model, from, groups.size > 0 ? () => null : null);
    if (!cast) return null;
    const map = new DataTexture(cast.values as Uint8Array<ArrayBuffer>, SIDE, SIDE, RedFormat);
    map.minFilter = LinearFilter;
    map.magFilter = LinearFilter;
    map.needsUpdate = true;
    const follows = groups.size > 0 && countTriangles(model) <= MOST_FOLLOWED;
    return new GroundShadow(makeMesh(cast, map), map, model, from, follows ? groups : null);
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

function makeMesh(cast: ShadowCast, alphaMap: DataTexture): Mesh {
  const geometry = new PlaneGeometry(1, 1);
  // Turned to lie with its first row in the north, as the grid is.
  geometry.rotateX(Math.PI / 2);
  const material = new MeshBasicMaterial({
    color: 0x1d2126,
    alphaMap,
    transparent: true,
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
