/** A part, or a group of parts whose names begin with the same words. */
export interface PartPath {
  model: string;
  name: string;
}

/** Does a part's name belong to a path: the same, or one of its group? */
export const isWithin = (name: string, path: string) => name === path || name.startsWith(`${path} / `);

/** The part's own name: names say where parts belong, from the outside in. */
export const ownName = (name: string): string => name.split(' / ').at(-1)!;
