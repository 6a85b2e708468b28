import type { BodyOf, LitBody, SiteBody } from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { lightKey, siteInput, siteKey } from '@eskovan/core/site';
import { SURVEY_ALGORITHM } from '@eskovan/core/survey';
import { randomBytes } from 'node:crypto';
import { SeedApi } from './api.ts';
import { idOf } from './id.ts';
import { ACTIONS, LIGHTS, MOVES, PROJECT, VIEWS } from './commission.ts';
import { drawPictures } from './pictures.ts';
import { prepareCommission } from './prepare.ts';
import { REEL_ROWS } from './reels.ts';

export { CHROMIUM } from './pictures.ts';
export { idOf } from './id.ts';
export { prepareCommission } from './prepare.ts';

export interface SeedOptions {
  /** Folder for what takes long to compute. */
  cache: string;
  /** false leaves out thumbnails and the first takes, which need a browser. */
  pictures?: boolean;
  /** Of takes there is a small film only, as tests need it. */
  brief?: boolean;
  say?: (text: string) => void;
}

export const DEMO_PROJECT = idOf('project');

/** Puts the demo commission into an empty studio; does nothing where it already is. Returns the project's id. */
export async function seedDemo(
  address: string,
  { cache, pictures = true, brief = false, say = () => {} }: SeedOptions,
): Promise<string> {
  const api = new SeedApi(address);
  const project = `/api/projects/${DEMO_PROJECT}`;
  if (await api.exists(`${project}/document`)) return DEMO_PROJECT;
  say('Building the demo commission (once)');
  const prepared = await prepareCommission(cache);
  await api.make(DEMO_PROJECT, 'New project', [
    { kind: 'project', id: DEMO_PROJECT, name: 'Ternholm Observatory', order: 0, body: PROJECT },
  ]);
  const models: { id: string; body: BodyOf<'model'> }[] = [];
  for (const [i, { entry, id, source, packed, triangles, bounds, movements }] of prepared.models.entries()) {
    const body: BodyOf<'model'> = {
      fileName: entry.fileName,
      source: await api.upload(source, 'model/gltf-binary'),
      packed: { reader: READER, file: await api.upload(packed, 'application/octet-stream') },
      declares: { metresPerUnit: 1, up: 'y' },
      bounds,
      guess: null,
      settled: true,
      triangles,
      placement: entry.placement,
      hidden: false,
      parts: {},
      materials: {},
      movements,
      notes: [],
    };
    models.push({ id, body });
    await api.make(DEMO_PROJECT, `Bring in ${entry.name}`, [
      { kind: 'model', id, name: entry.name, order: i + 1, body },
    ]);
  }
  const { survey } = prepared;
  const input = siteInput(PROJECT, models, READER)!;
  const key = siteKey(input, SURVEY_ALGORITHM);
  const site: SiteBody = {
    survey: await api.upload(JSON.stringify(survey), 'application/json'),
    floor: await api.upload(prepared.floor, 'application/octet-stream'),
    walkway: await api.upload(prepared.walkway, 'application/octet-stream'),
    first: false,
    bounds: survey.bounds,
    triangles: survey.triangles,
    storeys: survey.storeys.map(({ name, elevation, area }) => ({ name, elevation, area })),
  };
  await api.put(`${project}/sites/${key}`, site);
  for (const { light, scene, glance } of prepared.lights) {
    const lit: LitBody = {
      scene: await api.upload(scene, 'application/octet-stream'),
      glance: glance && (await api.upload(glance, 'application/octet-stream')),
      first: false,
    };
    await api.put(`${project}/lit/${lightKey(input, light, SURVEY_ALGORITHM)}`, lit);
  }
  const rows = <K extends 'action' | 'light' | 'move' | 'view'>(
    kind: K,
    list: readonly { name: string; body: BodyOf<K> }[],
  ) => list.map(({ name, body }, i) => ({ kind, id: idOf(`${kind} ${name}`), name, order: i + 1, body }));
  await api.make(DEMO_PROJECT, 'Lights, actions, moves and views', [
    ...rows('light', LIGHTS),
    ...rows('action', ACTIONS),
    ...rows('move', MOVES),
    ...rows('view', VIEWS),
  ]);
  await api.make(DEMO_PROJECT, 'Reels', REEL_ROWS);
  if (pictures) {
    say('Drawing its pictures and first takes');
    await drawPictures(address, DEMO_PROJECT, { views: VIEWS.length, lights: LIGHTS.length + 1, brief });
    await api.make(DEMO_PROJECT, 'New link', [
      {
        kind: 'link',
        id: idOf('link'),
        name: 'First look for the parish',
        order: 1,
        body: {
          // Made anew for every studio: a token that ships with the program would open every studio.
          token: randomBytes(32).toString('base64url'),
          takeIds: (await api.get<{ id: string }[]>(`${project}/takes`)).map(({ id }) => id),
          viewIds: VIEWS.map(({ name }) => idOf(`view ${name}`)),
          expires: null,
        },
      },
    ]);
  }
  return DEMO_PROJECT;
}
