import type { SceneMaterial, ScenePart } from '@eskovan/core/format';
import { BufferAttribute, DataUtils, Float16BufferAttribute, type BufferGeometry } from 'three';
import { GLOW_SHOWN } from './glow.ts';
import { bytes, halves, shorts } from './growing.ts';
import { GrowingShares, type LampShares } from './lamp-shares.ts';
import { mirrorPart } from './metal.ts';

/** Colours are kept as their square roots: a byte is enough for what is dark, too. */
const root = (value: number) => Math.round(255 * Math.sqrt(Math.min(1, Math.max(0, value))));

/**
 * What a finished picture needs of every vertex besides its place: what it sends out without the sun, and the sun's baked
 * share (half floats: an exposure may bring out the darkest), its colour and metalness, where it faces and its roughness.
 */
export class FinishData {
  private readonly ambient;
  private readonly base;
  /** Sixteen bits: what is mirrored turns by twice what a normal is off. */
  private readonly facing;
  private readonly lamps: GrowingShares | null;

  /**
   * @param dimmers groups of lamps that can be dimmed
   * @param vertices that there will be, at most, where that is known
   */
  constructor(dimmers = 0, vertices?: number) {
    const room = vertices && 4 * vertices;
    this.ambient = halves(room);
    this.base = bytes(room);
    this.facing = shorts(room);
    this.lamps = dimmers > 0 ? new GrowingShares(dimmers) : null;
  }

  /** @param dimmer that the part obeys; −1 for none */
  add(part: ScenePart, material: SceneMaterial, v: number, dimmer = -1): void {
    const light = part.light!;
    const at = this.ambient.take(4);
    this.base.take(4);
    this.facing.take(4);
    const metalness = mirrorPart(material);
    const [ambient, base, facing] = [this.ambient.array, this.base.array, this.facing.array];
    const own = (k: number) => material.color[k]! * (part.colors?.[3 * v + k] ?? 1);
    // What shines by a picture is added where the picture is drawn.
    const glow = (k: number) =>
      material.emissiveTexture === undefined ? GLOW_SHOWN * Math.min(100, material.emissive[k]!) : 0;
    // A metal sends nothing out by itself: all that is seen of it is mirrored.
    const sends = (falls: Float32Array, k: number) => own(k) * (1 - metalness) * falls[3 * v + k]!;
    for (let k = 0; k < 3; k += 1) {
      ambient[at + k] = DataUtils.toHalfFloat(sends(light.ambient, k) + glow(k));
      // Without a colour of its own neither the sun nor what is mirrored is seen on it.
      base[at + k] = material.unlit ? 0 : root(own(k));
      facing[at + k] = Math.round(32_767 * part.normals[3 * v + k]!);
    }
    ambient[at + 3] = DataUtils.toHalfFloat(Math.min(1, light.sun[v]!));
    base[at + 3] = Math.round(255 * metalness);
    facing[at + 3] = Math.round(32_767 * material.roughness);
    this.lamps?.add(
      at / 4,
      (k) => sends(light.ambient, k) + glow(k),
      (of, k) => (light.shares?.[of] ? sends(light.shares[of], k) : 0) + (of === dimmer ? glow(k) : 0),
    );
  }

  /** What of `ambient` lamps give that can be dimmed. */
  shares(): LampShares | null {
    return this.lamps?.done() ?? null;
  }

  addTo(geometry: BufferGeometry): void {
    geometry.setAttribute('ambient', new Float16BufferAttribute(this.ambient.done(), 4));
    geometry.setAttribute('base', new BufferAttribute(this.base.done(), 4, true));
    geometry.setAttribute('facing', new BufferAttribute(this.facing.done(), 4, true));
  }
}
