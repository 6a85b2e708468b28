import { isWithin, type PartPath } from '../document/index.ts';
import {
  glows,
  type BakedLight,
  type LampLight,
  type SceneMaterial,
  type SceneModel,
  type ScenePart,
} from '../format/index.ts';

/**
 * A lit site that knows what it has from lamps that can be dimmed.
 * @param lamps what each dimmer's lamps give by themselves; null for what is not lit
 * @returns null where one of them is of another site: its parts have other corners
 */
export function withShares(lit: SceneModel, lamps: readonly (LampLight | null)[]): SceneModel | null {
  const isOfSite = (light: LampLight) =>
    light.length === lit.parts.length &&
    light.every((share, i) => share === null || share.length === lit.parts[i]!.light?.ambient.length);
  if (!lamps.every((light) => !light || isOfSite(light))) return null;
  const parts = lit.parts.map((part, i): ScenePart =>
    part.light ? { ...part, light: { ...part.light, shares: lamps.map((light) => light && light[i]!) } } : part,
  );
  return { ...lit, parts };
}

/** Number of the dimmer that a part obeys; −1 for one that none has. */
export const dimmerOf = (
  dimmers: readonly PartPath[],
  { model = '', name }: Pick<ScenePart, 'model' | 'name'>,
): number => dimmers.findIndex((one) => one.model === model && isWithin(name, one.name));

/** A site as it is while its lamps give so much of their light: baked light, and what lamps send out themselves. */
export function dimmedModel(model: SceneModel, dimmers: readonly PartPath[], levels: readonly number[]): SceneModel {
  if (levels.every((level) => level === 1)) return model;
  const materials = [...model.materials];
  const known = new Map<string, number>();
  const dimmed = (material: number, level: number): number => {
    const key = `${material} ${level}`;
    let index = known.get(key);
    if (index === undefined) known.set(key, (index = materials.push(fainter(materials[material]!, level)) - 1));
    return index;
  };
  const parts = model.parts.map((part): ScenePart => {
    const own = dimmerOf(dimmers, part);
    const level = own < 0 ? 1 : levels[own]!;
    const material = level < 1 && glows(materials[part.material]!) ? dimmed(part.material, level) : part.material;
    return { ...part, material, light: part.light && lightAt(part.light, levels) };
  });
  return { ...model, materials, parts };
}

const fainter = (material: SceneMaterial, level: number): SceneMaterial => ({
  ...material,
  emissive: material.emissive.map((value) => value * level) as SceneMaterial['emissive'],
});

function lightAt({ ambient, sun, shares = [] }: BakedLight, levels: readonly number[]): BakedLight {
  const left = ambient.slice();
  shares.forEach((share, i) => {
    if (share) for (let k = 0; k < left.length; k += 1) left[k] = Math.max(0, left[k]! - (1 - levels[i]!) * share[k]!);
  });
  return { ambient: left, sun };
}
