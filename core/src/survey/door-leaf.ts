import { ownName } from '../document/index.ts';
import type { ScenePart } from '../format/index.ts';

/** A door leaf stands in nobody's way: people open it. */
export const isDoorLeaf = ({ role, name }: Pick<ScenePart, 'role' | 'name'>): boolean =>
  role === 'door' || /\bdoors?\b/i.test(ownName(name));
