import { dimmersOf, pickSite, SiteMotion, type MovableSite } from '@eskovan/core/action';
import { edgeLineAt, type EdgeLine } from '@eskovan/core/geometry';
import type { Vec3 } from '@eskovan/core/document';
import type { SceneModel } from '@eskovan/core/format';
import type { CameraSample } from '@eskovan/core/move';
import { dressModel } from '@eskovan/core/site';
import { Holes, PictureRenderer, renderStillAside, unbroken, type PictureSize, type Stance } from '@eskovan/render';
import * as Comlink from 'comlink';
import { turns } from '../picture/in-turn.ts';
import type { DrawnPicture } from '../picture/pump.ts';
import { sourceKey, type PickedSurface, type PictureScene } from '../picture/source.ts';
import { loadScene, sceneOptions } from './load-scene.ts';
import { describeParts, type PartInfo } from './parts.ts';

/** The picture's worker: owns the geometry and the graphics context, so that the page never waits for drawing. */
const renderer = new PictureRenderer();
// After the first message: what that asks to be fetched is on its way meanwhile.
setTimeout(() => void renderer.warmUp());
let loaded: { key: string; geometry: string; model: SceneModel } | null = null;
let shown: { model: SceneModel; motion: SiteMotion; holes?: Promise<Holes> } | null = null;
/** What the renderer has ready; null while it is building. */
let built: string | null = null;
let asked = 0;
/** Somebody waits for something else than the sharp picture that is being drawn. */
let inTheWay = false;
/** The picture that is being drawn. */
let drawing: Promise<unknown> = Promise.resolve();
/** Small pictures: two at a time would break each other off. */
const inTurn = turns();

const api = {
  /** Makes a scene ready to be drawn. Only what has changed since the last one is done again. */
  async load(scene: PictureScene): Promise<void> {
    const { source, geometry, dress, light, actions } = scene;
    const turn = (asked += 1);
    const key = sourceKey(source);
    const model = loaded?.key === key ? loaded.model : await loadScene(source);
    // Something newer was asked for meanwhile.
    if (turn !== asked) return;
    loaded = { key, geometry, model };
    const motion = new SiteMotion(model, actions);
    const dimmers = dimmersOf(actions);
    const of = JSON.stringify([source, dress, light, motion.layout, dimmers]);
    if (shown && built === of) {
      // Only when and how fast things move and lamps dim has changed: the pieces stay.
      shown.motion = motion;
      renderer.setMotion(motion, dimmers);
      return;
    }
    shown = { model: dressModel(model, dress), motion };
    built = null;
    await renderer.setModel(shown.model, sceneOptions(scene, motion));
    if (turn === asked) built = of;
  },

  /** Tells when the graphics card is back after it was lost: what was shown may be gone. */
  onRenewed(tell: () => void): void {
    renderer.onRenewed(tell);
  },

  /**
   * Draws; one sub-frame is the quick picture, more are the sharp one: null where that gave way to something else. Of a sharp
   * one it is told how much of it is burnt out, 0…1.
   */
  async draw(sample: CameraSample, size: PictureSize, subframes: number): Promise<DrawnPicture | null> {
    inTheWay = false;
    const made = unbroken(
      renderer,
      async (): Promise<Omit<DrawnPicture, 'triangles'> | null> => {
        if (subframes === 1) return { bitmap: renderer.draw(sample, size) };
        const bitmap = await renderer.drawSharp(sample, size, subframes, () => !inTheWay);
        return bitmap && { bitmap, burnt: renderer.burntPart(size) };
      },
      { wasted: (empty) => empty?.bitmap.close() },
    );
    drawing = made.catch(() => undefined);
    const drawn = await made;
    return drawn && Comlink.transfer({ ...drawn, triangles: renderer.drawn.triangles }, [drawn.bitmap]);
  },

  /** How many stops darker a picture has to be until no more than a part of it burns out. */
  async stopsToDraw(sample: CameraSample, size: PictureSize, part: number): Promise<number> {
    await drawing;
    return unbroken(renderer, () => renderer.stopsToDraw(sample, size, part));
  },

  /** A sharp picture that is being drawn is left: something else is waited for. */
  giveWay(): void {
    inTheWay = true;
  },

  /** A small finished picture; null where it gave way to one that is shown. */
  async still(sample: CameraSample, size: PictureSize, subframes: number, type: string): Promise<Blob | null> {
    return inTurn(async () => {
      // What is looked at comes first: a thumbnail between its passes would cost it all of them.
      await drawing;
      return renderStillAside(renderer, sample, size, subframes, { type, quality: 0.86 });
    });
  },

  /** Stands a person of 1.75 m somewhere, for scale, or lets one walk there; null takes it away. */
  standPerson(stance: Stance | null): void {
    renderer.setPerson(stance);
  },

  /** Draws a line around some parts of a model, by name; none takes it away. */
  mark(of: string, names: readonly string[]): void {
    const wanted = new Set(names);
    const meant =
      (wanted.size > 0 && shown?.model.parts.filter(({ model, name }) => model === of && wanted.has(name))) || [];
    // One outline moves with one thing: where several move, those that go with the first are marked.
    const group = meant[0] && shown?.motion.groupOf(meant[0]);
    renderer.setMarked(
      meant.filter((part) => shown?.motion.groupOf(part) === group),
      group,
    );
  },

  /**
   * The nearest surface along a ray and the part it belongs to, or null.
   * @param time seconds into the move: where moving things are
   */
  async pick(origin: Vec3, direction: Vec3, time: number): Promise<PickedSurface | null> {
    const site = shown;
    if (!site) return null;
    // Found with the first press: most scenes have none, and no first picture waits for them.
    const holes = await (site.holes ??= Holes.of(site.model));
    const hit = pickSite(site.model.parts, site.motion, origin, direction, time, (part, s, t) =>
      holes.isThere(part, s, t),
    );
    return hit && { point: hit.point, rest: hit.rest, model: hit.part.model ?? '', name: hit.part.name };
  },

  /** The line of edges of a part that is nearest to a place of it, as it is at rest; null where it has none. */
  edge(of: string, called: string, near: Vec3): EdgeLine | null {
    const parts = shown?.model.parts.filter(({ model, name }) => (model ?? '') === of && name === called) ?? [];
    return edgeLineAt(parts, near);
  },

  /** What the file's movements move, and how; null where something else than what is meant is held. */
  movements(geometry?: string): Pick<MovableSite, 'joints' | 'movements'> | null {
    if (geometry !== undefined && loaded?.geometry !== geometry) return null;
    const { joints = [], movements = [] } = loaded?.model ?? {};
    return { joints, movements };
  },

  /** All named parts, hidden ones included; null where something else than what is meant is held. */
  parts(geometry?: string): PartInfo[] | null {
    if (geometry !== undefined && loaded?.geometry !== geometry) return null;
    return loaded ? describeParts(loaded.model) : [];
  },
};

export type PictureWorker = typeof api;
Comlink.expose(api);
