import type { Movers } from '../action/index.ts';
import type { CheckLimits, Vec3 } from '../document/index.ts';
import type { CompiledMove } from '../move/index.ts';
import { Projection } from '../optics/index.ts';
import type { Footing } from '../survey/index.ts';
import { finding, type Finding } from './finding.ts';

/** How often the camera is asked, seconds. */
const INSTANT = 0.2;
/** Longer moves are asked more seldom: at most so often. */
const MOST = 1500;
/** Hidden for less, nobody has missed anything, seconds. */
const UNMISSED = 0.6;
/** Apart from each other by less, two stretches are one, seconds. */
const JOINED = 0.5;
/** Places of the picture where something near is looked for, −1…1, and how many of them make it a cover. */
const LOOKED = [-0.75, 0, 0.75];
const COVERS = 3;
/** Nearer than this part of the limit nobody wants it. */
const VERY = 0.5;

interface Stretch {
  from: number;
  to: number;
  worst: number;
  at: number;
  point: Vec3;
}

/** Where what a move is to look at stands behind something. Glass hides nothing. @param movers what may have gone from there */
export function hiddenFindings(move: CompiledMove, footing: Footing, movers: Movers | null): Finding[] {
  if (!footing.knowsSolids) return [];
  return move.looks.flatMap(({ from, to, at, reach }) => {
    const found: Stretch[] = [];
    for (const time of instants(from, to)) {
      const { position, siteTime } = move.sampleAt(time);
      const hit = footing.hiding(position, at(time), reach, movers?.goneAt(siteTime));
      if (hit) add(found, time, hit.distance, hit.point);
    }
    return found
      .map((one) => ({ ...one, lasts: Math.min(to, one.to + INSTANT) - one.from }))
      .filter(({ lasts }) => lasts > UNMISSED)
      .map((one) =>
        finding({
          rule: 'hidden',
          severity: 'note',
          from: one.from,
          to: one.to,
          at: one.at,
          worst: one.lasts,
          point: one.point,
          channel: 'gaze',
        }),
      );
  });
}

/**
 * Where something right before the lens covers much of the picture. What the move is to look at does not count.
 * @param nearest metres
 */
export function nearFindings(
  move: CompiledMove,
  footing: Footing,
  { tooNear }: Pick<CheckLimits, 'tooNear'>,
  aspect: number,
): Finding[] {
  if (!footing.knowsSolids) return [];
  const found: Stretch[] = [];
  for (const time of instants(0, move.duration)) {
    const { view, position, orientation } = move.sampleAt(time);
    if (view.kind !== 'lens') continue;
    const looked = move.looks.filter(({ from, to }) => time >= from && time <= to);
    const limit = Math.min(tooNear, ...looked.map(({ at, reach }) => room(at(time), position, reach)));
    if (!(limit > 0)) continue;
    const projection = new Projection(view, aspect, position, orientation);
    let [covered, nearest] = [0, Infinity];
    let point: Vec3 = position;
    for (const x of LOOKED)
      for (const y of LOOKED) {
        const { from, direction } = projection.ray(x, y);
        const hit = footing.solids.first(from, direction, limit);
        if (!hit) continue;
        covered += 1;
        if (hit.distance < nearest) {
          nearest = hit.distance;
          point = from.map((value, k) => value + direction[k]! * hit.distance) as Vec3;
        }
      }
    if (covered >= COVERS) add(found, time, nearest, point);
  }
  return found.map(({ from, to, worst, at, point }) =>
    finding({
      rule: 'near',
      severity: worst < VERY * tooNear ? 'problem' : 'note',
      from,
      to,
      at,
      worst,
      limit: tooNear,
      point,
      channel: 'section',
    }),
  );
}

/** To where what is looked at begins, metres. */
const room = (target: Vec3, eye: Vec3, reach: number) =>
  Math.hypot(...target.map((value, k) => value - eye[k]!)) - reach;

function instants(from: number, to: number): number[] {
  const steps = Math.max(1, Math.min(MOST, Math.ceil((to - from) / INSTANT)));
  return Array.from({ length: steps + 1 }, (_, i) => from + ((to - from) * i) / steps);
}

function add(found: Stretch[], time: number, worst: number, point: Vec3): void {
  const last = found.at(-1);
  if (!last || time - last.to > JOINED) {
    found.push({ from: time, to: time, worst, at: time, point });
    return;
  }
  last.to = time;
  if (worst < last.worst) Object.assign(last, { worst, at: time, point });
}
