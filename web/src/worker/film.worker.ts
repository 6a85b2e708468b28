import { ownActions, SiteMotion } from '@eskovan/core/action';
import type { CheckLimits, Lens, MoveBody, Pose, Rate, Walker } from '@eskovan/core/document';
import type { SceneModel } from '@eskovan/core/format';
import { compileMove, needsParts, standing, type CameraSample } from '@eskovan/core/move';
import { frameTime } from '@eskovan/core/reel';
import { unpackFooting } from '@eskovan/core/survey';
import {
  encodeFilm,
  imageOf,
  PictureRenderer,
  renderStill,
  renderVideo,
  smaller,
  type PictureSize,
} from '@eskovan/render';
import { dressModel } from '@eskovan/core/site';
import * as Comlink from 'comlink';
import { sceneKey, sizeAcross, type AsideWish, type PictureScene } from '../picture/source.ts';
import { GATHERED_FROM, gatherLight } from './gather-light.ts';
import { atItsBeginning, fetchBytes, loadScene, sceneOptions } from './load-scene.ts';
import { describeParts } from './parts.ts';
import { ReelFilm, type ReelFilmSource } from './reel-film.ts';
import { SaidError } from './said.ts';

/** What is rendered: a pose that stands, or a move from `from` seconds on. */
export type FilmSource =
  | { kind: 'pose'; pose: Pose; lens: Lens }
  | {
      kind: 'move';
      body: MoveBody;
      walker: Walker;
      limits: CheckLimits;
      aspect: number;
      floorUrl: string;
      from: number;
    };

interface SharedOrder {
  size: PictureSize;
  subframes: number;
  /** A film of so many frames, or a still. */
  output: { kind: 'still' } | { kind: 'video'; rate: Rate; frames: number; shutter: number };
}

export type FilmOrder = SharedOrder & ({ source: FilmSource; scene: PictureScene } | { source: ReelFilmSource });
type CameraOrder = Extract<FilmOrder, { scene: PictureScene }>;
type Rendered = { file: Blob; poster: Blob };

/** Across a picture for galleries, pixels. */
const POSTER = 640;
/** How pictures are kept that stand for something. */
const SMALL_PICTURE = { type: 'image/webp', quality: 0.85 } as const;

/** A take's own picture, no larger than it is. */
const posterOf = (picture: Blob | ImageData, { width, height }: PictureSize): Promise<Blob> =>
  smaller(picture, sizeAcross(Math.min(POSTER, width), width / height), SMALL_PICTURE);

async function samplerFor(
  source: FilmSource,
  loading: Promise<{ model: SceneModel; motion: SiteMotion }>,
): Promise<{ sampleAt: (time: number) => CameraSample; loopsAfter: number | null }> {
  if (source.kind === 'pose') {
    const sample = standing(source.pose, source.lens);
    return { sampleAt: () => sample, loopsAfter: null };
  }
  const { body, walker, limits, aspect } = source;
  const footing = unpackFooting(await fetchBytes(source.floorUrl));
  const { model, motion } = needsParts(body) ? await loading : { model: null, motion: null };
  const move = compileMove(body, { footing, walker, parts: model ? describeParts(model) : [], motion, aspect, limits });
  if (!move) throw new SaidError('This move has no way yet.');
  return { sampleAt: (time) => move.sampleAt(source.from + time), loopsAfter: move.loops ? move.duration : null };
}

/** What small pictures are drawn of, one after the other. */
let small: { key: string; renderer: PictureRenderer } | null = null;

const api = {
  /** A picture of a scene. The scene stays for the next one; the worker is thrown away in the end. */
  async small({ scene, pose, lens, size, finished = false, type }: AsideWish): Promise<Blob> {
    const key = `${sceneKey(scene)} ${finished}`;
    if (small?.key !== key) {
      const renderer = small?.renderer ?? new PictureRenderer();
      const model = await loadScene(scene.source);
      const motion = new SiteMotion(model, scene.actions);
      await renderer.setModel(dressModel(model, scene.dress), sceneOptions(scene, motion), finished);
      small = { key, renderer };
    }
    return renderStill(small.renderer, standing(pose, lens), size, 8, type ? { type, quality: 0.92 } : SMALL_PICTURE);
  },

  /** Renders one take; a worker does one and is then thrown away. */
  render: (order: FilmOrder, onProgress: (done: number) => void): Promise<Rendered> =>
    'scene' in order ? renderCamera(order, onProgress) : renderReel(order, onProgress),
};

/** A film whose shots and joins are those of a reel. */
async function renderReel(
  { source, size, subframes, output }: Extract<FilmOrder, { source: ReelFilmSource }>,
  onProgress: (done: number) => void,
): Promise<Rendered> {
  if (output.kind !== 'video') throw new SaidError('A reel is rendered as a film.');
  const { rate, frames, shutter } = output;
  const film = await ReelFilm.of(source, { size, subframes, shutter });
  try {
    const made = await encodeFilm({
      rate,
      frames,
      size,
      sound: source.sound,
      pixelsAt: film.pixelsAt,
      onProgress,
    });
    return { file: made.file, poster: await posterOf(imageOf(made.poster, size), size) };
  } finally {
    film.dispose();
  }
}

/** A film, or a still, of one camera. */
async function renderCamera(order: CameraOrder, onProgress: (done: number) => void): Promise<Rendered> {
  const { source, dress, light } = order.scene;
  const own = order.source.kind === 'pose' ? [] : ownActions(order.source.body);
  const actions = [...order.scene.actions, ...own];
  const loading = loadScene(source).then((model) => ({
    model,
    motion: new SiteMotion(model, actions),
  }));
  const [{ model, motion }, { sampleAt, loopsAfter }] = await Promise.all([loading, samplerFor(order.source, loading)]);
  const renderer = new PictureRenderer();
  try {
    await renderer.setModel(dressModel(model, dress), sceneOptions(order.scene, motion), true);
    const { size, subframes, output } = order;
    if (output.kind === 'still') {
      // Lines on paper have no light.
      const hasLight = order.scene.source.kind === 'lit' && dress.look !== 'line';
      if (subframes >= GATHERED_FROM && hasLight)
        renderer.correct(
          await gatherLight(atItsBeginning(model, order.scene), light, sampleAt(0), size, onProgress),
          sampleAt(0),
        );
      const file = await renderStill(renderer, sampleAt(0), size, subframes);
      onProgress(1);
      return { file, poster: await posterOf(file, size) };
    }
    const { rate, frames, shutter } = output;
    const loops = loopsAfter !== null && Math.abs(frameTime(frames, rate) - loopsAfter) < frameTime(1, rate);
    const made = await renderVideo(renderer, {
      sampleAt,
      rate,
      frames,
      loops,
      shutter,
      size,
      subframes,
      onProgress,
    });
    return { file: made.file, poster: await posterOf(imageOf(made.poster, size), size) };
  } finally {
    renderer.dispose();
  }
}

export type FilmWorker = typeof api;
Comlink.expose(api);
