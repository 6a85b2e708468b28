import {
  ALL_LIT,
  isLit,
  isWithin,
  type Lamps,
  type Look,
  type MaterialLook,
  type PartLook,
  type PartPath,
} from '../document/index.ts';
import {
  glows,
  isGlass,
  PLAIN_MATERIAL,
  type SceneMaterial,
  type SceneModel,
  type ScenePart,
} from '../format/index.ts';

/** What a material is called, also where its file gives it no name. */
export const materialName = ({ name }: Pick<SceneMaterial, 'name'>): string => name.trim() || 'Without a name';

/** How a site is shown: its look, and what people changed of parts and of materials, by model and name. */
export interface Dress {
  look: Look;
  /** Stops. */
  exposure: number;
  parts: Readonly<Record<string, Readonly<Record<string, PartLook>>>>;
  materials: Readonly<Record<string, Readonly<Record<string, MaterialLook>>>>;
  /** What glows while it is switched on; all of it where nothing is said. */
  lamps?: Lamps;
  /** Everything else is left out. */
  alone?: PartPath | null;
}

const CLAY: SceneMaterial = { ...PLAIN_MATERIAL, name: 'Clay', color: [0.66, 0.64, 0.61] };
const PAPER: SceneMaterial = { ...PLAIN_MATERIAL, name: 'Paper', color: [0.93, 0.92, 0.89] };

/** A lamp that is switched off: the bulb is still there. */
const OFF = (material: SceneMaterial): SceneMaterial => ({ ...material, emissive: [0, 0, 0] });

/**
 * A site as it is to be drawn: hidden parts left out, materials changed. Light stays as it was baked. Glass stays
 * glass, and lamps go on shining in clay; those that are switched off do not.
 */
export function dressModel(
  model: SceneModel,
  { look, parts, materials: changed, lamps = ALL_LIT, alone }: Dress,
): SceneModel {
  const materials = [...model.materials];
  const known = new Map<string, number>();
  const material = (key: string, make: () => SceneMaterial): number => {
    let index = known.get(key);
    if (index === undefined) {
      index = materials.push(make()) - 1;
      known.set(key, index);
    }
    return index;
  };
  const dressed: ScenePart[] = [];
  for (const given of model.parts) {
    const switchedOff = glows(model.materials[given.material]!) && !isLit(lamps, given);
    const part = switchedOff
      ? { ...given, material: material(`${given.material} off`, () => OFF(model.materials[given.material]!)) }
      : given;
    const before = materials[part.material]!;
    const { model: id = '', name } = part;
    const own: PartLook = { ...changed[id]?.[materialName(before)], ...parts[id]?.[name] };
    if (alone ? id !== alone.model || !isWithin(name, alone.name) : own.hidden) continue;
    const glass = isGlass(before);
    // What is cut out of a picture keeps its outline in every look.
    const { cutOut, texture, maskTexture } = before;
    const outline = cutOut === undefined ? {} : { cutOut, maskTexture: maskTexture ?? texture ?? 0 };
    const shape = cutOut === undefined ? '' : `${cutOut} ${outline.maskTexture} ${maskTexture === undefined}`;
    // Unlit light says nothing of the shape.
    const shaded = { colors: null, ...(before.unlit ? { light: null } : {}) };
    if (look === 'line')
      dressed.push({
        ...part,
        material: glass ? part.material : material(`paper ${shape}`, () => ({ ...PAPER, ...outline })),
        ...shaded,
      });
    else if ((look === 'clay' || own.clay) && !glass)
      dressed.push({
        ...part,
        material: material(`clay ${before.emissive.join()} ${shape}`, () => ({
          ...CLAY,
          ...outline,
          emissive: before.emissive,
        })),
        ...shaded,
      });
    else if (own.color || own.roughness !== undefined)
      dressed.push({
        ...part,
        material: material(`${part.material} ${own.color?.join()} ${own.roughness}`, () => ({
          ...before,
          color: own.color ?? before.color,
          roughness: own.roughness ?? before.roughness,
          texture: own.color ? null : before.texture,
        })),
        ...(own.color ? { colors: null } : {}),
      });
    else dressed.push(part);
  }
  return { ...model, materials, parts: dressed };
}
