import type { SceneTexture } from '@eskovan/core/format';
import type { Texture } from 'three';
import { decodeTexture, type TextureUse } from './textures.ts';

/** The pictures of a scene, each decoded once it is asked for; a mask is worked into the alpha of what it cuts out. */
export class Covers {
  private readonly made = new Map<string, Promise<Texture | null>>();

  constructor(
    private readonly textures: readonly SceneTexture[],
    private readonly use: TextureUse,
  ) {}

  /** @param name number of a picture and number of its mask, with a comma between them; either may be missing */
  of(name: string): Promise<Texture | null> {
    let texture = this.made.get(name);
    if (!texture) {
      const [cover, mask] = name.split(',').map((number) => (number ? this.textures[Number(number)] : undefined));
      texture = decodeTexture(cover ?? null, mask ?? null, this.use);
      this.made.set(name, texture);
    }
    return texture;
  }
}
