import type { CameraSample } from '@eskovan/core/move';
import type { PictureSize } from '../picture/picture-size.ts';
import type { PictureRenderer } from '../picture/renderer.ts';
import { noPixels, unbroken } from '../picture/unbroken.ts';

/** A finished picture as PNG (or another type that the platform encodes). */
export async function renderStill(
  renderer: PictureRenderer,
  sample: CameraSample,
  size: PictureSize,
  subframes: number,
  encoding: { type: string; quality?: number } = { type: 'image/png' },
): Promise<Blob> {
  const pixels = await unbroken(renderer, () => renderer.frame(() => sample, size, subframes), { isEmpty: noPixels });
  return encoded(pixels, size, encoding);
}

/**
 * The same beside what is shown by this renderer: whoever asks for that waits for one pass at most.
 * @returns null where it gave way to something else
 */
export async function renderStillAside(
  renderer: PictureRenderer,
  sample: CameraSample,
  size: PictureSize,
  subframes: number,
  encoding: { type: string; quality?: number },
): Promise<Blob | null> {
  const isEmpty = (made: Uint8Array | null) => made !== null && noPixels(made);
  const pixels = await unbroken(renderer, () => renderer.frameAside(sample, size, subframes), { isEmpty });
  return pixels && encoded(pixels, size, encoding);
}

function encoded(
  pixels: Uint8Array<ArrayBuffer>,
  { width, height }: PictureSize,
  encoding: { type: string; quality?: number },
): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d')!;
  context.putImageData(imageOf(pixels, { width, height }), 0, 0);
  return canvas.convertToBlob(encoding);
}

/** @param pixels RGBA, top row first */
export const imageOf = (pixels: Uint8Array<ArrayBuffer>, { width, height }: PictureSize): ImageData =>
  new ImageData(new Uint8ClampedArray(pixels.buffer), width, height);

/** A picture at another size, smaller than it is. */
export async function smaller(
  picture: Blob | ImageData,
  { width, height }: PictureSize,
  encoding: { type: string; quality?: number },
): Promise<Blob> {
  const bitmap = await createImageBitmap(picture, { resizeWidth: width, resizeHeight: height, resizeQuality: 'high' });
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
  bitmap.close();
  return canvas.convertToBlob(encoding);
}
