import type { SceneTexture } from '@eskovan/core/format';
import {
  CanvasTexture,
  DataTexture,
  LinearFilter,
  LinearMipmapLinearFilter,
  RepeatWrapping,
  RGBAFormat,
  type Texture,
} from 'three';
import { spreadColours } from './spread-colours.ts';

/** The largest side that a texture keeps, pixels: in the working view, and in finished pictures. */
const TEXTURE_SIDE = { working: 1024, finished: 4096 } as const;
export type TextureUse = keyof typeof TEXTURE_SIDE;

/**
 * A picture ready to be drawn; with a mask its alpha is the mask's, or its brightness where that is opaque. A mask alone is
 * white where it is not cut out. Null for a picture that cannot be decoded: its surface stays plain, the model usable.
 */
export async function decodeTexture(
  cover: SceneTexture | null,
  mask: SceneTexture | null,
  use: TextureUse,
): Promise<Texture | null> {
  const canvas = await drawn(cover, mask, use);
  if (!canvas) return null;
  try {
    const whole = cover?.mediaType === 'image/jpeg' && !mask;
    const made = whole ? new CanvasTexture(canvas) : solidTexture(canvas);
    made.flipY = false;
    // Floors and ground are seen at a low angle: finished pictures keep them sharp there.
    made.anisotropy = use === 'finished' ? 4 : 1;
    made.wrapS = RepeatWrapping;
    made.wrapT = RepeatWrapping;
    return made;
  } catch {
    return null;
  }
}

/** A picture with its mask worked in; null where it cannot be decoded. */
async function drawn(
  cover: SceneTexture | null,
  mask: SceneTexture | null,
  use: TextureUse,
): Promise<OffscreenCanvas | null> {
  const first = cover ?? mask;
  if (!first) return null;
  try {
    const canvas = await canvasOf(first, use);
    if (mask) cutOut(canvas, cover === null, await canvasOf(mask, use, canvas));
    return canvas;
  } catch {
    return null;
  }
}

/** What is cut out has no colour in a canvas: it is given one, beside it, or what is there has dark edges. */
function solidTexture(canvas: OffscreenCanvas): Texture {
  const { width, height } = canvas;
  const { data } = canvas.getContext('2d')!.getImageData(0, 0, width, height);
  if (!hasHoles(data)) return new CanvasTexture(canvas);
  spreadColours(data, width);
  const made = new DataTexture(new Uint8Array(data.buffer), width, height, RGBAFormat);
  made.generateMipmaps = true;
  made.minFilter = LinearMipmapLinearFilter;
  made.magFilter = LinearFilter;
  made.needsUpdate = true;
  return made;
}

function hasHoles(pixels: Uint8ClampedArray): boolean {
  for (let i = 3; i < pixels.length; i += 4) if (pixels[i]! < 255) return true;
  return false;
}

/** Alpha of a picture, one byte a pixel, row by row from its top. */
export interface AlphaMap {
  width: number;
  height: number;
  alpha: Uint8Array;
}

/** What is cut out of a picture; null for one that cannot be decoded. */
export async function alphaOf(cover: SceneTexture | null, mask: SceneTexture | null): Promise<AlphaMap | null> {
  const canvas = await drawn(cover, mask, 'working');
  if (!canvas) return null;
  const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
  return {
    width: canvas.width,
    height: canvas.height,
    alpha: Uint8Array.from({ length: data.length / 4 }, (_, i) => data[4 * i + 3]!),
  };
}

async function canvasOf(
  { bytes, mediaType }: SceneTexture,
  use: TextureUse,
  like?: OffscreenCanvas,
): Promise<OffscreenCanvas> {
  const full = await createImageBitmap(new Blob([bytes as Uint8Array<ArrayBuffer>], { type: mediaType }));
  const scale = Math.min(1, TEXTURE_SIDE[use] / Math.max(full.width, full.height));
  const canvas = new OffscreenCanvas(
    like?.width ?? Math.max(1, Math.round(full.width * scale)),
    like?.height ?? Math.max(1, Math.round(full.height * scale)),
  );
  canvas.getContext('2d')!.drawImage(full, 0, 0, canvas.width, canvas.height);
  full.close();
  return canvas;
}

/** Works a mask of the same size into the alpha of a picture. */
function cutOut(canvas: OffscreenCanvas, white: boolean, mask: OffscreenCanvas): void {
  const context = canvas.getContext('2d')!;
  const picture = context.getImageData(0, 0, canvas.width, canvas.height);
  const { data } = mask.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
  let opaque = true;
  for (let i = 3; i < data.length && opaque; i += 4) opaque = data[i]! > 250;
  for (let i = 0; i < data.length; i += 4) {
    if (white) picture.data.fill(255, i, i + 3);
    picture.data[i + 3] = opaque ? (data[i]! + data[i + 1]! + data[i + 2]!) / 3 : data[i + 3]!;
  }
  context.putImageData(picture, 0, 0);
}
