import { Matrix4 } from 'three';
import type { Vec3 } from '../document/index.ts';
import { distanceToPlanBox, type PlanBox } from '../geometry/index.ts';
import { planBoxOfPart, type MovablePart, type SiteMotion } from './site-motion.ts';
import { takenBy } from './taken-by.ts';

/** What is met may lie a little beside what it belongs to, metres. */
const AT = 0.03;
/** What is there by less than this is not there: it fades, or has shrunk to nothing. */
const PRESENT = 0.5;

/** Surfaces that a line meets where everything rests: where on it, 0…1. */
export type Meets = (a: Vec3, b: Vec3) => readonly { at: number }[];

/** Where some groups are at one time: what takes a place back to where it is at rest; null for what is not there. */
type Places = readonly (Matrix4 | null)[];

/** What moves as one: the boxes of its parts at rest, and a ball about all of them. */
interface Mover {
  group: number;
  boxes: PlanBox[];
  middle: Vec3;
  reach: number;
}

/** What moves of a site: whether it has gone from where it rests, and whether it comes to where somebody is. */
export class Movers {
  private readonly movers: readonly Mover[];

  /** @param parts of the site, at rest */
  constructor(
    parts: readonly MovablePart[],
    private readonly motion: SiteMotion | null,
  ) {
    const boxes = new Map<number, PlanBox[]>();
    for (const part of motion ? parts : []) {
      const group = motion!.groupOf(part);
      if (group >= 0) boxes.set(group, [...(boxes.get(group) ?? []), planBoxOfPart(part)]);
    }
    this.movers = [...boxes].map(([group, own]) => ({ group, boxes: own, ...ballAbout(own) }));
  }

  /** Is there anything that moves? */
  get any(): boolean {
    return this.movers.length > 0;
  }

  /**
   * Has what rests at a place moved away from there?
   * @param point where something of the site at rest was met, metres
   * @param time into the move, seconds
   * @param reach what has come no farther away than this is still there, metres
   */
  isGone(point: Vec3, time: number, reach: number): boolean {
    let places: Places | null = null;
    let met = false;
    for (const { group, boxes, ...ball } of this.movers) {
      if (isBeyond(ball, point, AT)) continue;
      for (const box of boxes) {
        if (distanceToPlanBox(box, point) > AT) continue;
        met = true;
        const back = (places ??= this.placesAt(time))[group]!;
        if (back && distanceToPlanBox(box, takenBy(back, point)) <= reach) return false;
      }
    }
    return met;
  }

  /** Has what rests somewhere left that place by a time? @param time into the move, seconds */
  goneAt(time: number): (point: Vec3) => boolean {
    return (point) => this.isGone(point, time, 0);
  }

  /** Where everything that moves is at a time, for {@link meeting}. */
  placesAt(time: number): Places {
    const { motion } = this;
    if (!motion) return [];
    const places = motion.places();
    motion.place(time, places);
    const presences = motion.presences(time);
    return places.map((place, group) =>
      (presences?.[group] ?? 1) < PRESENT || Math.abs(place.determinant()) < 1e-9 ? null : place.invert(),
    );
  }

  /**
   * Where somebody who goes from one place to another meets something that has moved there; null where nothing does. As
   * seen from what moves it stands still, and they go past it.
   * @param before @param now places of everything then
   * @param meets what a line meets of the site at rest
   * @returns where it was met at rest, metres
   */
  meeting([from, to]: readonly [Vec3, Vec3], before: Places, now: Places, meets: Meets): Vec3 | null {
    for (const { group, boxes, ...ball } of this.movers) {
      const [back, next] = [before[group], now[group]];
      // What rests is in the way where it stands, and met there.
      if (!back || !next || (isStill(back) && isStill(next))) continue;
      const [a, b] = [takenBy(back, from), takenBy(next, to)];
      const length = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
      if (isBeyond(ball, a, length + AT)) continue;
      if (boxes.every((box) => distanceToPlanBox(box, a) > length + AT)) continue;
      for (const { at } of meets(a, b)) {
        const point = a.map((value, k) => value + at * (b[k]! - value)) as Vec3;
        if (boxes.some((box) => distanceToPlanBox(box, point) <= AT)) return point;
      }
    }
    return null;
  }
}

function ballAbout(boxes: readonly PlanBox[]): Pick<Mover, 'middle' | 'reach'> {
  const middle = [0, 1, 2].map((k) => boxes.reduce((sum, box) => sum + box.middle[k]!, 0) / boxes.length) as Vec3;
  const away = (box: PlanBox) =>
    Math.hypot(...box.middle.map((value, k) => value - middle[k]!)) + Math.hypot(...box.size) / 2;
  return { middle, reach: Math.max(...boxes.map(away)) };
}

const isBeyond = ({ middle, reach }: Pick<Mover, 'middle' | 'reach'>, [x, y, z]: Vec3, far: number): boolean =>
  (x - middle[0]) ** 2 + (y - middle[1]) ** 2 + (z - middle[2]) ** 2 > (reach + far) ** 2;

const NOTHING = new Matrix4();
const isStill = ({ elements }: Matrix4) => elements.every((value, i) => Math.abs(value - NOTHING.elements[i]!) < 1e-6);
