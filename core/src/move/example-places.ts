import { Vector3, type Matrix4 } from 'three';
import type { Bounds, Pose, Vec3 } from '../document/index.ts';
import { joinBounds, middle, orientationFromAxes } from '../geometry/index.ts';
import type { CarrierSite } from './carried.ts';

/** What of a storey a walk needs. */
export interface WalkedStorey {
  elevation: number;
  rooms: readonly { area: number; places: readonly number[] }[];
}

/** A walk shorter than this shows nothing, metres. */
const SHORTEST = 2.5;
/** Of a large room so many places are looked at. */
const MOST_PLACES = 60;
/** Places of a room are about a metre apart: a way that has one so near all along is in the room, metres. */
const BESIDE = 0.9;
const STEP = 0.5;

/**
 * A straight walk for showing what walks are: the longest one in the largest room that has one.
 * @returns from and to on the floor, metres; null where there is no such room
 */
export function exampleWalk(storeys: readonly WalkedStorey[]): readonly [Vec3, Vec3] | null {
  const rooms = storeys.flatMap(({ elevation, rooms: own }) => own.map((room) => ({ ...room, elevation })));
  rooms.sort((a, b) => b.area - a.area);
  for (const { places, elevation } of rooms) {
    const way = longestWithin(places);
    if (way) return [place(way[0], elevation), place(way[1], elevation)];
  }
  return null;
}

type Place = readonly [x: number, z: number];
const place = ([x, z]: Place, y: number): Vec3 => [x, y, z];
const apart = (a: Place, b: Place) => Math.hypot(a[0] - b[0], a[1] - b[1]);

function longestWithin(pairs: readonly number[]): readonly [Place, Place] | null {
  const all = Array.from({ length: pairs.length / 2 }, (_, i): Place => [pairs[2 * i]!, pairs[2 * i + 1]!]);
  const some = all.filter((_, i) => i % Math.ceil(all.length / MOST_PLACES) === 0);
  const ways = some.flatMap((a, i) => some.slice(i + 1).map((b) => [a, b] as const));
  ways.sort((one, other) => apart(...other) - apart(...one));
  const within = ([a, b]: readonly [Place, Place]) => {
    const steps = Math.ceil(apart(a, b) / STEP);
    return Array.from({ length: steps + 1 }, (_, i): Place => {
      const part = i / steps;
      return [a[0] + part * (b[0] - a[0]), a[1] + part * (b[1] - a[1])];
    }).every((at) => all.some((known) => apart(at, known) < BESIDE));
  };
  return ways.filter((way) => apart(...way) >= SHORTEST).find(within) ?? null;
}

/** Where a camera that shows all of something stands about it: turned from the south, up, and away, parts of its size. */
const ABOUT: readonly { turn: number; up: number; away: number }[] = [
  { turn: 0.9, up: 0.62, away: 1.25 },
  { turn: 0.35, up: 0.34, away: 0.95 },
  { turn: -0.45, up: 0.18, away: 0.88 },
];

/** Poses about something, from far and high to near and low, each looking at its middle: for flights that show what flights are. */
export function examplePoses(bounds: Bounds): Pose[] {
  const centre = middle(bounds);
  const [width, height, depth] = [0, 1, 2].map((k) => bounds.max[k]! - bounds.min[k]!) as Vec3;
  const size = Math.hypot(width, height, depth);
  return ABOUT.map(({ turn, up, away }) => {
    const position: Vec3 = [
      centre[0] + away * size * Math.sin(turn),
      // Nothing of it reaches up to there.
      bounds.max[1] + up * size - 0.5 * Math.min(height, up * size),
      centre[2] + away * size * Math.cos(turn),
    ];
    const towards = centre.map((value, k) => value - position[k]!) as Vec3;
    return { position, orientation: orientationFromAxes(towards, [0, 1, 0]) };
  });
}

/** Something that goes somewhere, for showing what rides are. */
export interface ExampleCarrier {
  model: string;
  /** Of one of the parts that go together. */
  name: string;
  /** Of all of them, at rest, metres. */
  bounds: Bounds;
  /** Where their middle is when half of the time is over, metres. */
  half: Vec3;
}

/** What goes less far than its own size only turns, or swings. */
const FAR = 1;

/** What of a site goes farthest in so many seconds; null where nothing goes anywhere. */
export function exampleCarrier({ parts, motion }: CarrierSite, seconds: number): ExampleCarrier | null {
  if (!motion) return null;
  const byGroup = new Map<number, CarrierSite['parts'][number][]>();
  for (const part of parts) {
    const group = motion.groupOf(part);
    if (group >= 0) byGroup.set(group, [...(byGroup.get(group) ?? []), part]);
  }
  const [begin, half, end] = [0, seconds / 2, seconds].map((time) => {
    const places = motion.places();
    motion.place(time, places);
    return places;
  }) as [Matrix4[], Matrix4[], Matrix4[]];
  let farthest: { carrier: ExampleCarrier; way: number } | null = null;
  for (const [group, own] of byGroup) {
    const bounds = joinBounds(own.map((part) => part.bounds))!;
    const at = (places: Matrix4[]) => new Vector3(...middle(bounds)).applyMatrix4(places[group]!);
    const [from, between, to] = [begin, half, end].map(at) as [Vector3, Vector3, Vector3];
    const way = from.distanceTo(between) + between.distanceTo(to);
    const size = Math.hypot(...bounds.max.map((value, k) => value - bounds.min[k]!));
    if (way < FAR * size || way <= (farthest?.way ?? 0)) continue;
    const { model, name } = own[0]!;
    farthest = { carrier: { model, name, bounds, half: between.toArray() }, way };
  }
  return farthest?.carrier ?? null;
}
