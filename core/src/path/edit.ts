import type { Path, PathNode } from '../document/index.ts';
import { PlanCurve } from './plan-curve.ts';

/** Every edit returns a new path; the old one stays as it was (undo keeps it). */

export function appendNode(path: Path, node: PathNode): Path {
  return { ...path, nodes: [...path.nodes, node] };
}

/** @param surface height of the surface there, metres; null where there is none: the node keeps its height */
export function moveNode(path: Path, id: string, x: number, z: number, surface: number | null = null): Path {
  const onto = surface === null ? {} : { y: surface, surface: true as const };
  return { ...path, nodes: path.nodes.map((node) => (node.id === id ? { ...node, x, z, ...onto } : node)) };
}

/**
 * Puts a node onto the path where it is nearest to (x, z), between the two nodes it lies between.
 * @param surface height of the surface there, metres; null where there is none: the height of the node before
 */
export function insertNode(path: Path, id: string, x: number, z: number, surface: number | null = null): Path {
  if (path.nodes.length < 2) throw new RangeError('a node can be inserted between two others only');
  const curve = new PlanCurve(path);
  const { station, span } = curve.nearest(x, z);
  const point = new Float64Array(2);
  curve.pointAt(station, point);
  const before = path.nodes[span]!;
  const node: PathNode = {
    id,
    x: point[0]!,
    y: surface ?? before.y,
    z: point[1]!,
    ...(surface === null ? {} : { surface: true }),
    kind: 'smooth',
    radius: before.radius,
  };
  return { ...path, nodes: [...path.nodes.slice(0, span + 1), node, ...path.nodes.slice(span + 1)] };
}

export function deleteNode(path: Path, id: string): Path {
  return { ...path, nodes: path.nodes.filter((node) => node.id !== id) };
}

export function setNodeKind(path: Path, id: string, kind: PathNode['kind']): Path {
  return { ...path, nodes: path.nodes.map((node) => (node.id === id ? { ...node, kind } : node)) };
}

/** The other way; a closed path begins where it did. */
export function reversePath(path: Path): Path {
  const [first, ...others] = path.nodes;
  if (path.closed && first) return { ...path, nodes: [first, ...others.reverse()] };
  return { ...path, nodes: [...path.nodes].reverse() };
}

export function setClosed(path: Path, closed: boolean): Path {
  return { ...path, closed };
}

/**
 * A path that goes on along another one: from whichever end of it is nearer, or once round one that is closed, from its
 * nearest node. Without nodes of its own it becomes that one.
 */
export function goneOnAlong(path: Path, line: Path): Path {
  const last = path.nodes.at(-1);
  if (!last) return line;
  const away = ({ x, y, z }: PathNode) => Math.hypot(x - last.x, y - last.y, z - last.z);
  const { nodes } = line;
  let added = nodes;
  if (line.closed) {
    const first = nodes.reduce((best, node, i) => (away(node) < away(nodes[best]!) ? i : best), 0);
    added = [...nodes.slice(first), ...nodes.slice(0, first)];
  } else if (nodes.length > 1 && away(nodes.at(-1)!) < away(nodes[0]!)) added = [...nodes].reverse();
  return { nodes: [...path.nodes, ...added], closed: false };
}
