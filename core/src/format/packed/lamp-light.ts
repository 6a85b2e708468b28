import { z } from 'zod';
import { FormatError } from '../errors.ts';
import type { SceneModel } from '../scene-model.ts';
import { aligned, fromSixteen, toSixteen } from './sixteen.ts';

/**
 * What some lamps of a site give by themselves, for every part that they reach: to be taken off the light of the packed
 * model. "ESKL", version, length of the header, header (JSON), then the arrays, each aligned to four bytes.
 */
const MAGIC = 0x4c4b5345;
const VERSION = 1;

const count = z.int().min(0);
const headerSchema = z.object({
  /** How many parts the site has. */
  parts: count,
  /** Those that get light, by number, and how many vertices they have. */
  lit: z.array(z.object({ part: count, vertices: count })),
});

/** What lamps give: three numbers a vertex for each part; null where that is nothing. */
export type LampLight = readonly (Float32Array | null)[];

/** @param model the site as a bake lit it with these lamps and nothing else */
export function packLampLight({ parts }: Pick<SceneModel, 'parts'>): Uint8Array<ArrayBuffer> {
  const lit = parts.flatMap(({ light }, part) => {
    const values = light && toSixteen(light.ambient);
    return values?.some((value) => value > 0) ? [{ part, values }] : [];
  });
  const header = new TextEncoder().encode(
    JSON.stringify({
      parts: parts.length,
      lit: lit.map(({ part, values }) => ({ part, vertices: values.length / 3 })),
    } satisfies z.infer<typeof headerSchema>),
  );
  const start = 12 + aligned(header.byteLength);
  const out = new Uint8Array(lit.reduce((sum, { values }) => sum + aligned(values.byteLength), start));
  const view = new DataView(out.buffer);
  view.setUint32(0, MAGIC, true);
  view.setUint32(4, VERSION, true);
  view.setUint32(8, header.byteLength, true);
  out.set(header, 12);
  let offset = start;
  for (const { values } of lit) {
    out.set(new Uint8Array(values.buffer), offset);
    offset += aligned(values.byteLength);
  }
  return out;
}

/** @throws FormatError when the bytes are not what {@link packLampLight} makes */
export function unpackLampLight(bytes: Uint8Array): LampLight {
  const bad = (reason: string) => new FormatError('damaged', 'light of lamps', reason, 'It will be computed again.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.byteLength < 12 || view.getUint32(0, true) !== MAGIC) throw bad('this is not the light of lamps.');
  if (view.getUint32(4, true) !== VERSION) throw bad(`it is version ${view.getUint32(4, true)}, wanted ${VERSION}.`);
  const length = view.getUint32(8, true);
  if (12 + length > bytes.byteLength) throw bad('it ends inside its header.');
  const { parts, lit } = headerSchema.parse(JSON.parse(new TextDecoder().decode(bytes.subarray(12, 12 + length))));
  const out = Array.from({ length: parts }, (): Float32Array | null => null);
  let offset = 12 + aligned(length);
  for (const { part, vertices } of lit) {
    const size = 6 * vertices;
    if (part >= parts) throw bad(`it lights part ${part} of ${parts}.`);
    if (offset + size > bytes.byteLength) throw bad('it ends early.');
    out[part] = fromSixteen(bytes.slice(offset, offset + size).buffer as ArrayBuffer);
    offset += aligned(size);
  }
  return out;
}
