import { readModel, type SceneModel } from '@eskovan/core/format';
import { assemble } from '@eskovan/core/site';
import { COMMISSION_MODELS, modelGlb } from './commission-models.ts';

/** All models of the commission in their places, read back from their files. */
export async function readCommission(): Promise<SceneModel> {
  return assemble(
    await Promise.all(
      COMMISSION_MODELS.map(async (entry) => ({
        id: entry.key,
        model: await readModel(await modelGlb(entry), entry.fileName),
        placement: entry.placement,
      })),
    ),
  );
}
