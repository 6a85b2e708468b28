import { placeActions, type SiteAction } from '@eskovan/core/action';
import type { LitBody, PartPath, ProjectDocument, Row } from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { geometryKey, inputModel, siteLight, type Dress, type LightSetting } from '@eskovan/core/site';
import { fileUrl } from '../data/api.ts';
import { liveRows } from '../data/changes.ts';
import type { PictureScene, PictureSource } from '../picture/source.ts';

/** The files of a light, and of what lamps that are dimmed give of it. */
export interface LitFiles extends LitBody {
  /** Where they are, in the order of the dimmers; null for lamps that are off. Absent where none dims. */
  lamps?: readonly (string | null)[];
}

const litSource = ({ scene, glance, lamps }: LitFiles): PictureSource => ({
  kind: 'lit',
  url: fileUrl(scene.sha256),
  ...(glance ? { glance: fileUrl(glance.sha256) } : {}),
  ...(lamps ? { lamps } : {}),
});

/** The shown models that have been read by this program's reader. */
const readyModels = (models: readonly Row<'model'>[]) =>
  liveRows(models).flatMap((row) => (!row.body.hidden && row.body.packed?.reader === READER ? [inputModel(row)] : []));

/** Names what a project's pictures show; null while none of its models is ready. */
export function geometryOf(models: readonly Row<'model'>[]): string | null {
  const ready = readyModels(models);
  return ready.length > 0 ? geometryKey({ models: ready }) : null;
}

/** What moves by itself among the shown models. */
export const actionsOf = ({ model, action }: Pick<ProjectDocument, 'model' | 'action'>): SiteAction[] =>
  placeActions(
    liveRows(action).map(({ body }) => body),
    liveRows(model).filter(({ body }) => !body.hidden),
  );

/**
 * What the picture of a project is to show; null while none of its models is ready.
 * @param lit the models in that light, where it has been computed
 * @param alone the only parts that are shown
 */
export function pictureScene(
  { project, model, action }: Pick<ProjectDocument, 'project' | 'model' | 'action'>,
  setting: LightSetting,
  lit: LitFiles | null,
  alone: PartPath | null,
): PictureScene | null {
  const { look } = project.body;
  const geometry = geometryOf(model);
  if (geometry === null) return null;
  const shown = liveRows(model).filter(({ body }) => !body.hidden);
  const parts = Object.fromEntries(shown.map(({ id, body }) => [id, body.parts]));
  const materials = Object.fromEntries(shown.map(({ id, body }) => [id, body.materials]));
  const { exposure, lamps } = setting;
  const dress: Dress = { look, exposure, parts, materials, lamps, ...(alone ? { alone } : {}) };
  return {
    source: lit
      ? litSource(lit)
      : {
          kind: 'plain',
          models: readyModels(model).map(({ packed, ...placed }) => ({ ...placed, url: fileUrl(packed) })),
        },
    geometry,
    dress,
    light: siteLight(project.body, setting),
    actions: actionsOf({ model, action }),
  };
}
