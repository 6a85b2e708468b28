import { MOST_NODES, type Path } from '../document/index.ts';

/** The longest way of one move, metres: more than an hour on foot; its floor is looked at every few centimetres. */
export const LONGEST_PATH = 5_000;

/** What makes a path more than a move can hold. */
export interface PathFault {
  rule: 'nodes' | 'length';
  /** Number of nodes, or metres. */
  worst: number;
  limit: number;
}

/** The first limit that a path exceeds, measured straight from node to node; null for one that exceeds none. */
export function pathFault({ nodes, closed }: Path): PathFault | null {
  if (nodes.length > MOST_NODES) return { rule: 'nodes', worst: nodes.length, limit: MOST_NODES };
  let length = 0;
  for (let i = closed ? 0 : 1; i < nodes.length; i += 1) {
    const [a, b] = [nodes.at(i - 1)!, nodes[i]!];
    length += Math.hypot(b.x - a.x, b.z - a.z);
  }
  return length > LONGEST_PATH ? { rule: 'length', worst: length, limit: LONGEST_PATH } : null;
}
