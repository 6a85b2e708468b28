import type { Dimmer } from '@eskovan/core/action';
import type { BufferAttribute, Group, Material, Mesh } from 'three';
import { writeDimmed, type LampShares } from './lamp-shares.ts';

/** What shines by a picture in a material of a dimmer's own: a colour that it may change. */
export interface DimmedGlow {
  dimmer: number;
  /** While it gives everything. */
  whole: readonly [number, number, number];
  /** As it is now. */
  now: [number, number, number];
}

/** Shares of a mesh by the name of the attribute that they are of. */
export type MeshShares = Readonly<Record<string, LampShares | null>>;

/** The pieces of a scene that lamps light which can be dimmed. */
export class DimmedMeshes {
  private readonly pieces: { attribute: BufferAttribute; shares: LampShares }[] = [];
  private readonly glows: DimmedGlow[];
  private levels: number[];
  private changed = false;

  constructor(
    scene: Group,
    private dimmers: readonly Dimmer[],
  ) {
    const meshes = scene.children as Mesh[];
    for (const { geometry, userData } of meshes)
      for (const [name, shares] of Object.entries((userData['shares'] as MeshShares | undefined) ?? {}))
        if (shares) this.pieces.push({ attribute: geometry.getAttribute(name) as BufferAttribute, shares });
    const glows = meshes.map(({ material }) => (material as Material | undefined)?.userData['dimmed'] as DimmedGlow);
    this.glows = [...new Set(glows)].filter((glow) => glow !== undefined);
    this.levels = dimmers.map(() => 1);
  }

  /** The same lamps do something else. */
  use(dimmers: readonly Dimmer[]): void {
    this.dimmers = dimmers;
  }

  /** Has it become brighter or darker since this was asked last? */
  takeChange(): boolean {
    const { changed } = this;
    this.changed = false;
    return changed;
  }

  /**
   * @param time seconds into the move
   * @param relit what they light has other light than before
   */
  place(time: number, relit = false): void {
    const levels = this.dimmers.map(({ levelAt }) => levelAt(time));
    if (!relit && levels.every((level, i) => level === this.levels[i])) return;
    this.levels = levels;
    this.changed = true;
    for (const { attribute, shares } of this.pieces) {
      writeDimmed(shares, this.levels, attribute.array as Uint16Array);
      attribute.needsUpdate = true;
    }
    for (const { dimmer, whole, now } of this.glows)
      for (let k = 0; k < 3; k += 1) now[k] = whole[k]! * this.levels[dimmer]!;
  }
}
