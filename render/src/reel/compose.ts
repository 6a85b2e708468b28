import type { Title } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { drawTitle, drawWords, VEILS, type CardSize, type Pen, type Words } from './card.ts';

/** One picture over those below it. */
export type PictureLayer = { part: number } & (
  | { kind: 'scene'; scene: string; sample: CameraSample }
  | { kind: 'card'; title: Title; logo: string | null }
  | { kind: 'still'; file: string }
  /** What a film shows at a time of its own, seconds. */
  | { kind: 'clip'; file: string; time: number }
  /** What it showed is not there any more. */
  | { kind: 'gone'; name: string }
);

/** What a camera sees. */
export type SceneLayer = Extract<PictureLayer, { kind: 'scene' }>;

/** Everything that a frame of a reel shows, from the bottom up. Equal pictures have equal descriptions. */
export interface ReelPicture {
  layers: PictureLayer[];
  veil: { to: keyof typeof VEILS; part: number } | null;
  words: { words: Words; part: number }[];
}

type Image = CanvasImageSource & CardSize;

/** What a picture is put together from. */
export interface Ingredients {
  /** What a camera sees, at the size of the picture. */
  scene(layer: SceneLayer): Promise<Image & { close?: () => void }>;
  /** A kept picture by its SHA-256; null where it cannot be had. */
  file(sha256: string): Promise<Image | null>;
  /** What a kept film shows at a time, seconds; null where it cannot be had. */
  clip(sha256: string, time: number): Promise<Image | null>;
}

/** A frame that is a camera's picture and nothing else: it needs no putting together. */
export const plainSample = ({ layers, veil, words }: ReelPicture): SceneLayer | null => {
  const [only] = layers;
  return layers.length === 1 && only!.kind === 'scene' && !veil && words.length === 0 ? only! : null;
};

/** Puts a frame together: pictures over each other, then what veils them, then words. */
export async function compose(pen: Pen, size: CardSize, picture: ReelPicture, from: Ingredients): Promise<void> {
  for (const [i, layer] of picture.layers.entries()) {
    pen.globalAlpha = i === 0 ? 1 : layer.part;
    await drawLayer(pen, size, layer, from);
  }
  pen.globalAlpha = 1;
  if (picture.veil) {
    pen.globalAlpha = picture.veil.part;
    pen.fillStyle = VEILS[picture.veil.to];
    pen.fillRect(0, 0, size.width, size.height);
    pen.globalAlpha = 1;
  }
  for (const { words, part } of picture.words) drawWords(pen, size, words, part);
}

async function drawLayer(pen: Pen, size: CardSize, layer: PictureLayer, from: Ingredients): Promise<void> {
  const { width, height } = size;
  if (layer.kind === 'scene') {
    const image = await from.scene(layer);
    pen.drawImage(image, 0, 0, width, height);
    image.close?.();
    return;
  }
  if (layer.kind === 'still' || layer.kind === 'clip') {
    const image = layer.kind === 'still' ? await from.file(layer.file) : await from.clip(layer.file, layer.time);
    pen.fillStyle = '#000000';
    pen.fillRect(0, 0, width, height);
    if (!image) return drawGone(pen, size, '', 'The file of this shot could not be read.');
    // All of it is shown, as large as it fits.
    const scale = Math.min(width / image.width, height / image.height);
    const [w, h] = [image.width * scale, image.height * scale];
    pen.drawImage(image, (width - w) / 2, (height - h) / 2, w, h);
    return;
  }
  if (layer.kind === 'gone') {
    return drawGone(pen, size, layer.name, 'What this shot showed is not in the project any more.');
  }
  // A card that fades is drawn as a whole first: its words must not show through its ground.
  const card = new OffscreenCanvas(width, height);
  drawTitle(card.getContext('2d')!, size, layer.title, layer.logo ? await from.file(layer.logo) : null);
  pen.drawImage(card, 0, 0);
}

const drawGone = (pen: Pen, size: CardSize, heading: string, text: string): void =>
  drawTitle(pen, size, { heading, text, ground: 'ink', align: 'middle' }, null);
