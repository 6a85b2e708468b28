import { lengthUnitOf, METRES, type Bounds, type Lens, type Pose } from '@eskovan/core/document';
import { anglesOf, forwardOf, largestOf, orientationOf, slerp, toDegrees } from '@eskovan/core/geometry';
import { Projection, throughLens, type Ray } from '@eskovan/core/optics';
import {
  blockingOf,
  CUT_HEIGHT,
  joinExtents,
  OUTSIDE,
  stepAside,
  type Blocking,
  type FloorIndex,
  type Survey,
} from '@eskovan/core/survey';

/** A body's half width when the scout walks, metres. */
const BODY = 0.22;

/** What lies no higher than this over a storey's floor is its floor, metres. */
const ON_FLOOR = 0.3;
/** A press this near to a floor is on it, metres. */
const ON_IT = 0.06;
/** Who is sent to a wall or a thing stands so far before it, metres. */
const BEFORE = 0.7;
/** How far behind its front one sits, and how much higher than that a seat may be, metres. */
const SEAT_DEPTH = 0.2;
const SEAT_HEIGHT = 0.5;
/** From a seat to the eyes of who sits on it, metres (ISO 7250-1 sitting eye height, middle of both sexes; from memory). */
const SEAT_TO_EYE = 0.77;

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

/** Moves the eye along the picture's own axes, metres: to the right and up, as its upper edge has it. */
export function alongPicture({ position, orientation }: Pose, right: number, up: number): Pose {
  const axes = new Projection({ kind: 'parallel', height: 1 }, 1, position, orientation);
  const by = axes.fromAxes([right, up, 0]);
  return { position: position.map((value, k) => value + by[k]!) as Triple, orientation };
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

/** A ray through the picture, and how far along it things are still shown, metres. */
interface SeenRay extends Ray {
  reach: number;
}

/**
 * The ray through a place in the picture, −1…1 from the centre to the frame's right and upper edge. It begins where
 * the lens cuts off what is near, and reaches to where it cuts off what is far: what is not shown cannot be pressed.
 */
export function rayThrough({ position, orientation }: Pose, lens: Lens, aspect: number, x: number, y: number): SeenRay {
  const { from, direction } = new Projection(throughLens(lens), aspect, position, orientation).ray(x, y);
  const ahead = forwardOf(orientation);
  const along = direction.reduce((sum, value, k) => sum + value * ahead[k]!, 0);
  const near = (lens.nearCut ?? 0) / along;
  return {
    from: from.map((value, k) => value + direction[k]! * near) as Triple,
    direction,
    reach: lens.farCut === undefined ? Infinity : lens.farCut / along - near,
  };
}

/** Does one of these triangles, six numbers each, hold a place of the plan? */
function covers(triangles: readonly number[], x: number, z: number): boolean {
  for (let o = 0; o < triangles.length; o += 6) {
    let [left, right] = [0, 0];
    for (let k = 0; k < 3; k += 1) {
      const [ax, az] = [triangles[o + 2 * k]!, triangles[o + 2 * k + 1]!];
      const n = (k + 1) % 3;
      const turn = (triangles[o + 2 * n]! - ax) * (z - az) - (triangles[o + 2 * n + 1]! - az) * (x - ax);
      if (turn > 0) left += 1;
      else if (turn < 0) right += 1;
    }
    if (left === 0 || right === 0) return true;
  }
  return false;
}

/** A walker's world: what is underfoot and what is in the way. */
export class Ground {
  private readonly blocking: Blocking[];
  /** The largest extent of the site, metres. */
  readonly size: number;
  /** Nobody walks about in it. */
  readonly isProduct: boolean;

  constructor(
    private readonly floor: FloorIndex,
    private readonly survey: Survey,
  ) {
    this.blocking = survey.storeys.map((storey) => blockingOf(storey.plan));
    this.size = largestOf(survey.bounds);
    this.isProduct = lengthUnitOf(survey.bounds) !== METRES;
  }

  /** How high the eye is over what is under it, metres; 0 where there is nothing. */
  heightUnder({ position: [x, y, z] }: Pose): number {
    const floor = this.floor.floorBelow(x, z, y);
    return Number.isFinite(floor) ? y - floor : 0;
  }

  /**
   * The eye of somebody who stands where the plan of a storey was pressed: on stairs and hills as high as they are there,
   * beside them on the storey's floor. A table is nothing to stand on.
   */
  standIn(storey: number, x: number, z: number, eyeHeight: number, orientation: Pose['orientation']): Pose {
    const { elevation = 0, walkway = [] } = this.survey.storeys[storey] ?? {};
    const highest = elevation + (covers(walkway, x, z) ? CUT_HEIGHT : ON_FLOOR);
    const below = this.floor.floorBelow(x, z, highest);
    const floor = below > -Infinity ? below : this.floor.nextAbove(x, z, highest);
    return { position: [x, (Number.isFinite(floor) ? floor : elevation) + eyeHeight, z], orientation };
  }

  /** The eye set on the floor at (x, z), near the height `around`; as it was where there is no floor. */
  standAt(x: number, z: number, around: number, eyeHeight: number, orientation: Pose['orientation']): Pose {
    const floor = this.floor.floorBelow(x, z, around + ON_FLOOR);
    return { position: [x, (Number.isFinite(floor) ? floor : around) + eyeHeight, z], orientation };
  }

  /**
   * The eye of somebody who stands where the picture was pressed: on that floor, or before what rises from it. Null where
   * there is no floor.
   */
  standOn([x, y, z]: Readonly<Triple>, eye: Pose, eyeHeight: number): Pose | null {
    const orientation = orientationOf({ pan: anglesOf(eye.orientation).pan, tilt: 0, roll: 0 });
    const flat = this.floor.floorBelow(x, z, y + ON_IT);
    if (y - flat < ON_IT) return { position: [x, flat + eyeHeight, z], orientation };
    const [dx, dz] = [eye.position[0] - x, eye.position[2] - z];
    const way = Math.hypot(dx, dz) || 1;
    const [bx, bz] = [x + (dx / way) * BEFORE, z + (dz / way) * BEFORE];
    const before = this.floor.floorBelow(bx, bz, y + ON_IT);
    return before > -Infinity ? { position: [bx, before + eyeHeight, bz], orientation } : null;
  }

  /** The eye of somebody who sits on what was pressed. Null where that is nothing to sit on. */
  sitOn([x, y, z]: Readonly<Triple>, eye: Pose): Pose | null {
    const { pan } = anglesOf(eye.orientation);
    const sitting = (sx: number, seat: number, sz: number): Pose => ({
      position: [sx, seat + SEAT_TO_EYE, sz],
      orientation: orientationOf({ pan, tilt: 0, roll: 0 }),
    });
    const under = this.floor.floorBelow(x, z, y + ON_IT);
    if (y - under < ON_IT) return sitting(x, under, z);
    // Its front was pressed: the seat is a little behind and above.
    const [dx, dz] = [x - eye.position[0], z - eye.position[2]];
    const way = Math.hypot(dx, dz) || 1;
    const [bx, bz] = [x + (dx / way) * SEAT_DEPTH, z + (dz / way) * SEAT_DEPTH];
    const seat = this.floor.floorBelow(bx, bz, y + SEAT_HEIGHT);
    return seat > y - ON_IT ? sitting(bx, seat, bz) : null;
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
  const storeys = survey?.storeys ?? [];
  const inside = storeys.filter(({ name }) => name !== OUTSIDE);
  // What stands on no ground outside is no house in a landscape, whatever in it looks like rooms.
  if (inside.length === storeys.length || !inside.some(({ rooms }) => rooms.length > 0)) return bounds;
  const wide = Math.max(bounds.max[0] - bounds.min[0], bounds.max[2] - bounds.min[2]);
  const [x0, z0, x1, z1] = joinExtents(inside.map(({ extent }) => extent))!;
  // Alone, or nearly: then all of it is the house.
  if (wide < 1.6 * Math.max(x1 - x0, z1 - z0)) return bounds;
  const heights = inside.map(({ elevation }) => elevation);
  return { min: [x0, Math.min(...heights) - 1, z0], max: [x1, Math.max(...heights) + ROOF, z1] };
}

/** What is over the floor of the highest storey, about, metres. */
const ROOF = 4.5;

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
