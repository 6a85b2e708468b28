import type { CameraSample } from '@eskovan/core/move';
import type { PictureSize } from '@eskovan/render';
import * as Comlink from 'comlink';
import { create } from 'zustand';
import type { PictureWorker } from '../worker/picture.worker.ts';
import { sceneKey, type PictureScene, type PictureSource } from './source.ts';

interface PictureState {
  /** Key of the scene that can be drawn now; see `sceneKey`. */
  loaded: string | null;
  loading: boolean;
  error: string | null;
}

export const usePictureState = create<PictureState>()(() => ({ loaded: null, loading: false, error: null }));

let worker: Comlink.Remote<PictureWorker> | null = null;
let wanted: string | null = null;

function remote(): Comlink.Remote<PictureWorker> {
  worker ??= Comlink.wrap<PictureWorker>(
    new Worker(new URL('../worker/picture.worker.ts', import.meta.url), { type: 'module', name: 'picture' }),
  );
  return worker;
}

/** Starts the worker ahead of time: its code and its graphics context are the slow part of a first picture. */
export const warmPicture = (): void => void remote();

/** Lets the worker fetch what will be shown in a moment, while the page still builds its screen. */
export const preloadPicture = (source: PictureSource): void => void remote().preload(source);

/**
 * Makes the worker load a scene; asking again for the same one costs nothing. The scene before it goes on being shown
 * meanwhile.
 */
export async function loadPicture(scene: PictureScene): Promise<void> {
  const key = sceneKey(scene);
  if (wanted === key) return;
  wanted = key;
  usePictureState.setState({ loading: true, error: null });
  try {
    await remote().load(scene);
    if (wanted === key) usePictureState.setState({ loading: false, loaded: key });
  } catch (error) {
    if (wanted !== key) return;
    wanted = null;
    usePictureState.setState({ loading: false, error: error instanceof Error ? error.message : String(error) });
  }
}

export const drawPicture = (sample: CameraSample, size: PictureSize, subframes: number) =>
  remote().draw(sample, size, subframes);

/** A small finished picture, for thumbnails. */
export const drawStill = (sample: CameraSample, size: PictureSize, subframes: number) =>
  remote().still(sample, size, subframes, 'image/webp');

/** The nearest surface along a ray, and the part it belongs to. */
export const pickSurface = (origin: [number, number, number], direction: [number, number, number]) =>
  remote().pick(origin, direction);

export const standPerson = (at: [number, number, number] | null) => remote().standPerson(at);
export const markPart = (part: { model: string; name: string } | null) => remote().mark(part);
export const listParts = () => remote().parts();
