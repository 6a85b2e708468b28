import type { SceneTexture } from '@eskovan/core/format';
import { CanvasTexture, RepeatWrapping, type Texture } from 'three';

/** The largest side that a texture keeps, pixels: in the working view, and in finished pictures. */
const TEXTURE_SIDE = { working: 1024, finished: 4096 } as const;

export async function decodeTexture(texture: SceneTexture, use: keyof typeof TEXTURE_SIDE): Promise<Texture | null> {
  try {
    const blob = new Blob([texture.bytes as Uint8Array<ArrayBuffer>], { type: texture.mediaType });
    const full = await createImageBitmap(blob);
    const scale = Math.min(1, TEXTURE_SIDE[use] / Math.max(full.width, full.height));
    const canvas = new OffscreenCanvas(
      Math.max(1, Math.round(full.width * scale)),
      Math.max(1, Math.round(full.height * scale)),
    );
    canvas.getContext('2d')!.drawImage(full, 0, 0, canvas.width, canvas.height);
    full.close();
    const made = new CanvasTexture(canvas);
    made.flipY = false;
    made.wrapS = RepeatWrapping;
    made.wrapT = RepeatWrapping;
    return made;
  } catch {
    // A picture inside the model that cannot be decoded leaves its surface plain; the model stays usable.
    return null;
  }
}
