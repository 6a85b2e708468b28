import type { SiteMotion } from '@eskovan/core/action';
import { unpackModel, type SceneModel } from '@eskovan/core/format';
import { assemble, type PlacedModel } from '@eskovan/core/site';
import type { PictureScene, PictureSource, PlacedFile } from '../picture/source.ts';
import { SaidError } from './said.ts';

/** @throws Error naming what could not be loaded */
export async function fetchBytes(url: string): Promise<ArrayBuffer> {
  const response = await fetch(url);
  if (!response.ok)
    throw new SaidError(
      `The model’s picture data could not be loaded (${response.status}). Reload the page to try again.`,
    );
  return response.arrayBuffer();
}

const loadPlaced = async ({ id, url, placement }: PlacedFile): Promise<PlacedModel> => ({
  id,
  placement,
  model: unpackModel(new Uint8Array(await fetchBytes(url))),
});

/** All models of a site in their places. */
export const loadPlain = async (models: readonly PlacedFile[]): Promise<SceneModel> =>
  assemble(await Promise.all(models.map(loadPlaced)));

/** How a scene is drawn, whichever renderer draws it. */
export const sceneOptions = ({ dress, light }: PictureScene, motion: SiteMotion) => ({
  look: dress.look,
  exposure: dress.exposure,
  light,
  motion,
});

export async function loadScene(source: PictureSource): Promise<SceneModel> {
  return source.kind === 'lit' ? unpackModel(new Uint8Array(await fetchBytes(source.url))) : loadPlain(source.models);
}
