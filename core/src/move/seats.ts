import { Matrix4, Quaternion as Turn, Vector3 } from 'three';
import type { Bounds, Gaze, Pose, Quaternion, Ride, Vec3 } from '../document/index.ts';
import { middle, orientationFromAxes } from '../geometry/index.ts';
import type { CarrierPlace } from './carried.ts';

/** Where on or about its carrier a camera can be put by a word. */
export const SEATS = ['on it', 'ahead', 'behind and above', 'beside'] as const;
export type SeatName = (typeof SEATS)[number];

/** What moves less than this in the time looked at stands still, metres. */
const STILL = 0.01;
/** Where it goes is looked for in steps of this, seconds, up to so many. */
const LOOK_STEP = 0.25;
const LOOKS = 240;

/**
 * Where a carrier goes, as a level direction of its own axes at rest: that in which it first sets off. Null where it goes
 * nowhere.
 */
export function headingOf({ carry, centre }: CarrierPlace): Vec3 | null {
  if (!carry) return null;
  const matrix = new Matrix4();
  const at = (time: number) => new Vector3(...centre).applyMatrix4(carry(time, matrix));
  let before = at(0);
  for (let i = 1; i <= LOOKS; i += 1) {
    const time = i * LOOK_STEP;
    const now = at(time);
    const way = now.clone().sub(before).setY(0);
    if (way.length() > STILL) {
      // What has turned since it rested is turned back.
      const back = carry(time - LOOK_STEP / 2, matrix)
        .clone()
        .invert();
      const heading = way.normalize().transformDirection(back).setY(0);
      return heading.length() > 0.1 ? (heading.normalize().toArray() as Vec3) : null;
    }
    before = now;
  }
  return null;
}

/** Room between a carrier and a camera beside it, as a part of its size. */
const ROOM = 1.1;
/** On a carrier the eye is so far above it, as a part of its height, and never less than this, metres. */
const [EYE, LEAST_EYE] = [0.15, 0.02];

/**
 * A seat by its name, for a carrier at rest.
 * @param bounds of the carrier, metres @param heading where it goes, a level unit vector
 * @returns what of a ride it says
 */
export function seatAt(
  name: SeatName,
  bounds: Bounds,
  heading: Vec3,
  carrier: { model: string; name: string },
): Pick<Ride, 'seat' | 'facing' | 'gaze'> {
  const size = [0, 1, 2].map((k) => bounds.max[k]! - bounds.min[k]!) as Vec3;
  const along = Math.abs(size[0] * heading[0]) + Math.abs(size[2] * heading[2]);
  const across = Math.abs(size[0] * heading[2]) + Math.abs(size[2] * heading[0]);
  const whole = Math.max(along, across, size[1]);
  const centre = middle(bounds);
  const facing = (ahead: Vec3): Quaternion => orientationFromAxes(ahead, [0, 1, 0]);
  const atCarrier: Gaze = { kind: 'object', ...carrier, point: centre, centre };
  const out = (forward: number, right: number, up: number): Vec3 => [
    heading[0] * forward - heading[2] * right,
    up,
    heading[2] * forward + heading[0] * right,
  ];
  switch (name) {
    case 'on it':
      return {
        seat: out(0.2 * along, 0, size[1] / 2 + Math.max(LEAST_EYE, EYE * size[1])),
        facing: facing(heading),
        gaze: { kind: 'kept' },
      };
    case 'ahead':
      return {
        seat: out(along / 2 + ROOM * whole, 0, 0.3 * size[1]),
        facing: facing([-heading[0], 0, -heading[2]]),
        gaze: atCarrier,
      };
    case 'behind and above':
      return {
        seat: out(-along / 2 - ROOM * whole, 0, size[1] / 2 + 0.5 * whole),
        facing: facing([heading[0], -0.25, heading[2]]),
        gaze: { kind: 'kept' },
      };
    case 'beside':
      return {
        seat: out(0, across / 2 + ROOM * whole, 0.3 * size[1]),
        facing: facing([heading[2], 0, -heading[0]]),
        gaze: atCarrier,
      };
  }
}

/** The seat on a carrier from which one sees what an eye sees at a time. */
export function seatOf(
  { position, orientation }: Pose,
  { centre, carry }: CarrierPlace,
  time: number,
): Pick<Ride, 'seat' | 'facing'> {
  const back = (carry?.(time, new Matrix4()) ?? new Matrix4()).clone().invert();
  const rest = new Vector3(...position).applyMatrix4(back).sub(new Vector3(...centre));
  const turn = new Turn().setFromRotationMatrix(new Matrix4().extractRotation(back)).multiply(new Turn(...orientation));
  const { x, y, z, w } = turn.normalize();
  return { seat: rest.toArray(), facing: [x, y, z, w] };
}
