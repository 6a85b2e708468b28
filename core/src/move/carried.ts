import { Matrix4, Quaternion as Turn, Vector3 } from 'three';
import type { MovablePart, SiteMotion } from '../action/index.ts';
import type { Bounds, Carrier, Follow, Quaternion, Ride, Vec3 } from '../document/index.ts';
import type { NamedPart } from '../gaze/index.ts';
import { anglesOf, joinBounds, middle, nearestTurn, orientationOf } from '../geometry/index.ts';
import type { Footing } from '../survey/index.ts';
import type { Channel } from '../track/index.ts';
import { SoftFollow } from './soft-follow.ts';
import { heightChannel } from './height-channel.ts';
import { posedPlaces, TimedCamera, type TimedSite } from './timed-camera.ts';

/** What moves of a site, as far as riding on it needs. */
export interface CarrierSite {
  parts: readonly (NamedPart & MovablePart)[];
  motion: SiteMotion | null;
}

/** Where a part is that carries a camera. */
export interface CarrierPlace {
  /** Its middle at rest, metres. */
  centre: Vec3;
  /** What takes a point of it from where it rests to where it is at a time; null where it stands still. */
  carry: ((time: number, out: Matrix4) => Matrix4) | null;
  /** Where it and all that moves with it rest. */
  away?: Bounds;
}

/** The carrier of a ride as the site has it; where it is gone, the place where it was. */
export function findCarrier(carrier: Carrier | null, { parts, motion }: CarrierSite): CarrierPlace {
  const part = carrier && parts.find(({ model, name }) => model === carrier.model && name === carrier.name);
  if (!part) return { centre: carrier?.centre ?? [0, 0, 0], carry: null };
  const centre = middle(part.bounds);
  const group = motion?.groupOf(part) ?? -1;
  if (!motion || group < 0) return { centre, carry: null };
  const places = motion.places();
  const along = joinBounds(parts.filter((one) => motion.groupOf(one) === group).map(({ bounds }) => bounds));
  return {
    centre,
    ...(along && { away: along }),
    carry: (time, out) => {
      motion.place(time, places);
      return out.copy(places[group]!);
    },
  };
}

/** A camera on something that moves, ready to be asked. */
export function compileRide(body: Ride, footing: Footing, carrier: CarrierPlace, site: TimedSite): TimedCamera {
  const { duration, softness } = body;
  const seat = carrier.centre.map((value, k) => value + body.seat[k]!) as Vec3;
  const rest = new Turn(...body.facing).normalize();
  const [matrix, place, turn] = [new Matrix4(), new Vector3(), new Turn()];
  const go = (time: number) => carrier.carry?.(time, matrix) ?? matrix.identity();
  const rigidPlace = (time: number): Vec3 => place.fromArray(seat).applyMatrix4(go(time)).toArray();
  const rigidTurn = (time: number): Quaternion =>
    turn
      .setFromRotationMatrix(rotationOnly.extractRotation(go(time)))
      .multiply(rest)
      .toArray() as Quaternion;
  const soft = softness > 0 && carrier.carry ? softly(rigidPlace, rigidTurn, duration, softness) : null;
  const placeAt = (time: number, out: Float64Array, at: number) => {
    const where = soft ? soft.placeAt(time) : rigidPlace(time);
    for (let k = 0; k < 3; k += 1) out[at + k] = where[k]!;
  };
  const orientationAt = (time: number): Quaternion => {
    const whole = soft ? soft.orientationAt(time) : rigidTurn(time);
    return body.horizon === 'with it' ? whole : orientationOf({ ...anglesOf(whole), roll: 0 });
  };
  return new TimedCamera(
    body,
    {
      ...posedPlaces(duration, placeAt, orientationAt),
      away: carrier.away,
      channels: [heightChannel(footing, placeAt, { belowAt: withoutCarrier(footing, carrier.away) })],
    },
    site,
  );
}
const rotationOnly = new Matrix4();

/** Place and direction that follow softly, each by itself. */
function softly(placeAt: (time: number) => Vec3, turnAt: (time: number) => Quaternion, duration: number, lag: number) {
  const axes = [0, 1, 2].map((k) => new SoftFollow((time) => placeAt(time)[k]!, duration, lag));
  let before = anglesOf(turnAt(0)).pan;
  // Asked in the order of time: a turn goes on from where it was.
  const pan = new SoftFollow((time) => (before = nearestTurn(anglesOf(turnAt(time)).pan, before)), duration, lag);
  const tilt = new SoftFollow((time) => anglesOf(turnAt(time)).tilt, duration, lag);
  const roll = new SoftFollow((time) => anglesOf(turnAt(time)).roll, duration, lag);
  return {
    placeAt: (time: number) => axes.map((axis) => axis.at(time)) as Vec3,
    orientationAt: (time: number) => orientationOf({ pan: pan.at(time), tilt: tilt.at(time), roll: roll.at(time) }),
  };
}

/** A camera that stands and keeps its eye on something, ready to be asked. */
export function compileFollow(body: Follow, site: TimedSite): TimedCamera {
  const { duration, gaze, position } = body;
  const target = gaze.kind === 'object' ? site.targetOf(gaze) : null;
  const at = (time: number): Vec3 | null =>
    gaze.kind === 'object' ? (target?.(time) ?? gaze.point) : gaze.kind === 'point' ? gaze.point : null;
  const away = (time: number) => {
    const there = at(time);
    return there ? Math.hypot(...there.map((value, k) => value - position[k]!)) : 0;
  };
  const first = away(0);
  const channels: Channel[] = at(0) ? [{ id: 'away', title: 'Away', unit: 'm', at: away }] : [];
  return new TimedCamera(
    body,
    {
      duration,
      loops: false,
      placeAt: (_, out, offset) => out.set(position, offset),
      keptAt: () => ({ pan: 0, tilt: 0 }),
      anchors: { duration, timeAt: null, stationOf: null },
      path: null,
      channels,
      locked: true,
      ...(body.holdSize && first > 0 && { lensFactor: (time: number) => away(time) / first }),
    },
    site,
  );
}

/** Where the carrier rests it is not any more: what was under it counts. */
const withoutCarrier =
  (footing: Footing, away: Bounds | undefined) =>
  (x: number, y: number, z: number): number => {
    const over = away && x >= away.min[0] && x <= away.max[0] && z >= away.min[2] && z <= away.max[2];
    return footing.floors.floorBelow(x, z, over && y > away.min[1] ? away.min[1] : y);
  };
