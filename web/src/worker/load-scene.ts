import { dimmersOf, type SiteMotion } from '@eskovan/core/action';
import { unpackLampLight, unpackModel, type SceneModel } from '@eskovan/core/format';
import { assemble, dimmedModel, withShares, type PlacedModel } from '@eskovan/core/site';
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

const loadPlaced = async ({ url, ...placed }: PlacedFile): Promise<PlacedModel> => ({
  ...placed,
  model: unpackModel(new Uint8Array(await fetchBytes(url))),
});

/** All models of a site in their places. */
export const loadPlain = async (models: readonly PlacedFile[]): Promise<SceneModel> =>
  assemble(await Promise.all(models.map(loadPlaced)));

/** How a scene is drawn, whichever renderer draws it. */
export const sceneOptions = ({ dress, light, actions }: PictureScene, motion: SiteMotion) => ({
  look: dress.look,
  exposure: dress.exposure,
  light,
  motion,
  dimmers: dimmersOf(actions),
});

const load = async (url: string): Promise<Uint8Array> => new Uint8Array(await fetchBytes(url));

export async function loadScene(source: PictureSource): Promise<SceneModel> {
  if (source.kind === 'plain') return loadPlain(source.models);
  const { url, lamps = [] } = source;
  const [lit, ...shares] = await Promise.all([load(url), ...lamps.map((one) => one && load(one))]);
  const model = unpackModel(lit!);
  return (
    withShares(
      model,
      shares.map((bytes) => (bytes ? unpackLampLight(bytes) : null)),
    ) ?? model
  );
}

/** A scene as its lamps are at the beginning: what stands still is seen then. */
export function atItsBeginning(model: SceneModel, { actions }: PictureScene): SceneModel {
  const dimmers = dimmersOf(actions);
  return dimmedModel(
    model,
    dimmers,
    dimmers.map(({ levelAt }) => levelAt(0)),
  );
}
