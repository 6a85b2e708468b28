import { ownName } from '../document/index.ts';
import { PLAIN_MATERIAL, type ReadModel, type SceneMaterial } from './scene-model.ts';

/** Words for glass in names of parts and materials, in the languages that models mostly come in. */
const GLASS = /glas|glaz|(^|[^a-z])panes?([^a-z]|$)|vitrage|vitre|(^|[^a-z])verre|vidrio|(^|[^a-z])vetro/i;
/** What only sounds like it: insulation, what holds a pane, and what one reads or measures with. */
const NO_GLASS =
  /fib(er|re)-?glas|glas[s]?[ _-]?(fib|fas|wo[lo])|(foam|schaum)[ _-]?glas|glasses|hour-?glass|frame|rahmen|cadre|holder|bead/i;

/** Do these words name glass? */
export const saysGlass = (name: string): boolean => GLASS.test(name) && !NO_GLASS.test(name);

/** Clear window glass. */
const PANE: Pick<SceneMaterial, 'color' | 'opacity' | 'roughness'> = {
  color: [0.75, 0.86, 0.86],
  opacity: 0.25,
  roughness: 0.05,
};

/** Is nothing known of it but its name? */
const isPlain = ({ name: _, ...material }: SceneMaterial): boolean => {
  const { name: __, ...plain } = PLAIN_MATERIAL;
  return JSON.stringify(material) === JSON.stringify(plain);
};

/** So many parts are named in a note. */
const NAMED = 3;

/**
 * Where a file says nothing of a material, what is called glass is glass: rooms behind panes that nobody sees through would
 * be dark. The note says which.
 */
export function glassByName(model: ReadModel): ReadModel {
  const plain = model.materials.map((material) => isPlain(material) && { glass: saysGlass(material.name) });
  const panes = new Set(
    model.parts.filter(({ name, material, role }) => {
      const known = plain[material];
      return role !== 'terrain' && known && (known.glass || saysGlass(ownName(name)));
    }),
  );
  if (panes.size === 0) return model;
  const materials = [...model.materials];
  const glass = new Map<number, number>();
  const clear = (index: number): number => {
    const known = glass.get(index);
    if (known !== undefined) return known;
    const { name } = materials[index]!;
    const made = materials.push({ ...PLAIN_MATERIAL, ...PANE, name: saysGlass(name) ? name : 'Glass' }) - 1;
    glass.set(index, made);
    return made;
  };
  const parts = model.parts.map((part) => (panes.has(part) ? { ...part, material: clear(part.material) } : part));
  const names = [...new Set([...panes].map(({ name }) => ownName(name)))];
  const said = names.slice(0, NAMED).map((name) => `“${name}”`);
  const more = names.length > NAMED ? ` and ${names.length - NAMED} more` : '';
  return {
    ...model,
    parts,
    materials,
    notes: [
      ...model.notes,
      `The file says nothing of the material of ${said.join(', ')}${more}: taken as glass, as ${names.length === 1 ? 'it is' : 'they are'} called so. Change the material where that is wrong.`,
    ],
  };
}
