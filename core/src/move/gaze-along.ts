import type { Gaze, MoveBody, Vec3 } from '../document/index.ts';

/** A rigid move of a site's plan: about a place by an angle (to the left as seen from above), then by so much. */
export interface PlanShift {
  about?: { x: number; z: number };
  /** radians */
  angle?: number;
  dx?: number;
  dz?: number;
}

/**
 * A move whose places to look at are moved along with its path: free ones, lines and bearings. What looks at a thing goes on
 * looking at that thing.
 */
export function gazesAlong<M extends MoveBody>(body: M, shift: PlanShift): M {
  if (!('gaze' in body)) return body;
  const { gaze, gazeSpans } = body;
  return {
    ...body,
    gaze: shifted(gaze, shift),
    ...(gazeSpans && { gazeSpans: gazeSpans.map((span) => ({ ...span, gaze: shifted(span.gaze, shift) })) }),
  };
}

function shifted(gaze: Gaze, shift: PlanShift): Gaze {
  const { about = { x: 0, z: 0 }, angle = 0, dx = 0, dz = 0 } = shift;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const place = (x: number, z: number): [number, number] => {
    const [px, pz] = [x - about.x, z - about.z];
    return [about.x + c * px + s * pz + dx, about.z - s * px + c * pz + dz];
  };
  switch (gaze.kind) {
    case 'point': {
      const [x, z] = place(gaze.point[0], gaze.point[2]);
      return { ...gaze, point: [x, gaze.point[1], z] as Vec3 };
    }
    case 'line':
      return {
        ...gaze,
        path: {
          ...gaze.path,
          nodes: gaze.path.nodes.map((node) => {
            const [x, z] = place(node.x, node.z);
            return { ...node, x, z };
          }),
        },
      };
    case 'bearing':
      return { ...gaze, pan: gaze.pan + angle };
    case 'recorded':
      return { ...gaze, looks: gaze.looks.map((look) => ({ ...look, pan: look.pan + angle })) };
    default:
      return gaze;
  }
}
