import type { Bounds, Lens, Pose } from '@eskovan/core/document';
import { anglesOf, forwardOf, orientationOf, slerp, toDegrees } from '@eskovan/core/geometry';
import { Projection, throughLens } from '@eskovan/core/optics';
import {
  blockingOf,
  joinExtents,
  OUTSIDE,
  stepAside,
  type Blocking,
  type FloorIndex,
  type Survey,
} from '@eskovan/core/survey';

/** A body's half width when the scout walks, metres. */
const BODY = 0.22;

/** Turns the eye in place. Angles in radians. */
export function lookAround(pose: Pose, pan: number, tilt: number): Pose {
  const angles = anglesOf(pose.orientation);
  const limit = Math.PI / 2 - 0.02;
  return {
    position: pose.position,
    orientation: orientationOf({
      pan: angles.pan + pan,
      tilt: Math.min(limit, Math.max(-limit, angles.tilt + tilt)),
      roll: angles.roll,
    }),
  };
}

/** Moves the eye along its own axes, metres: forward, to the right, up. */
export function slide(pose: Pose, forward: number, right: number, up: number): Pose {
  const [fx, fy, fz] = forwardOf(pose.orientation);
  const { pan } = anglesOf(pose.orientation);
  const [rx, rz] = [Math.cos(pan), -Math.sin(pan)];
  const [x, y, z] = pose.position;
  return {
    position: [x + fx * forward + rx * right, y + fy * forward + up, z + fz * forward + rz * right],
    orientation: pose.orientation,
  };
}

/** Moves along a ray, for the wheel. */
export function approach(pose: Pose, direction: readonly [number, number, number], distance: number): Pose {
  const [x, y, z] = pose.position;
  return { ...pose, position: [x + direction[0] * distance, y + direction[1] * distance, z + direction[2] * distance] };
}

/** Goes round a fixed point: the point stays where it is in the picture. Angles in radians. */
export function goRound(pose: Pose, centre: readonly [number, number, number], pan: number, tilt: number): Pose {
  const turned = lookAround(pose, pan, tilt);
  const before = anglesOf(pose.orientation);
  const after = anglesOf(turned.orientation);
  const offset = pose.position.map((value, k) => value - centre[k]!) as [number, number, number];
  const flat = rotateAboutY(offset, after.pan - before.pan);
  // The tilt turns about the eye's own level axis.
  const axis: [number, number, number] = [Math.cos(after.pan), 0, -Math.sin(after.pan)];
  const moved = rotateAbout(flat, axis, after.tilt - before.tilt);
  return {
    position: [centre[0] + moved[0], centre[1] + moved[1], centre[2] + moved[2]],
    orientation: turned.orientation,
  };
}

type Triple = [number, number, number];

const rotateAboutY = ([x, y, z]: Triple, angle: number): Triple => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [x * c + z * s, y, -x * s + z * c];
};

/** Rodrigues' rotation. */
function rotateAbout(v: Triple, axis: Triple, angle: number): Triple {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const dot = v[0] * axis[0] + v[1] * axis[1] + v[2] * axis[2];
  const cross = [axis[1] * v[2] - axis[2] * v[1], axis[2] * v[0] - axis[0] * v[2], axis[0] * v[1] - axis[1] * v[0]];
  return [0, 1, 2].map((k) => v[k]! * c + cross[k]! * s + axis[k]! * dot * (1 - c)) as Triple;
}

/** The ray through a place in the picture, −1…1 from the centre to the frame's right and upper edge. */
export function rayThrough(pose: Pose, lens: Lens, aspect: number, x: number, y: number): Triple {
  return new Projection(throughLens(lens), aspect, pose.position, pose.orientation).ray(x, y).direction;
}

/** A walker's world: what is underfoot and what is in the way. */
export class Ground {
  private readonly blocking: Blocking[];

  constructor(
    private readonly floor: FloorIndex,
    private readonly survey: Survey,
  ) {
    this.blocking = survey.storeys.map((storey) => blockingOf(storey.plan));
  }

  /** The eye set on the floor at (x, z), near the height `around`; as it was where there is no floor. */
  standAt(x: number, z: number, around: number, eyeHeight: number, orientation: Pose['orientation']): Pose {
    const floor = this.floor.floorBelow(x, z, around + 0.3);
    return { position: [x, (Number.isFinite(floor) ? floor : around) + eyeHeight, z], orientation };
  }

  /** One step on the floor at eye height; walls stop it, or let it slide along. Metres. */
  walk(pose: Pose, forward: number, right: number, eyeHeight: number, throughWalls = false): Pose {
    const { pan } = anglesOf(pose.orientation);
    const [x, y, z] = pose.position;
    const wanted = [
      x - Math.sin(pan) * forward + Math.cos(pan) * right,
      z - Math.cos(pan) * forward - Math.sin(pan) * right,
    ] as const;
    const blocking = this.blockingAt(y - eyeHeight);
    const [nx, nz] = throughWalls || !blocking ? wanted : stepAside(blocking, [x, z], wanted, BODY);
    const here = y - eyeHeight;
    const floor = this.floor.floorBelow(nx, nz, here + 0.35);
    // Over an edge the eye stays where it is: scouting never falls.
    const target = floor >= here - 0.6 ? floor + eyeHeight : y;
    // Steps are climbed over a few of these steps, not in one.
    const rise = target - y;
    const most = 0.9 * Math.hypot(forward, right) + 0.002;
    return { position: [nx, y + Math.max(-most, Math.min(most, rise)), nz], orientation: pose.orientation };
  }

  private blockingAt(floor: number): Blocking | null {
    let best: { index: number; distance: number } | null = null;
    this.survey.storeys.forEach((storey, index) => {
      const distance = Math.abs(storey.elevation - floor);
      if (distance < 1.2 && (!best || distance < best.distance)) best = { index, distance };
    });
    return best ? this.blocking[(best as { index: number }).index]! : null;
  }
}

/** The house of a site, where there is one in a landscape; else all of it. */
export function worthSeeing(bounds: Bounds, survey: Pick<Survey, 'storeys'> | null): Bounds {
  const inside = survey?.storeys.filter(({ name }) => name !== OUTSIDE) ?? [];
  if (!inside.some(({ rooms }) => rooms.length > 0)) return bounds;
  const wide = Math.max(bounds.max[0] - bounds.min[0], bounds.max[2] - bounds.min[2]);
  const [x0, z0, x1, z1] = joinExtents(inside.map(({ extent }) => extent))!;
  // Alone, or nearly: then all of it is the house.
  if (wide < 1.6 * Math.max(x1 - x0, z1 - z0)) return bounds;
  const heights = inside.map(({ elevation }) => elevation);
  return { min: [x0, Math.min(...heights) - 1, z0], max: [x1, Math.max(...heights) + ROOF, z1] };
}

/** What is over the floor of the highest storey, about, metres. */
const ROOF = 4.5;

export function lookAt(from: Triple, to: Triple): Pose {
  const [dx, dy, dz] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  return {
    position: from,
    orientation: orientationOf({ pan: Math.atan2(-dx, -dz), tilt: Math.atan2(dy, Math.hypot(dx, dz)), roll: 0 }),
  };
}

/** Between two poses, fraction 0…1, softly. */
export function blendPoses(a: Pose, b: Pose, fraction: number): Pose {
  return {
    position: a.position.map((value, k) => value + (b.position[k]! - value) * fraction) as Triple,
    orientation: slerp(a.orientation, b.orientation, fraction),
  };
}

/** How far a pose is from another, metres and degrees. */
export function poseDistance(a: Pose, b: Pose): { metres: number; degrees: number } {
  const metres = Math.hypot(...a.position.map((value, k) => value - b.position[k]!));
  const [f, g] = [forwardOf(a.orientation), forwardOf(b.orientation)];
  const dot = Math.max(-1, Math.min(1, f[0] * g[0] + f[1] * g[1] + f[2] * g[2]));
  return { metres, degrees: toDegrees(Math.acos(dot)) };
}
