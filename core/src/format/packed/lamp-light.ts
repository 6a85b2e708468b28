import { z } from 'zod';
import { FormatError } from '../errors.ts';
import type { SceneModel } from '../scene-model.ts';
import { openBlocks, packBlocks, type BlockFormat } from './blocks.ts';
import { fromSixteen, toSixteen } from './sixteen.ts';

const count = z.int().min(0);
const headerSchema = z.object({
  /** How many parts the site has. */
  parts: count,
  /** Those that get light, by number, and how many vertices they have. */
  lit: z.array(z.object({ part: count, vertices: count })),
});

const bad = (reason: string) => new FormatError('damaged', 'light of lamps', reason, 'It will be computed again.');

/**
 * What some lamps of a site give by themselves, for every part that they reach: to be taken off the light of the packed
 * model. “ESKL”, and a block for each part that is lit.
 */
const LAMP_LIGHT: BlockFormat<z.infer<typeof headerSchema>> = {
  magic: 0x4c4b5345,
  version: 1,
  header: headerSchema,
  name: 'the light of lamps',
  bad,
};

/** What lamps give: three numbers a vertex for each part; null where that is nothing. */
export type LampLight = readonly (Float32Array | null)[];

/** @param model the site as a bake lit it with these lamps and nothing else */
export function packLampLight({ parts }: Pick<SceneModel, 'parts'>): Uint8Array<ArrayBuffer> {
  const lit = parts.flatMap(({ light }, part) => {
    const values = light && toSixteen(light.ambient);
    return values?.some((value) => value > 0) ? [{ part, values }] : [];
  });
  const header = { parts: parts.length, lit: lit.map(({ part, values }) => ({ part, vertices: values.length / 3 })) };
  return packBlocks(
    LAMP_LIGHT,
    header,
    lit.map(({ values }) => values),
  );
}

/** @throws FormatError when the bytes are not what {@link packLampLight} makes */
export function unpackLampLight(bytes: Uint8Array): LampLight {
  const {
    header: { parts, lit },
    take,
  } = openBlocks(bytes, LAMP_LIGHT);
  const out = Array.from({ length: parts }, (): Float32Array | null => null);
  for (const { part, vertices } of lit) {
    if (part >= parts) throw bad(`it lights part ${part} of ${parts}.`);
    out[part] = fromSixteen(take(6 * vertices));
  }
  return out;
}
