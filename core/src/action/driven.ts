import { Vector3, type Matrix4 } from 'three';
import type { Bounds } from '../document/index.ts';
import { middle, type PlanBox } from '../geometry/index.ts';
import { SpaceWay } from '../path/index.ts';
import { runOf, sweepOf } from './runs.ts';
import type { DrivenAction } from './site-action.ts';

type Appear = Extract<DrivenAction, { kind: 'appear' }>;

/** Writes what takes a point from where it rests to where an action has taken it at a time. */
export type Drive = (time: number, out: Matrix4) => void;

/**
 * What an action does to the parts it means; null where it can do nothing.
 * @param bounds of those parts at rest, metres
 * @param boxOf the upright box about them, turned as they are
 */
export function driveOf(action: DrivenAction, bounds: Bounds, boxOf: () => PlanBox): Drive | null {
  const centre = new Vector3(...middle(bounds));
  switch (action.kind) {
    case 'spin': {
      const axis = new Vector3(...action.axis);
      if (!action.turn) return about(axis, centre, (time) => action.rate * Math.max(0, time - action.start));
      const { angle, ...run } = action.turn;
      const done = runOf({ ...run, start: action.start });
      return about(axis, centre, (time) => angle * done(time));
    }
    case 'turntable': {
      const { at } = sweepOf(action.turning);
      const way = -Math.sign(action.turning.sweep);
      return about(UPRIGHT, centre, (time) => way * at(Math.min(action.turning.duration, Math.max(0, time))));
    }
    case 'hinge': {
      const done = runOf(action);
      return about(
        UPRIGHT,
        hingeOf(boxOf(), action.end),
        (time) => action.angle * (action.back ? 1 - done(time) : done(time)),
      );
    }
    case 'along':
      return alongWay(action);
    case 'appear':
      return appearing(action, bounds);
  }
}

const UPRIGHT = new Vector3(0, 1, 0);

/** The upright edge at one end of the longer side of a box. */
export function hingeOf({ middle: [x, y, z], axis, size: [length] }: PlanBox, end: 'low' | 'high'): Vector3 {
  const out = ((end === 'low' ? -1 : 1) * length) / 2;
  return new Vector3(x + out * axis[0], y, z + out * axis[1]);
}

/** A turn about an axis through a place. */
function about(axis: Vector3, place: Vector3, angleAt: (time: number) => number): Drive {
  const moved = new Vector3();
  return (time, out) => {
    out.makeRotationAxis(axis, angleAt(time));
    // What the turn alone would do to the place is taken back.
    out.setPosition(moved.copy(place).applyMatrix4(out).negate().add(place));
  };
}

/** What is not there is as small as a point of its foot: nothing of that is drawn. */
function appearing(action: Appear, { min, max }: Bounds): Drive {
  const foot = new Vector3((min[0] + max[0]) / 2, min[1], (min[2] + max[2]) / 2);
  const presence = presenceOf(action);
  return (time, out) => {
    const there = presence(time);
    // What fades is as large as ever as long as anything of it is there.
    const size = action.how === 'fades' ? Math.ceil(there) : there;
    out.makeScale(size, size, size).setPosition(foot.x * (1 - size), foot.y * (1 - size), foot.z * (1 - size));
  };
}

/** How much of what appears or goes is there at a time, 0…1. */
export function presenceOf(action: Appear): (time: number) => number {
  const done = runOf({ ...action, repeat: 'once' });
  return (time) => {
    // At once is at its beginning.
    const come = action.how === 'at once' ? Number(time >= action.start) : done(time);
    return action.goes ? 1 - come : come;
  };
}

/** Several parts that appear in order, the lowest first: each has its share of the time. */
export function inOrder(action: Appear, parts: readonly { name: string; low: number }[]): Appear[] {
  const names = [...new Map([...parts].sort((a, b) => a.low - b.low).map(({ name }) => [name, name])).values()];
  const share = action.seconds / Math.max(1, names.length);
  return names.map((part, i) => {
    const { inOrder: _, ...alone } = action;
    return { ...alone, part, start: action.start + i * share, seconds: Math.max(0.1, share) };
  });
}

/** A way's direction is taken over so much of it, metres. */
const HEADING = 0.2;

function alongWay(action: Extract<DrivenAction, { kind: 'along' }>): Drive | null {
  let way: SpaceWay;
  try {
    way = new SpaceWay(action.path);
  } catch (error) {
    // A path of one place leads nowhere.
    if (error instanceof RangeError) return null;
    throw error;
  }
  const done = runOf(action);
  const [a, b] = [new Float64Array(3), new Float64Array(3)];
  const headingAt = (station: number) => {
    const reach = Math.min(HEADING, way.length / 4);
    const [from, to] = way.closed
      ? [(station - reach + way.length) % way.length, (station + reach) % way.length]
      : [Math.max(0, station - reach), Math.min(way.length, station + reach)];
    way.placeAt(from, a);
    way.placeAt(to, b);
    return Math.atan2(a[0]! - b[0]!, a[2]! - b[2]!);
  };
  const first = headingAt(0);
  const start = new Float64Array(3);
  way.placeAt(0, start);
  const place = new Float64Array(3);
  const origin = new Vector3(start[0], start[1], start[2]);
  const turned = new Vector3();
  return (time, out) => {
    const station = way.length * done(time);
    out.makeRotationY(action.faces ? headingAt(station) - first : 0);
    turned.copy(origin).applyMatrix4(out);
    way.placeAt(station, place);
    out.setPosition(place[0]! - turned.x, place[1]! - turned.y, place[2]! - turned.z);
  };
}
