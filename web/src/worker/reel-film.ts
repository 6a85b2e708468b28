import { frameTime, shotIndexAt, type PlannedShot } from '@eskovan/core/reel';
import { unpackFooting } from '@eskovan/core/survey';
import {
  compose,
  imageOf,
  noPixels,
  plainSample,
  unbroken,
  type FilmJob,
  type FilmSound,
  type PictureRenderer,
  type PictureSize,
  type ReelPicture,
  type SceneLayer,
} from '@eskovan/render';
import type { PictureScene } from '../picture/source.ts';
import { loadCardFaces } from './card-faces.ts';
import { KeptClips } from './kept-clips.ts';
import { KeptImages } from './kept-images.ts';
import { fetchBytes } from './load-scene.ts';
import { ReelWork, type ReelOrder } from './reel-work.ts';
import type { SiteOrder } from './site-order.ts';
import { SceneDrawers } from './scene-drawers.ts';

/** A reel to be rendered, or a stretch of it. */
export interface ReelFilmSource {
  kind: 'reel';
  site: SiteOrder;
  order: ReelOrder;
  scenes: Readonly<Record<string, PictureScene>>;
  /** The first frame of the reel that is in the film. */
  from: number;
  sound: FilmSound | null;
}

interface ReelFilmOptions {
  size: PictureSize;
  subframes: number;
  /** Part of a frame's time that the shutter is open. */
  shutter: number;
}

type Gain = [number, number, number];

/** The frames of a reel as a film has them: its joins and words are in them. */
export class ReelFilm {
  private readonly drawers = new SceneDrawers(true);
  private readonly images = new KeptImages();
  private readonly clips = new KeptClips();
  private readonly work = new ReelWork();
  /** How light each shot is along its way, worked out when it is drawn first. */
  private readonly exposures = new Map<string, { at: (time: number) => Gain }>();
  private readonly canvas: OffscreenCanvas;

  private constructor(
    private readonly source: ReelFilmSource,
    private readonly options: ReelFilmOptions,
  ) {
    const { width, height } = options.size;
    this.canvas = new OffscreenCanvas(width, height);
  }

  static async of(source: ReelFilmSource, options: ReelFilmOptions): Promise<ReelFilm> {
    const film = new ReelFilm(source, options);
    const [bytes] = await Promise.all([fetchBytes(source.site.floorUrl), loadCardFaces()]);
    film.work.setSite(source.site, unpackFooting(bytes));
    film.work.setReel(source.order);
    film.drawers.setScenes(source.scenes);
    return film;
  }

  /** Pixels of a frame of the film, RGBA, top row first. */
  readonly pixelsAt: FilmJob['pixelsAt'] = async (index) => {
    const frame = this.source.from + index;
    const picture = this.work.pictureAt(frame);
    const plain = plainSample(picture);
    if (plain) return this.scenePixels(plain, frame, 0);
    const pen = await this.composed(picture, frame);
    const { width, height } = this.options.size;
    return new Uint8Array(pen.getImageData(0, 0, width, height).data.buffer);
  };

  private async composed(picture: ReelPicture, frame: number): Promise<OffscreenCanvasRenderingContext2D> {
    const pen = this.canvas.getContext('2d', { willReadFrequently: true })!;
    const { size } = this.options;
    let index = -1;
    await compose(pen, size, picture, {
      scene: async (layer) => {
        index = picture.layers.indexOf(layer);
        const pixels = await this.scenePixels(layer, frame, index);
        return createImageBitmap(imageOf(pixels, size));
      },
      file: (sha256) => this.images.of(sha256),
      clip: (sha256, time) => this.clips.at(sha256, time),
    });
    return pen;
  }

  /** What a camera sees while the shutter is open. @param index of its layer: the camera moves on meanwhile */
  private async scenePixels(layer: SceneLayer, frame: number, index: number): Promise<Uint8Array<ArrayBuffer>> {
    const renderer = await this.drawers.of(layer.scene);
    const { size, subframes, shutter } = this.options;
    const sampleAt = (part: number) => {
      if (part === 0 || shutter === 0) return layer.sample;
      const later = this.work.pictureAt(frame + part * shutter).layers[index];
      return later?.kind === 'scene' ? later.sample : layer.sample;
    };
    const gain = this.gainAt(renderer, frame, index);
    return unbroken(renderer, () => renderer.frame(sampleAt, size, subframes, gain), { isEmpty: noPixels });
  }

  /** A picture is as light as its own shot asks for along its way; a camera that becomes another one gets used to it. */
  private gainAt(renderer: PictureRenderer, frame: number, index: number): Gain | undefined {
    const { plan } = this.work.reel;
    const first = shotIndexAt(plan, frame);
    const own = plan.shots[first + index] ?? plan.shots[first]!;
    const after = plan.shots[first + 1];
    const blends = index === 0 && after?.join?.kind === 'blend' && frame >= after.start;
    const gain = this.exposureOf(renderer, own)?.at(this.secondsIn(own, frame));
    const next = blends ? this.exposureOf(renderer, after)?.at(this.secondsIn(after, frame)) : undefined;
    if (!gain || !next || !after) return gain;
    const part = Math.min(1, (frame - after.start) / after.overlap);
    return gain.map((value, k) => value ** (1 - part) * next[k]! ** part) as Gain;
  }

  private secondsIn = ({ start }: PlannedShot, frame: number): number =>
    frameTime(Math.max(0, frame - start), this.work.reel.plan.rate);

  private exposureOf(renderer: PictureRenderer, shot: PlannedShot): { at: (time: number) => Gain } | null {
    const known = this.exposures.get(shot.id);
    if (known) return known;
    const { reel } = this.work;
    const { rate } = reel.plan;
    const first = reel.cameraOf(shot, shot.start);
    if (!first) return null;
    const poseAt = (time: number) => reel.cameraOf(shot, shot.start + (time * rate.num) / rate.den) ?? first;
    const track = renderer.exposureAlong({ poseAt, duration: frameTime(shot.frames, rate), loops: false });
    const made = { at: (time: number) => track.at(time) as Gain };
    this.exposures.set(shot.id, made);
    return made;
  }

  dispose(): void {
    this.clips.dispose();
    this.drawers.dispose();
  }
}
