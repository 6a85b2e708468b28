import { FIRST_SUN, FIRST_WALKER, type BodyOf } from '@eskovan/core/document';
import {
  countTriangles,
  listMovements,
  ownBounds,
  packModel,
  READER,
  readModel,
  unpackModel,
} from '@eskovan/core/format';
import { assemble, glanceOf, sunDirection } from '@eskovan/core/site';
import {
  bakeLight,
  drawWalkway,
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
import { idOf } from './commission.ts';

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
  /** All of it together: lit picture data, walkable triangles, navigation mesh, survey. */
  scene: Uint8Array;
  /** Its stand-in, where it is heavy. */
  glance: Uint8Array | null;
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
  const hash = createHash('sha256').update(JSON.stringify([SURVEY_ALGORITHM, READER, FIRST_SUN, FIRST_WALKER]));
  for (const { source, entry } of models) hash.update(source).update(JSON.stringify(entry.placement));
  const folder = join(cache, hash.digest('hex').slice(0, 16));
  const path = (name: string) => join(folder, name);
  if (!existsSync(path('survey.json'))) {
    const site = assemble(
      models.map(({ id, entry, packed }) => ({ id, model: unpackModel(packed), placement: entry.placement })),
    );
    const { survey: measured, footing } = surveyModel(site, FIRST_WALKER);
    const walkway = (await Walkway.build(site, measured, FIRST_WALKER))!;
    const survey = drawWalkway(measured, walkway);
    const lit = bakeLight(site, sunDirection(FIRST_SUN));
    const glance = await glanceOf(lit);
    await mkdir(folder, { recursive: true });
    await writeFile(path('scene.bin'), packModel(lit));
    if (glance) await writeFile(path('glance.bin'), packModel(glance));
    await writeFile(path('walkway.bin'), walkway.bytes());
    await writeFile(path('floor.bin'), packFooting(footing));
    // Last: its presence says that the others are whole.
    await writeFile(path('survey.json'), JSON.stringify(survey));
  }
  return {
    models,
    scene: await readFile(path('scene.bin')),
    glance: existsSync(path('glance.bin')) ? await readFile(path('glance.bin')) : null,
    floor: await readFile(path('floor.bin')),
    walkway: await readFile(path('walkway.bin')),
    survey: JSON.parse(await readFile(path('survey.json'), 'utf8')) as Survey,
  };
}
