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
import { KeptClips } from './kept-clips.ts';
import { KeptImages } from './kept-images.ts';
import { SceneDrawers } from './scene-drawers.ts';

/** Draws frames of reels that will be looked at: one after the other, small and quickly, or one that is looked at sharply. */
const drawers = new SceneDrawers(false);
const images = new KeptImages();
const clips = new KeptClips();
const faces = loadCardFaces();
let kept: { canvas: OffscreenCanvas; pen: Pen } | null = null;

/**
 * Where a machine draws a frame in less than this, milliseconds, frames to keep are drawn so much larger than they are kept:
 * that softens their edges, and costs less than more passes.
 */
const QUICK = 30;
const LARGER = 1.6;
let took = Infinity;

/** Where it takes longer, a frame is so much smaller for a passing look: it is there in half the time. */
const SMALLER = 0.5;

/** What a camera sees in one plain pass, a little larger. */
async function plainBitmap(layer: SceneLayer, size: PictureSize): Promise<ImageBitmap> {
  const began = performance.now();
  const bitmap = await drawn(layer, size, took < QUICK ? LARGER : 1);
  took = performance.now() - began;
  return bitmap;
}

async function drawn({ scene, sample }: SceneLayer, size: PictureSize, by: number): Promise<ImageBitmap> {
  const renderer = await drawers.of(scene);
  return unbroken(renderer, () => renderer.draw(sample, scaled(size, by), true), { wasted: (empty) => empty.close() });
}

const scaled = ({ width, height }: PictureSize, by: number): PictureSize => ({
  width: Math.round(by * width),
  height: Math.round(by * height),
});

/** Somebody waits for something else. */
let inTheWay = false;
class GaveWay extends Error {}

/** What a camera sees, sharply. @throws GaveWay */
async function sharpBitmap({ scene, sample }: SceneLayer, size: PictureSize, passes: number): Promise<ImageBitmap> {
  const renderer = await drawers.of(scene);
  const draw = () => renderer.drawSharp(sample, size, passes, () => !inTheWay);
  const bitmap = await unbroken(renderer, draw, { wasted: (empty) => empty?.close() });
  if (!bitmap) throw new GaveWay();
  return bitmap;
}

type DrawScene = (layer: SceneLayer) => Promise<ImageBitmap>;

/** Draws a frame as a whole. */
async function put(pen: Pen, picture: ReelPicture, size: PictureSize, scene: DrawScene): Promise<void> {
  const plain = plainSample(picture);
  if (!plain) await faces;
  pen.imageSmoothingQuality = 'medium';
  await compose(pen, size, picture, {
    scene,
    file: (sha256) => images.of(sha256),
    clip: (sha256, time) => clips.at(sha256, time),
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
    await put(kept.pen, picture, size, (layer) => plainBitmap(layer, size));
    return kept.canvas.convertToBlob({ type: 'image/jpeg', quality: 0.86 });
  },

  /** A frame to look at in passing. */
  async glance(picture: ReelPicture, size: PictureSize): Promise<ImageBitmap> {
    const by = took < QUICK ? 1 : SMALLER;
    const draw = (layer: SceneLayer) => drawn(layer, size, by);
    // Words and cards are drawn at the whole size: they cost nothing.
    return toLookAt(picture, size, draw);
  },

  /** A frame to look at; null where it gave way to something else. */
  async show(picture: ReelPicture, size: PictureSize, passes: number): Promise<ImageBitmap | null> {
    inTheWay = false;
    try {
      return await toLookAt(picture, size, (layer) => sharpBitmap(layer, size, passes));
    } catch (error) {
      if (error instanceof GaveWay) return null;
      throw error;
    }
  },

  /** A frame that is being drawn to be looked at is left. */
  giveWay(): void {
    inTheWay = true;
  },
};

/** A frame to be handed over: what one camera sees alone needs no canvas of its own. */
async function toLookAt(picture: ReelPicture, size: PictureSize, scene: DrawScene): Promise<ImageBitmap> {
  const plain = plainSample(picture);
  const bitmap = plain ? await scene(plain) : await whole(picture, size, scene);
  return Comlink.transfer(bitmap, [bitmap]);
}

async function whole(picture: ReelPicture, size: PictureSize, scene: DrawScene): Promise<ImageBitmap> {
  const canvas = new OffscreenCanvas(size.width, size.height);
  await put(canvas.getContext('2d')!, picture, size, scene);
  return canvas.transferToImageBitmap();
}

export type AheadWorker = typeof api;
Comlink.expose(api);
