import { aspectOf, DEFAULT_LENS, type BodyOf, type ProjectDocument, type Row } from '@eskovan/core/document';
import { joinBounds } from '@eskovan/core/geometry';
import { firstLook, lightPictureKey, ownLight, placeBounds, siteInput, type LightSetting } from '@eskovan/core/site';
import { READER } from '@eskovan/core/format';
import { useEffect } from 'react';
import { uploadFile } from '../../data/api.ts';
import { changing, liveRows } from '../../data/changes.ts';
import { currentRow, givenOf, saveForMachine } from '../../data/edits.ts';
import { useProject } from '../../data/use-project.ts';
import { drawAside } from '../../picture/aside.ts';
import { worthSeeing } from '../../picture/eye.ts';
import { namedLight } from '../../site/named-light.ts';
import { sizeAcross } from '../../picture/source.ts';
import { pictureScene } from '../../site/picture-scene.ts';
import { useSiteState } from '../../site/site-state.ts';

const WIDTH = 400;
const busy = new Set<string>();

type Lit = Row<'light'> | Row<'project'>;
const isLight = (row: Lit): row is Row<'light'> => 'instant' in row.body;
const settingOf = (row: Lit): LightSetting => (isLight(row) ? row.body : ownLight(row.body));

/**
 * Draws the pictures of lights that have none, or one of another light: from the first view, all from the same place.
 * Only lights that are there as a whole are drawn; pictures never hold up the work on light.
 */
export function useLightPictures(): void {
  const document = useProject();
  const lit = useSiteState((state) => (state.projectId === document.project.id ? state.lit : null));
  const atRest = useSiteState((state) => state.working === null && state.error === null);
  useEffect(() => {
    if (!lit || !atRest) return;
    for (const row of [document.project, ...liveRows(document.light)]) void drawLight(document, row, lit);
  }, [document, lit, atRest]);
}

/** Where all lights of a project are looked at from. */
function standpoint({ project, view, model }: ProjectDocument) {
  const [first] = liveRows(view);
  if (first) return first.body;
  const all = joinBounds(liveRows(model).map(({ body }) => placeBounds(body.bounds, body.placement)));
  return all && { pose: firstLook(worthSeeing(all, null), aspectOf(project.body)), lens: DEFAULT_LENS };
}

async function drawLight(
  document: ProjectDocument,
  row: Lit,
  lights: ReturnType<typeof useSiteState.getState>['lit'],
): Promise<void> {
  const { project, model } = document;
  const input = siteInput(project.body, liveRows(model), READER);
  const from = standpoint(document);
  if (!input || !from) return;
  const setting = settingOf(row);
  const { key } = namedLight(project.body, input, setting);
  const lit = lights[key];
  const { pose, lens } = from;
  const of = lightPictureKey(key, setting.exposure, pose, lens);
  if (!lit || lit.first || row.body.picture?.of === of || busy.has(row.id + of)) return;
  busy.add(row.id + of);
  try {
    const size = sizeAcross(WIDTH, aspectOf(project.body));
    const whole = pictureScene(document, setting, lit, null)!;
    // A light is shown as it is before anything dims.
    const scene = { ...whole, actions: whole.actions.filter(({ kind }) => kind !== 'dim') };
    const file = await uploadFile(await drawAside({ scene, pose, lens, size }), 'image/webp');
    if (isLight(row)) keepPicture('light', row, { of, file }, ['instant', 'sky', 'lamps', 'exposure']);
    else keepPicture('project', row, { of, file }, ['sun', 'sky', 'lamps', 'exposure']);
  } catch {
    // A light without a picture still works; it is tried again when the card is shown the next time.
  } finally {
    busy.delete(row.id + of);
  }
}

/**
 * Of whoever has changed the light meanwhile another picture is wanted; this one is of what was.
 * @param given members that the light is made of
 */
function keepPicture<K extends 'light' | 'project'>(
  kind: K,
  row: Row<K>,
  picture: Lit['body']['picture'],
  given: readonly (keyof BodyOf<K> & string)[],
): void {
  const now = currentRow(row.projectId, kind, row.id);
  if (!now || now.deleted) return;
  saveForMachine(
    row.projectId,
    `Picture of ${row.name}`,
    changing(kind, now, { body: { ...now.body, picture } }),
    givenOf(kind, row, given),
  );
}
