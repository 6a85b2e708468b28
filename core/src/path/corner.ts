import { MOST_ROUNDING, type Path } from '../document/index.ts';

/** How a corner is rounded: where the arc begins on the leg that leads on, metres. */
export interface RoundedCorner {
  x: number;
  z: number;
  /** Along the leg that leads on, of length 1. */
  dx: number;
  dz: number;
  /** Rounding of a metre along that leg. */
  radiusPerMetre: number;
}

/** Turns less than this are no corners, radians. */
const STRAIGHT = 0.02;
/** Turns of up to this (127°) have the radius that they are given, radians: they begin two radii before their corner. */
const WIDE_TURN = 2 * Math.atan(2);

/**
 * How far from a corner its rounding begins, radii: the tangent of half the turn. Who turns back nearly all the way goes
 * nearly to where he turns, in a tighter curve: else no radius would do, and half of the way there would be left out.
 * @param turn radians, 0…π
 */
export const setbackPerRadius = (turn: number): number =>
  turn <= WIDE_TURN ? Math.tan(turn / 2) : (2 * (Math.PI - turn)) / (Math.PI - WIDE_TURN);

/** Where the rounding of a corner is taken hold of; null for what is no corner. */
export function roundedCorner({ nodes, closed }: Path, id: string): RoundedCorner | null {
  const i = nodes.findIndex((node) => node.id === id);
  const node = nodes[i];
  const before = nodes[i - 1] ?? (closed ? nodes.at(-1) : undefined);
  const after = nodes[i + 1] ?? (closed ? nodes[0] : undefined);
  if (!node || !before || !after || node.kind !== 'corner') return null;
  const [ax, az, bx, bz] = [node.x - before.x, node.z - before.z, after.x - node.x, after.z - node.z];
  const [a, b] = [Math.hypot(ax, az), Math.hypot(bx, bz)];
  const turn = Math.abs(Math.atan2(ax * bz - az * bx, ax * bx + az * bz));
  if (a === 0 || b === 0 || turn < STRAIGHT || turn > Math.PI - STRAIGHT) return null;
  const perRadius = setbackPerRadius(turn);
  const along = Math.min(node.radius * perRadius, Math.min(a, b) / 2);
  const [dx, dz] = [bx / b, bz / b];
  return { x: node.x + along * dx, z: node.z + along * dz, dx, dz, radiusPerMetre: 1 / perRadius };
}

export const setCornerRadius = (path: Path, id: string, radius: number): Path => ({
  ...path,
  nodes: path.nodes.map((node) =>
    node.id === id ? { ...node, radius: Math.min(MOST_ROUNDING, Math.max(0, radius)) } : node,
  ),
});
