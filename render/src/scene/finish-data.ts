import type { SceneMaterial, ScenePart } from '@eskovan/core/format';
import type { Daylight } from '@eskovan/core/survey';
import { BufferAttribute, DataUtils, Float16BufferAttribute, type BufferGeometry } from 'three';
import { bytes, halves } from './growing.ts';
import { sheen } from './sheen.ts';

/** What the sun adds is kept as the square root of a part of this: a byte is enough for what only bright pictures show. */
export const MOST_SUN = 4;

const root = (value: number, most: number) => Math.round(255 * Math.sqrt(Math.min(1, Math.max(0, value) / most)));

/**
 * What a finished picture needs of every vertex besides its place: light without the sun, what the sun would add, its
 * baked share (half floats: an exposure may bring out the darkest), and where the surface faces.
 */
export class FinishData {
  private readonly ambient = halves();
  private readonly sunlit = bytes();
  private readonly facing = bytes();

  add(part: ScenePart, material: SceneMaterial, day: Daylight, v: number): void {
    const light = part.light!;
    const at = this.ambient.take(4);
    this.sunlit.take(4);
    this.facing.take(4);
    const [ambient, sunlit, facing] = [this.ambient.array, this.sunlit.array, this.facing.array];
    const metal = sheen(material.metalness, part.normals, v);
    for (let k = 0; k < 3; k += 1) {
      const base = (material.texture === null ? material.color[k]! : 1) * (part.colors?.[3 * v + k] ?? 1);
      ambient[at + k] = DataUtils.toHalfFloat(
        base * metal * light.ambient[3 * v + k]! + 1.6 * Math.min(100, material.emissive[k]!),
      );
      sunlit[at + k] = root(base * day.sun[k]!, MOST_SUN);
      facing[at + k] = Math.round(127.5 + 127.5 * part.normals[3 * v + k]!);
    }
    ambient[at + 3] = DataUtils.toHalfFloat(Math.min(1, light.sun[v]!));
    sunlit[at + 3] = Math.round(255 * material.metalness);
    facing[at + 3] = 255;
  }

  addTo(geometry: BufferGeometry): void {
    geometry.setAttribute('ambient', new Float16BufferAttribute(this.ambient.done(), 4));
    geometry.setAttribute('sunlit', new BufferAttribute(this.sunlit.done(), 4, true));
    geometry.setAttribute('facing', new BufferAttribute(this.facing.done(), 4, true));
  }
}
