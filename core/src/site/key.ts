import {
  canonicalJson,
  type Lens,
  type ModelBody,
  type Pose,
  type ProjectBody,
  type SiteLight,
} from '../document/index.ts';

/** By material: is it lit? Only what people decided, against what its file says. */
export type LitMaterials = Readonly<Record<string, boolean>>;

interface InputModel {
  id: string;
  packed: string;
  placement: ModelBody['placement'];
  /** Absent where nobody decided anything. */
  lit?: LitMaterials;
}

/** What a site is computed from; its light comes on top of it. */
export interface SiteInput {
  models: InputModel[];
  walker: ProjectBody['walker'];
  /** What people corrected about the storeys. */
  storeys: ProjectBody['storeyChanges'];
}

/** A model that has been read, as a site is computed from it. */
export function inputModel({
  id,
  body: { packed, placement, materials },
}: {
  id: string;
  body: ModelBody;
}): InputModel {
  const decided = Object.entries(materials).flatMap(([name, { light }]) =>
    light ? [[name, light === 'lit'] as const] : [],
  );
  return {
    id,
    packed: packed!.file.sha256,
    placement,
    ...(decided.length > 0 ? { lit: Object.fromEntries(decided) } : {}),
  };
}

/** The shown models of a project, and who walks there; null while there is none, or one still has to be read again. */
export function siteInput(
  project: ProjectBody,
  models: readonly { id: string; body: ModelBody }[],
  reader: number,
): SiteInput | null {
  const shown = models.filter(({ body }) => !body.hidden);
  if (shown.length === 0 || shown.some(({ body }) => body.packed?.reader !== reader)) return null;
  return {
    models: shown.map(inputModel),
    walker: project.walker,
    storeys: project.storeyChanges,
  };
}

/** The name of a site: equal for equal inputs and the same algorithms. 28 hexadecimal digits. */
export const siteKey = (input: SiteInput, algorithm: number): string =>
  fingerprint([algorithm, input.walker, input.storeys, inOrder(input.models, 'in any light')]);

/** The name of models that stand in their places, whoever walks there and whatever light it is. */
export const geometryKey = ({ models }: Pick<SiteInput, 'models'>): string =>
  fingerprint(inOrder(models, 'in any light'));

/** The name of a site in a light: another walker sees the same. */
export const lightKey = (input: Pick<SiteInput, 'models'>, light: SiteLight, algorithm: number): string =>
  fingerprint([algorithm, light, inOrder(input.models)]);

/** Names a picture of a site in a light, from a pose. */
export const lightPictureKey = (light: string, exposure: number, pose: Pose, lens: Lens): string =>
  fingerprint([light, exposure, pose, lens]);

const inOrder = (models: SiteInput['models'], light?: 'in any light') =>
  models.map(({ lit, ...model }) => (lit && !light ? { ...model, lit } : model)).sort((a, b) => (a.id < b.id ? -1 : 1));

/** Names anything by what it is: equal for equal values, whatever the order of their members. 28 hexadecimal digits. */
export function fingerprint(what: unknown): string {
  const text = canonicalJson(what);
  return (hash53(text, 1).toString(16).padStart(14, '0') + hash53(text, 2).toString(16).padStart(14, '0')).slice(0, 28);
}

/** A 53-bit mixing hash: for telling inputs apart, not against attackers. */
function hash53(text: string, seed: number): number {
  let a = 0xdeadbeef ^ seed;
  let b = 0x41c6ce57 ^ seed;
  for (let i = 0; i < text.length; i += 1) {
    const code = text.charCodeAt(i);
    a = Math.imul(a ^ code, 2654435761);
    b = Math.imul(b ^ code, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return 4_294_967_296 * (2_097_151 & b) + (a >>> 0);
}
