import type { Dimmer, SiteMotion } from '@eskovan/core/action';
import type { SceneModel, ScenePart } from '@eskovan/core/format';
import type { CameraSample } from '@eskovan/core/move';
import type { Vec3 } from '@eskovan/core/document';
import { LightMeter, type ExposedMove, type ExposureTrack, type PixelGather } from '@eskovan/core/survey';
import { LinearSRGBColorSpace, PerspectiveCamera, WebGLRenderer, type Group } from 'three';
import { Breath } from '../scene/breath.ts';
import { buildScene, disposeScene, type SceneOptions } from '../scene/build-scene.ts';
import type { Stance } from '../scene/person.ts';
import { toneUniforms } from '../scene/tone.ts';
import { warmUpScene } from '../scene/warm-up.ts';
import { Accumulator } from './accumulator.ts';
import { burntPart, stopsToDraw } from './burnt.ts';
import { aimCamera, type Pair } from './aim-camera.ts';
import { DrawnScene } from './drawn-scene.ts';
import { Exposure } from './exposure.ts';
import { fadedPasses } from './fading.ts';
import { FinishPass } from './finish-pass.ts';
import { aperturePoint, jitter, shutterPart } from './jitter.ts';
import type { PictureSize } from './picture-size.ts';
import type { StillLevel } from './shown-pieces.ts';
import { mirrorDetail, mirrorPixel, mirrorSize } from './surroundings.ts';
import type { Breakable } from './unbroken.ts';

/** Height in pixels from which moving pictures show detail as far as it reaches; smaller ones show less of it. */
const DETAIL_HEIGHT = 250;
/** Passes of a moving picture in which something fades: without it and with it. */
const FADED_PASSES = 2;
/** Pixels of a finished picture from which it pays to draw depth ahead: in smaller ones triangles cost more. */
const AHEAD_FROM = 200_000;

/**
 * Draws camera samples of one model. One of these lives in one worker and owns one graphics context; whoever wants a
 * picture asks it. Drawing happens only when asked.
 */
export class PictureRenderer implements Breakable {
  private readonly canvas: OffscreenCanvas;
  private readonly renderer: WebGLRenderer;
  private readonly tone = toneUniforms();
  private readonly drawing = new DrawnScene(this.tone);
  private readonly exposure = new Exposure(this.tone.gain);
  private paper = false;
  /** What was done with it so far: a picture that is drawn pass by pass is given up when something else comes between. */
  private done = 0;
  private readonly camera = new PerspectiveCamera();
  private readonly accumulator: Accumulator;
  /** Nothing of the model was drawn yet: somebody waits for a first picture of it. */
  private fresh = true;
  private finish: FinishPass | null = null;
  private asked = 0;
  private warm: Group | null = null;

  constructor() {
    this.canvas = new OffscreenCanvas(16, 16);
    this.renderer = new WebGLRenderer({
      canvas: this.canvas,
      antialias: false,
      stencil: false,
      preserveDrawingBuffer: false,
    });
    // Materials tone by themselves; see scene/tone.ts.
    this.renderer.outputColorSpace = LinearSRGBColorSpace;
    this.renderer.autoClear = false;
    this.renderer.info.autoReset = false;
    this.camera.matrixAutoUpdate = false;
    this.accumulator = new Accumulator(this.renderer);
    // What was drawn ahead is gone with the card; three sends geometry and pictures there again by itself.
    this.canvas.addEventListener('webglcontextrestored', () => this.finish?.forget());
  }

  /** The graphics card was taken away: what is drawn now is empty. */
  get lost(): boolean {
    return this.renderer.getContext().isContextLost();
  }

  /** Tells every time when the graphics card is back after it was lost. */
  onRenewed(tell: () => void): void {
    this.canvas.addEventListener('webglcontextrestored', () => tell());
  }

  async whenUsable(): Promise<void> {
    if (!this.lost) return;
    await new Promise((resolve) => this.canvas.addEventListener('webglcontextrestored', resolve, { once: true }));
  }

  /** Compiles what nearly every picture needs, while nobody waits for one yet. */
  async warmUp(): Promise<void> {
    this.warm = await warmUpScene();
    const { scene, model } = this.drawing;
    if (model) return;
    scene.add(this.warm);
    this.renderer.render(scene, this.camera);
    scene.remove(this.warm);
  }

  /**
   * What is drawn from now on.
   * @param finished draws the sun's shadow anew instead of as it was baked, and corners darker: finer, slower
   */
  async setModel(model: SceneModel | null, options: SceneOptions, finished = false): Promise<void> {
    const asked = (this.asked += 1);
    this.finish?.dispose();
    this.finish = finished ? new FinishPass(this.renderer, options.light) : null;
    // The new one is made whole before the old one goes: pictures asked for meanwhile still show something.
    const toned = { ...options, tone: this.tone };
    const made = model && (await buildScene(model, this.finish ? { ...toned, finish: this.finish.uniforms } : toned));
    const paper = options.look === 'line';
    const meter = model && !paper ? new LightMeter(model, options.light) : null;
    const breath = new Breath();
    await meter?.prepare(() => breath.take());
    if (asked !== this.asked) {
      // Something newer was asked for meanwhile.
      if (made) disposeScene(made);
      return;
    }
    this.done += 1;
    this.drawing.setModel(made && { group: made, model: model! }, options);
    this.paper = paper;
    this.exposure.use(meter, paper ? null : options.exposure);
    this.fresh = true;
  }

  /** Lets the same parts move in another way, and the same lamps dim; see `SiteMotion.layout`. */
  setMotion(motion: SiteMotion | undefined, dimmers?: readonly Dimmer[]): void {
    this.done += 1;
    this.drawing.setMotion(motion, dimmers);
  }

  /** Stands a person somewhere, or lets one walk there; null takes it away. */
  setPerson(stance: Stance | null): void {
    this.done += 1;
    this.drawing.person.stand(stance);
  }

  /**
   * Draws lines around some parts, over everything.
   * @param group the group that they move with; −1 where they stand still
   */
  setMarked(parts: readonly ScenePart[], group = -1): void {
    this.done += 1;
    this.drawing.setMarked(parts, group);
  }

  /** Triangles and draw calls of the last picture. */
  get drawn(): { triangles: number; calls: number } {
    const { triangles, calls } = this.renderer.info.render;
    return { triangles, calls };
  }

  /**
   * One plain pass, as fast as it gets: for playing and dragging. The bitmap belongs to the caller. The first one of a model
   * does not wait for the light of what has moved.
   * @param alone it is as bright as its place asks for, whatever was drawn before it, and waits for all of its light
   */
  draw(sample: CameraSample, size: PictureSize, alone = false): ImageBitmap {
    this.done += 1;
    this.resize(size);
    this.renderer.info.reset();
    this.renderer.setRenderTarget(null);
    this.exposure.set(sample, alone ? this.exposure.metered(sample) : this.exposure.eased(sample));
    const reach = Math.min(1, size.height / DETAIL_HEIGHT);
    const presences = this.drawing.moving?.presences(sample.siteTime) ?? null;
    if (alone) this.fresh = false;
    this.drawing.person.show(!alone);
    const aim = (share?: number) => {
      this.aim(sample, size, [0, 0], [0, 0], share);
      this.drawing.pieces?.inPassing(this.camera, size, reach, this.drawing.whole);
    };
    if (presences) {
      this.accumulator.start(size, false);
      for (const { share, weight } of fadedPasses(presences, FADED_PASSES)) {
        aim(share);
        this.accumulator.add(() => this.pass(), weight);
      }
      this.accumulator.resolveToCanvas();
    } else {
      aim();
      this.pass();
    }
    this.fresh = false;
    return this.canvas.transferToImageBitmap();
  }

  /**
   * Draws a picture that rests, from several passes. Each is waited for, so that whoever asks for something else waits for
   * one at most. The bitmap belongs to the caller.
   * @param goesOn asked after every pass
   * @returns null where it was broken off, or something else was done with this renderer meanwhile
   */
  async drawSharp(
    sample: CameraSample,
    size: PictureSize,
    subframes: number,
    goesOn: () => boolean,
  ): Promise<ImageBitmap | null> {
    this.resize(size);
    this.exposure.set(sample);
    const passes = this.passes(() => sample, size, subframes, 'resting', false);
    if (!(await this.inPasses(passes, subframes, goesOn))) return null;
    this.accumulator.resolveToCanvas();
    return this.canvas.transferToImageBitmap();
  }

  /** How much of the picture that was drawn last, in passes, is burnt out: 0…1. */
  burntPart(size: PictureSize): number {
    // A drawing on paper is white on purpose.
    return this.paper ? 0 : burntPart(this.accumulator.readPixels(), size);
  }

  /**
   * How many stops darker a picture has to be until no more than a part of it burns out.
   * @param part 0…1
   */
  stopsToDraw(sample: CameraSample, size: PictureSize, part: number): number {
    this.resize(size);
    this.exposure.set(sample);
    this.accumulate(() => sample, size, 1, 'resting', true);
    return stopsToDraw(this.accumulator.luminances(), part);
  }

  /**
   * The pixels of a finished picture, as {@link frame} has them, drawn as {@link drawSharp} does.
   * @returns null where something else was done with this renderer meanwhile
   */
  async frameAside(
    sample: CameraSample,
    size: PictureSize,
    subframes: number,
  ): Promise<Uint8Array<ArrayBuffer> | null> {
    this.exposure.set(sample);
    const passes = this.passes(() => sample, size, subframes, 'whole', !this.paper);
    return (await this.inPasses(passes, subframes, () => true)) ? this.accumulator.readPixels() : null;
  }

  /** Waits for each pass. @returns whether all were drawn, with nothing in between */
  private async inPasses(passes: Generator<number>, subframes: number, goesOn: () => boolean): Promise<boolean> {
    for (let pass = passes.next(); !pass.done; pass = passes.next()) {
      const { done } = this;
      this.accumulator.settle();
      await new Promise((resolve) => setTimeout(resolve));
      if (this.done !== done || (pass.value < subframes - 1 && !goesOn())) return false;
    }
    return true;
  }

  /**
   * The pixels of a finished frame, RGBA, top row first. `sampleAt` is asked once per sub-frame with its place 0…1 in
   * the time that the shutter is open: pixel, lens opening and time are one sum.
   * @param gain exposure and white balance; metered where it is not given
   */
  frame(
    sampleAt: (part: number) => CameraSample,
    size: PictureSize,
    subframes: number,
    gain?: Vec3,
  ): Uint8Array<ArrayBuffer> {
    this.exposure.set(sampleAt(0), gain);
    this.accumulate(sampleAt, size, subframes, 'whole', !this.paper);
    return this.accumulator.readPixels();
  }

  /** Corrects the baked light of pictures from one camera by what was gathered for them. */
  correct(gather: PixelGather, sample: CameraSample): void {
    this.finish?.gathered.set(gather, sample);
  }

  dispose(): void {
    this.drawing.dispose();
    if (this.warm) disposeScene(this.warm);
    this.finish?.dispose();
    this.accumulator.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }

  private accumulate(
    sampleAt: (part: number) => CameraSample,
    size: PictureSize,
    subframes: number,
    level: StillLevel,
    linear: boolean,
  ): void {
    for (const _ of this.passes(sampleAt, size, subframes, level, linear));
  }

  /** Draws sub-frame after sub-frame and adds them up; says which it has come to. */
  private *passes(
    sampleAt: (part: number) => CameraSample,
    size: PictureSize,
    subframes: number,
    level: StillLevel,
    linear: boolean,
  ): Generator<number> {
    this.done += 1;
    this.fresh = false;
    this.drawing.person.show(level === 'resting');
    this.renderer.info.reset();
    this.accumulator.start(size, linear);
    this.finish?.start();
    const ahead = size.width * size.height >= AHEAD_FROM;
    const faded = fadedPasses(this.drawing.moving?.presences(sampleAt(0.5).siteTime) ?? null, subframes);
    for (let i = 0; i < subframes; i += 1) {
      const { share, weight } = faded[i]!;
      this.tone.late.value = linear ? 1 : 0;
      this.aim(sampleAt(shutterPart(i, subframes)), size, jitter(i, subframes), aperturePoint(i, subframes), share);
      const { model, moving, pieces, whole } = this.drawing;
      const full = () => pieces?.inFull(level, this.camera, size, whole);
      if (model)
        this.finish?.castShadow(model, this.camera, {
          subframe: i,
          subframes,
          moving,
          before: (sun) => pieces?.inFull(level, sun, size, false),
        });
      full();
      if (model) this.finish?.shadeContacts(model, this.camera, size);
      if (i === 0 && linear && this.lookAround(subframes)) full();
      this.accumulator.add(() => this.pass(ahead), weight);
      this.tone.late.value = 0;
      yield i;
    }
  }

  /**
   * Looks at what is around the eye, for mirrors: as light, whatever the exposure of this frame is.
   * @returns whether it had to
   */
  private lookAround(subframes: number): boolean {
    const { dimmed, moving, pieces, scene, whole } = this.drawing;
    const dims = dimmed?.takeChange() ?? false;
    const moves = moving?.haveMoved(this.camera.position, mirrorPixel(subframes)) ?? false;
    if (!this.finish?.mustLookAround(this.camera, subframes, dims || moves)) return false;
    moving?.remember();
    const { value: gain } = this.tone.gain;
    const exposed = gain.clone();
    gain.set(1, 1, 1);
    this.finish.lookAround(scene, this.camera, subframes, (side) =>
      pieces?.inPassing(side, mirrorSize(subframes), mirrorDetail(subframes), whole),
    );
    gain.copy(exposed);
    return true;
  }

  private resize({ width, height }: PictureSize): void {
    if (this.canvas.width !== width || this.canvas.height !== height) this.renderer.setSize(width, height, false);
  }

  /**
   * Sets the camera, and what moves.
   * @param pixelShift moves the picture by parts of a pixel
   * @param opening place in the lens's opening, a disc of radius 1: what is at the distance of focus stays where it is
   * @param share what fades is there where more of it is there than this
   */
  private aim(sample: CameraSample, size: PictureSize, pixelShift: Pair, opening: Pair, share?: number): void {
    const { camera, drawing } = this;
    drawing.place(sample.siteTime, { share, fresh: this.fresh, cut: (sample.view.nearCut ?? 0) > 0 });
    aimCamera(camera, sample, size, drawing.bounds, pixelShift, opening);
    drawing.followSky(camera);
  }

  /** Exposure along a move, for films: by the scene that is drawn now. */
  exposureAlong(move: ExposedMove): ExposureTrack {
    return this.exposure.along(move);
  }

  /** @param ahead draws depth first where the picture is finished */
  private pass(ahead = false): void {
    const { model, scene } = this.drawing;
    this.renderer.clear();
    if (ahead && model) this.finish?.ahead(model, this.camera);
    this.renderer.render(scene, this.camera);
  }
}
