import type { Vec3 } from '../document/index.ts';
import { less } from '../geometry/index.ts';
import type { CameraSample } from '../move/index.ts';
import { Projection } from '../optics/index.ts';
import { firstSample, lastSample, type FlowMeasure, type OwnShot } from './joins.ts';
import { sourceTime } from './plan.ts';
import { subjectAt, type Subject } from './shot-camera.ts';
import { frameTime } from './timecode.ts';

/** What an editor would say of a cut, besides how it moves. */
export type CutNote =
  /** The same thing from nearly the same side, in nearly the same size: it jumps. Radians. */
  | { kind: 'thirty degrees'; angle: number }
  /** What goes from left to right before the cut goes from right to left after it. */
  | { kind: 'crosses the line' }
  /** The same thing is so many times as large after the cut. */
  | { kind: 'size'; ratio: number };

/** Two pictures of a thing have to be taken from sides at least so far apart, radians (common practice, no source). */
const THIRTY = Math.PI / 6;
/** …unless it is so much larger or smaller after the cut (common practice, no source). */
const OTHER_SIZE = 1.6;
/** Places that are no farther apart are the same thing, metres, where nothing says what is looked at. */
const SAME = 0.75;
/** What comes or goes along the line of sight has no side: the sine of the angle to it (common practice, no source). */
const SIDEWAYS = 0.3;
/** A subject that goes less stands, m/s. */
const GOES = 0.05;

/** What there is to say of a cut between two cameras. */
export function cutNotes(before: OwnShot, after: OwnShot, measure: FlowMeasure): CutNote[] {
  const { rate, aspect, cast } = measure;
  const [a, b] = [lastSample(before, measure), firstSample(after, measure)];
  if (!a || !b) return [];
  const times = [sourceTime(before.planned, frameTime(before.planned.frames - 1, rate)), sourceTime(after.planned, 0)];
  const [left, right] = [subjectAt(before.camera, times[0]!), subjectAt(after.camera, times[1]!)];
  const centre = (sample: CameraSample): Vec3 | null => {
    const ray = new Projection(sample.view, aspect, sample.position, sample.orientation).ray(0, 0);
    const away = cast(ray.from, ray.direction, 100);
    return away === null ? null : (ray.from.map((value, k) => value + ray.direction[k]! * away) as Vec3);
  };
  const [from, to] = [left?.point ?? centre(a), right?.point ?? centre(b)];
  const notes: CutNote[] = [];
  if (from && to && distance(from, to) < Math.max(SAME, left?.radius ?? 0)) {
    const ratio = sizeOf(b, to, aspect) / sizeOf(a, from, aspect);
    const angle = angleBetween(less(a.position, from), less(b.position, to));
    if (angle < THIRTY && Math.max(ratio, 1 / ratio) < OTHER_SIZE && angle > 1e-3)
      notes.push({ kind: 'thirty degrees', angle });
    if (Math.max(ratio, 1 / ratio) >= OTHER_SIZE) notes.push({ kind: 'size', ratio });
  }
  const ways = [sideOf(left, before, times[0]!, a, aspect), sideOf(right, after, times[1]!, b, aspect)];
  if (from && to && distance(from, to) < 5 && ways[0]! * ways[1]! < 0) notes.push({ kind: 'crosses the line' });
  return notes;
}

/** How large a metre of a thing is, as a part of the frame's width. */
function sizeOf(sample: CameraSample, point: Vec3, aspect: number): number {
  const projection = new Projection(sample.view, aspect, sample.position, sample.orientation);
  return 1 / projection.footprint(Math.max(1e-6, projection.project(point).depth)).width;
}

/** 1 where a subject goes to the right in the picture, −1 to the left, 0 where it does neither. */
function sideOf(subject: Subject | null, shot: OwnShot, time: number, sample: CameraSample, aspect: number): number {
  if (!subject?.moves) return 0;
  const step = 0.1;
  const later = subjectAt(shot.camera, time - step) ?? subjectAt(shot.camera, time + step);
  if (!later) return 0;
  const sign = subjectAt(shot.camera, time - step) ? 1 : -1;
  const way = less(subject.point, later.point).map((value) => (sign * value) / step) as Vec3;
  const speed = Math.hypot(...way);
  if (speed < GOES) return 0;
  const [right] = new Projection(sample.view, aspect, sample.position, sample.orientation).alongAxes(way);
  const goes = (shot.planned.backwards ? -right : right) / speed;
  return Math.abs(goes) < SIDEWAYS ? 0 : Math.sign(goes);
}

const distance = (a: Vec3, b: Vec3): number => Math.hypot(...less(a, b));

function angleBetween(a: Vec3, b: Vec3): number {
  const product = a.reduce((sum, value, k) => sum + value * b[k]!, 0);
  return Math.acos(Math.max(-1, Math.min(1, product / (Math.hypot(...a) * Math.hypot(...b) || 1))));
}
