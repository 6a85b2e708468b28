import {
  compose,
  plainSample,
  unbroken,
  type Pen,
  type PictureSize,
  type ReelPicture,
  type SceneLayer,
} from '@eskovan/render';
import * as Comlink from 'comlink';
import type { PictureScene } from '../picture/source.ts';
import { loadCardFaces } from './card-faces.ts';
import { KeptImages } from './kept-images.ts';
import { SceneDrawers } from './scene-drawers.ts';

/** Draws frames of reels that will be looked at: one after the other, small and quickly, or one that is looked at sharply. */
const drawers = new SceneDrawers(false);
const images = new KeptImages();
const faces = loadCardFaces();
let kept: { canvas: OffscreenCanvas; pen: Pen } | null = null;

/**
 * Where a machine draws a frame in less than this, milliseconds, frames to keep are drawn so much larger than they are kept:
 * that softens their edges, and costs less than more passes.
 */
const QUICK = 30;
const LARGER = 1.6;
let took = Infinity;

/** What a camera sees. @param passes of a sharp picture; 0: one plain pass, a little larger */
async function sceneBitmap({ scene, sample }: SceneLayer, size: PictureSize, passes: number): Promise<ImageBitmap> {
  const renderer = await drawers.of(scene);
  const by = took < QUICK ? LARGER : 1;
  const larger = { width: Math.round(by * size.width), height: Math.round(by * size.height) };
  const draw = () => (passes > 0 ? renderer.drawSharp(sample, size, passes) : renderer.draw(sample, larger, true));
  const began = performance.now();
  const bitmap = await unbroken(renderer, draw, { wasted: (empty) => empty.close() });
  if (passes === 0) took = performance.now() - began;
  return bitmap;
}

/** Draws a frame as a whole. */
async function put(pen: Pen, picture: ReelPicture, size: PictureSize, passes: number): Promise<void> {
  const plain = plainSample(picture);
  if (!plain) await faces;
  pen.imageSmoothingQuality = 'medium';
  await compose(pen, size, picture, {
    scene: (layer) => sceneBitmap(layer, size, passes),
    file: (sha256) => images.of(sha256),
  });
}

const api = {
  setScenes: (scenes: Readonly<Record<string, PictureScene>>): void => drawers.setScenes(scenes),

  /** A frame to keep. */
  async keep(picture: ReelPicture, size: PictureSize): Promise<Blob> {
    if (kept?.canvas.width !== size.width || kept.canvas.height !== size.height) {
      const canvas = new OffscreenCanvas(size.width, size.height);
      kept = { canvas, pen: canvas.getContext('2d', { alpha: false })! };
    }
    await put(kept.pen, picture, size, 0);
    return kept.canvas.convertToBlob({ type: 'image/jpeg', quality: 0.86 });
  },

  /** A frame to look at. */
  async show(picture: ReelPicture, size: PictureSize, passes: number): Promise<ImageBitmap> {
    const plain = plainSample(picture);
    const bitmap = plain ? await sceneBitmap(plain, size, passes) : await whole(picture, size, passes);
    return Comlink.transfer(bitmap, [bitmap]);
  },
};

async function whole(picture: ReelPicture, size: PictureSize, passes: number): Promise<ImageBitmap> {
  const canvas = new OffscreenCanvas(size.width, size.height);
  await put(canvas.getContext('2d')!, picture, size, passes);
  return canvas.transferToImageBitmap();
}

export type AheadWorker = typeof api;
Comlink.expose(api);
