import { FIRST_WALKER, type BodyOf, type SiteLight } from '@eskovan/core/document';
import {
  countTriangles,
  listMovements,
  ownBounds,
  packModel,
  READER,
  readModel,
  unpackModel,
} from '@eskovan/core/format';
import { assemble, lightOfLamps, ownLight, packLit, siteLight } from '@eskovan/core/site';
import {
  drawWalkway,
  LightBake,
  packFooting,
  SURVEY_ALGORITHM,
  surveyModel,
  Walkway,
  type Survey,
} from '@eskovan/core/survey';
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { COMMISSION_MODELS, modelGlb, type CommissionModel } from '../commission-models.ts';
import { ACTIONS, LIGHTS, PROJECT } from './commission.ts';
import { gatherLight } from './gather.ts';
import { idOf } from './id.ts';

export interface PreparedModel {
  entry: CommissionModel;
  id: string;
  source: Uint8Array;
  packed: Uint8Array;
  triangles: number;
  bounds: BodyOf<'model'>['bounds'];
  movements: BodyOf<'model'>['movements'];
}

export interface Prepared {
  models: PreparedModel[];
  /** All of it together, in each light: picture data, and a stand-in where they are heavy. */
  lights: { light: SiteLight; scene: Uint8Array; glance: Uint8Array | null }[];
  /** Walkable triangles, navigation mesh, survey. */
  floor: Uint8Array;
  walkway: Uint8Array;
  survey: Survey;
}

/** Builds, reads, measures and lights the commission, once per version of its generators and algorithms. */
export async function prepareCommission(cache: string): Promise<Prepared> {
  const models = await Promise.all(
    COMMISSION_MODELS.map(async (entry): Promise<PreparedModel> => {
      const source = await modelGlb(entry);
      const model = await readModel(source, entry.fileName);
      return {
        entry,
        id: idOf(`model ${entry.key}`),
        source,
        packed: packModel(model),
        triangles: countTriangles(model),
        bounds: ownBounds(model)!,
        movements: listMovements(model),
      };
    }),
  );
  const whole = [ownLight(PROJECT), ...LIGHTS.map(({ body }) => body)].map((one) => siteLight(PROJECT, one));
  const lamps = ACTIONS.flatMap(({ body }) => (body.kind === 'dim' ? [{ model: body.model, name: body.part }] : []));
  // In whichever light they are lit, they give the same.
  const dimmed = lamps.flatMap((one) => whole.flatMap((light) => lightOfLamps(light, one) ?? []).slice(0, 1));
  const lights = [...whole, ...dimmed];
  const hash = createHash('sha256').update(JSON.stringify([SURVEY_ALGORITHM, READER, lights, FIRST_WALKER]));
  for (const { source, entry } of models) hash.update(source).update(JSON.stringify(entry.placement));
  const folder = join(cache, hash.digest('hex').slice(0, 16));
  const path = (name: string) => join(folder, name);
  if (!existsSync(path('survey.json'))) {
    const site = assemble(
      models.map(({ id, entry, packed }) => ({ id, model: unpackModel(packed), placement: entry.placement })),
    );
    // Beside everything else: it takes longest.
    const gathering = gatherLight(site, lights);
    const { survey: measured, footing } = surveyModel(site, FIRST_WALKER);
    const walkway = (await Walkway.build(site, measured, FIRST_WALKER))!;
    const survey = drawWalkway(measured, walkway);
    await mkdir(folder, { recursive: true });
    const bake = new LightBake(site, lights);
    const gathered = await gathering;
    for (let i = 0; i < lights.length; i += 1) {
      const { scene, glance } = await packLit(bake.finish(gathered, i), lights[i]!);
      await writeFile(path(`scene-${i}.bin`), scene);
      if (glance) await writeFile(path(`glance-${i}.bin`), glance);
    }
    await writeFile(path('walkway.bin'), walkway.bytes());
    await writeFile(path('floor.bin'), packFooting(footing));
    // Last: its presence says that the others are whole.
    await writeFile(path('survey.json'), JSON.stringify(survey));
  }
  return {
    models,
    lights: await Promise.all(
      lights.map(async (light, i) => ({
        light,
        scene: await readFile(path(`scene-${i}.bin`)),
        glance: existsSync(path(`glance-${i}.bin`)) ? await readFile(path(`glance-${i}.bin`)) : null,
      })),
    ),
    floor: await readFile(path('floor.bin')),
    walkway: await readFile(path('walkway.bin')),
    survey: JSON.parse(await readFile(path('survey.json'), 'utf8')) as Survey,
  };
}
