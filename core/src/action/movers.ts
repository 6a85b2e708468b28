import { Matrix4, Vector3 } from 'three';
import type { Vec3 } from '../document/index.ts';
import { distanceToPlanBox, type PlanBox } from '../geometry/index.ts';
import { planBoxOfPart, type MovablePart, type SiteMotion } from './site-motion.ts';

/** What is met may lie a little beside what it belongs to, metres. */
const AT = 0.03;
/** What is there by less than this is not there: it fades, or has shrunk to nothing. */
const PRESENT = 0.5;

/** Surfaces that a line meets where everything rests: where on it, 0…1. */
export type Meets = (a: Vec3, b: Vec3) => readonly { at: number }[];

/** Where some groups are at one time: what takes a place back to where it is at rest; null for what is not there. */
type Places = readonly (Matrix4 | null)[];

/** What moves of a site: whether it has gone from where it rests, and whether it comes to where somebody is. */
export class Movers {
  private readonly movers: readonly { group: number; box: PlanBox }[];

  /** @param parts of the site, at rest */
  constructor(
    parts: readonly MovablePart[],
    private readonly motion: SiteMotion | null,
  ) {
    this.movers = parts.flatMap((part) => {
      const group = motion ? motion.groupOf(part) : -1;
      return group < 0 ? [] : [{ group, box: planBoxOfPart(part) }];
    });
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
    const met = this.movers.filter(({ box }) => distanceToPlanBox(box, point) <= AT);
    if (met.length === 0) return false;
    const places = this.placesAt(time);
    return met.every(({ group, box }) => {
      const back = places[group]!;
      return !back || distanceToPlanBox(box, through(back, point)) > reach;
    });
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
    for (const { group, box } of this.movers) {
      const [back, next] = [before[group], now[group]];
      // What rests is in the way where it stands, and met there.
      if (!back || !next || (isStill(back) && isStill(next))) continue;
      const [a, b] = [through(back, from), through(next, to)];
      const length = Math.hypot(...a.map((value, k) => b[k]! - value));
      if (distanceToPlanBox(box, a) > length + AT) continue;
      for (const { at } of meets(a, b)) {
        const point = a.map((value, k) => value + at * (b[k]! - value)) as Vec3;
        if (distanceToPlanBox(box, point) <= AT) return point;
      }
    }
    return null;
  }
}

const moved = new Vector3();
const through = (matrix: Matrix4, point: Vec3): Vec3 =>
  moved
    .set(...point)
    .applyMatrix4(matrix)
    .toArray();

const NOTHING = new Matrix4();
const isStill = ({ elements }: Matrix4) => elements.every((value, i) => Math.abs(value - NOTHING.elements[i]!) < 1e-6);
