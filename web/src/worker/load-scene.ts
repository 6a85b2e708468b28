import { unpackModel, type SceneModel } from '@eskovan/core/format';
import { assemble, type PlacedModel } from '@eskovan/core/site';
import type { PictureSource, PlacedFile } from '../picture/source.ts';
import { SaidError } from './said.ts';

/** @throws Error naming what could not be loaded */
export async function fetchBytes(url: string, signal?: AbortSignal): Promise<ArrayBuffer> {
  const response = await fetch(url, signal ? { signal } : {});
  if (!response.ok)
    throw new SaidError(
      `The model’s picture data could not be loaded (${response.status}). Reload the page to try again.`,
    );
  return response.arrayBuffer();
}

const loadPlaced = async ({ id, url, placement }: PlacedFile, signal?: AbortSignal): Promise<PlacedModel> => ({
  id,
  placement,
  model: unpackModel(new Uint8Array(await fetchBytes(url, signal))),
});

/** All models of a site in their places. */
export const loadPlain = async (models: readonly PlacedFile[], signal?: AbortSignal): Promise<SceneModel> =>
  assemble(await Promise.all(models.map((model) => loadPlaced(model, signal))));

export async function loadScene(source: PictureSource, signal?: AbortSignal): Promise<SceneModel> {
  return source.kind === 'lit'
    ? unpackModel(new Uint8Array(await fetchBytes(source.url, signal)))
    : loadPlain(source.models, signal);
}
