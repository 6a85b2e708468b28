import type { SceneModel, ScenePart } from '@eskovan/core/format';
import { alphaOf, type AlphaMap } from './textures.ts';

/** Where parts are cut out of pictures: a press between the leaves of a tree means what is behind it. */
export class Holes {
  private constructor(
    /** By number of the material. */
    private readonly maps: ReadonlyMap<number, AlphaMap & { cutOut: number }>,
  ) {}

  /** @param read how a picture's alpha is found */
  static async of({ materials, textures }: Pick<SceneModel, 'materials' | 'textures'>, read = alphaOf): Promise<Holes> {
    const maps = new Map<number, AlphaMap & { cutOut: number }>();
    await Promise.all(
      materials.map(async ({ cutOut, texture, maskTexture }, number) => {
        if (cutOut === undefined) return;
        const picture = (of: number | null | undefined) => (of === null || of === undefined ? null : textures[of]!);
        const map = await read(picture(texture), picture(maskTexture));
        if (map) maps.set(number, { ...map, cutOut });
      }),
    );
    return new Holes(maps);
  }

  /** Is anything of a part at a place of its texture? Textures repeat. */
  isThere(part: ScenePart, s: number, t: number): boolean {
    const map = this.maps.get(part.material);
    if (!map) return true;
    const pixel = (value: number, count: number) =>
      Math.min(count - 1, Math.floor((value - Math.floor(value)) * count));
    return map.alpha[pixel(t, map.height) * map.width + pixel(s, map.width)]! >= 255 * map.cutOut;
  }
}
