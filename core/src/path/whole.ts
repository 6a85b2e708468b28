import type { Path, PathNode } from '../document/index.ts';
import { PlanCurve } from './plan-curve.ts';

/** Height of the surface at a place near a height, metres; null where there is none. */
export type SurfaceNear = (x: number, z: number, near: number) => number | null;

/** A corner that turns nearly back would go very far aside: no farther than so many times as its legs. */
const LONGEST_MITRE = 3;

const put = (node: PathNode, x: number, z: number, surfaceNear: SurfaceNear): PathNode => {
  const y = surfaceNear(x, z, node.y);
  return { ...node, x, z, ...(y === null ? {} : { y, surface: true as const }) };
};

/**
 * A path that runs beside another one.
 * @param distance to the right, metres; to the left where negative
 */
export function movedAside(path: Path, distance: number, surfaceNear: SurfaceNear): Path {
  const { nodes, closed } = path;
  if (nodes.length < 2) return path;
  const curve = new PlanCurve(path);
  const direction = new Float64Array(2);
  const count = nodes.length;
  const leg = (i: number): [number, number] | null => {
    const [a, b] = [nodes[(i + count) % count]!, nodes[(i + 1 + count) % count]!];
    const length = Math.hypot(b.x - a.x, b.z - a.z);
    return (!closed && (i < 0 || i + 1 >= count)) || length === 0 ? null : [(b.x - a.x) / length, (b.z - a.z) / length];
  };
  return {
    ...path,
    nodes: nodes.map((node, i) => {
      const [before, after] = [leg(i - 1), leg(i)];
      if (node.kind === 'corner' && before && after) {
        // Where both legs meet beside each other: along the middle of the corner, as far as that is.
        const scale = Math.min(LONGEST_MITRE, 1 / Math.max(1e-6, 1 + before[0] * after[0] + before[1] * after[1]));
        const [x, z] = [-(before[1] + after[1]) * scale, (before[0] + after[0]) * scale];
        return put(node, node.x + x * distance, node.z + z * distance, surfaceNear);
      }
      curve.directionAt(curve.nodeStations[i]!, direction);
      return put(node, node.x - direction[1]! * distance, node.z + direction[0]! * distance, surfaceNear);
    }),
  };
}

/** A path mirrored on the line from its first to its last node (a closed one: on the line from its first node to its middle). */
export function mirrored(path: Path, surfaceNear: SurfaceNear): Path {
  const [first] = path.nodes;
  if (!first || path.nodes.length < 3) return path;
  const other = path.closed ? middleOf(path.nodes) : path.nodes.at(-1)!;
  const [dx, dz] = [other.x - first.x, other.z - first.z];
  const length2 = dx * dx + dz * dz;
  // Two places that are one show no direction.
  if (length2 < 1e-6) return path;
  return {
    ...path,
    nodes: path.nodes.map((node) => {
      const t = ((node.x - first.x) * dx + (node.z - first.z) * dz) / length2;
      const [fx, fz] = [first.x + t * dx, first.z + t * dz];
      return put(node, 2 * fx - node.x, 2 * fz - node.z, surfaceNear);
    }),
  };
}

/** A path turned about its middle. @param angle radians, to the left as seen from above */
export function turned(path: Path, angle: number, surfaceNear: SurfaceNear): Path {
  const centre = middleOf(path.nodes);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return {
    ...path,
    nodes: path.nodes.map((node) => {
      const [dx, dz] = [node.x - centre.x, node.z - centre.z];
      return put(node, centre.x + c * dx + s * dz, centre.z - s * dx + c * dz, surfaceNear);
    }),
  };
}

/** Nodes between the first and the last of some, put onto the straight line between these two. */
export function straightenedBetween(path: Path, ids: readonly string[], surfaceNear: SurfaceNear): Path {
  const chosen = path.nodes.flatMap(({ id }, i) => (ids.includes(id) ? [i] : []));
  const [from, to] = [chosen[0], chosen.at(-1)];
  if (from === undefined || to === undefined || to - from < 2) return path;
  const [a, b] = [path.nodes[from]!, path.nodes[to]!];
  const [dx, dz] = [b.x - a.x, b.z - a.z];
  const length2 = dx * dx + dz * dz || 1;
  return {
    ...path,
    nodes: path.nodes.map((node, i) => {
      if (i <= from || i >= to) return node;
      // Where it is along the line; a node that lies beyond its ends stays between them.
      const t = Math.min(1, Math.max(0, ((node.x - a.x) * dx + (node.z - a.z) * dz) / length2));
      return put(node, a.x + t * dx, a.z + t * dz, surfaceNear);
    }),
  };
}

/** A closed path that begins at another of its nodes. */
export function beginningAt(path: Path, id: string): Path {
  const i = path.nodes.findIndex((node) => node.id === id);
  if (!path.closed || i <= 0) return path;
  return { ...path, nodes: [...path.nodes.slice(i), ...path.nodes.slice(0, i)] };
}

/** The middle of nodes in plan: what a path is turned about. */
export function middleOf(nodes: readonly PathNode[]): { x: number; z: number } {
  const sum = nodes.reduce((all, { x, z }) => ({ x: all.x + x, z: all.z + z }), { x: 0, z: 0 });
  return { x: sum.x / nodes.length, z: sum.z / nodes.length };
}
