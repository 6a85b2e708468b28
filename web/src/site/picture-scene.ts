import { placeActions } from '@eskovan/core/action';
import type { ProjectDocument, SiteBody } from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { siteSun, type Dress, type PartPath } from '@eskovan/core/site';
import { fileUrl } from '../data/api.ts';
import { liveRows } from '../data/changes.ts';
import type { PictureScene, PictureSource } from '../picture/source.ts';

/** A lit site as the server keeps it; null while its light is being baked. */
const litSource = ({ scene, glance }: SiteBody): PictureSource | null =>
  scene && {
    kind: 'lit',
    url: fileUrl(scene.sha256),
    ...(glance ? { glance: fileUrl(glance.sha256) } : {}),
  };

/**
 * What the picture of a project is to show; null while none of its models is ready.
 * @param site the site that these very models ask for, where it is known
 * @param alone the only parts that are shown
 */
export function pictureScene(
  { project, model, action }: Pick<ProjectDocument, 'project' | 'model' | 'action'>,
  site: SiteBody | null,
  alone: PartPath | null,
): PictureScene | null {
  const { sun, look, exposure } = project.body;
  const shown = liveRows(model).filter(({ body }) => !body.hidden);
  const ready = shown.flatMap(({ id, body }) =>
    body.packed?.reader === READER ? [{ id, url: fileUrl(body.packed.file.sha256), placement: body.placement }] : [],
  );
  if (ready.length === 0) return null;
  const parts = Object.fromEntries(shown.map(({ id, body }) => [id, body.parts]));
  const materials = Object.fromEntries(shown.map(({ id, body }) => [id, body.materials]));
  const dress: Dress = { look, exposure, parts, materials, ...(alone ? { alone } : {}) };
  return {
    source: (site && litSource(site)) ?? { kind: 'plain', models: ready },
    dress,
    sun: siteSun(sun),
    actions: placeActions(
      liveRows(action).map(({ body }) => body),
      shown,
    ),
  };
}
