import type { PartInfo } from '../../worker/parts.ts';

/** A named part, or a group of parts whose names begin alike. */
export interface PartNode {
  /** The last word of its path. */
  label: string;
  model: string;
  /** The whole path, joined by " / ". */
  path: string;
  triangles: number;
  /** Names of the materials of a single part; empty for a group. */
  materials: string[];
  /** Names of all parts that it stands for. */
  names: string[];
  children: PartNode[];
}

/** The tree that part names spell: "Hall / Table / Leg" lies under "Hall / Table". Order as in the file. */
export function treeOf(parts: readonly PartInfo[], model: string): PartNode[] {
  const roots: PartNode[] = [];
  const known = new Map<string, PartNode>();
  for (const part of parts) {
    if (part.model !== model) continue;
    const words = part.name.split(' / ');
    let siblings = roots;
    for (let depth = 1; depth <= words.length; depth += 1) {
      const path = words.slice(0, depth).join(' / ');
      let node = known.get(path);
      if (!node) {
        node = { label: words[depth - 1]!, model, path, triangles: 0, materials: [], names: [], children: [] };
        known.set(path, node);
        siblings.push(node);
      }
      node.triangles += part.triangles;
      node.names.push(part.name);
      if (depth === words.length) node.materials = part.materials.map(({ name }) => name);
      siblings = node.children;
    }
  }
  return roots;
}

/** All nodes whose label or material holds the words looked for, in order. */
export function findNodes(roots: readonly PartNode[], wanted: string): PartNode[] {
  const words = wanted.trim().toLowerCase();
  return roots.flatMap((node) => [
    ...([node.label, ...node.materials].some((name) => name.toLowerCase().includes(words)) ? [node] : []),
    ...findNodes(node.children, wanted),
  ]);
}
