import type { PartInfo, PartMaterial } from '../../worker/parts.ts';

/** A material of a model and how much of it there is. */
export interface MaterialUse extends PartMaterial {
  /** Number of parts that have it. */
  parts: number;
}

/** The parts of a model that have a material. */
export const partsOf = (parts: readonly PartInfo[], { model, name }: { model: string; name: string }): PartInfo[] =>
  parts.filter((part) => part.model === model && part.materials.some((material) => material.name === name));

/** The materials of a model by name, each with the number of its parts. */
export function materialsOf(parts: readonly PartInfo[], model: string): MaterialUse[] {
  const known = new Map<string, MaterialUse>();
  for (const part of parts) {
    if (part.model !== model) continue;
    for (const material of part.materials) {
      const use = known.get(material.name);
      if (use) use.parts += 1;
      else known.set(material.name, { ...material, parts: 1 });
    }
  }
  return [...known.values()].sort((a, b) => a.name.localeCompare(b.name, 'en'));
}
