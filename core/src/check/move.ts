import type { Movers } from '../action/index.ts';
import { FIRST_WALKER, type CheckLimits, type Vec3, type Walker } from '../document/index.ts';
import type { CompiledMove } from '../move/index.ts';
import type { Footing } from '../survey/index.ts';
import { tightPlaces } from './clearance.ts';
import { eyeHeightFindings } from './eye-height.ts';
import { finding, type Finding } from './finding.ts';
import { frameFindings } from './frame.ts';
import { jumpFindings } from './jump.ts';
import { problemsFirst } from './severity.ts';
import { hiddenFindings, nearFindings } from './sight.ts';
import { meetings, passages } from './through.ts';
import { meets, turningFindings } from './turning.ts';
import { wayFindings } from './way.ts';

/** What has moved away by this part of the room of shoulders is passed: sideways, one gets by. */
const PASSED = 0.6;

/** What is so near to something that is gone through belongs to it, metres. */
const BESIDE = 0.6;

/**
 * Everything that the checks know of a move: problems first, each in the order of time. Reads no kind of move.
 * @param aspect width over height of its pictures
 * @param movers what moves of the site: it may have gone by the time that one is there, or have come
 */
export function checkMove(
  move: CompiledMove,
  footing: Footing,
  limits: CheckLimits,
  walker: Pick<Walker, 'radius' | 'height'> = FIRST_WALKER,
  aspect = 16 / 9,
  movers: Movers | null = null,
): Finding[] {
  const { path, ground, duration } = move;
  const always = { from: 0, to: duration };
  const isThere = ({ point, from, to }: { point: Vec3 | null; from: number; to: number }) =>
    !point || ![from, to].every((time) => movers?.isGone(point, time, PASSED * walker.radius));
  const met = metFindings(move).filter(isThere);
  const found = [...met, ...tightFindings(move, footing, walker, met, movers)];
  if (!ground)
    for (const { from, to, point } of passages(move, footing).filter((one) => !isOwn(move, one.point) && isThere(one)))
      found.push(finding({ rule: 'through', severity: 'problem', from, to, at: from, point }));
  if (movers?.any)
    found.push(
      ...meetings(move, footing, movers)
        .filter(({ point }) => !isOwn(move, point))
        .map(({ from, to }) => finding({ rule: 'met', severity: 'problem', from, to, at: from }))
        // A door that is not open yet is in the way as it stands.
        .filter((one) => !met.some((thing) => meets(thing, one))),
    );
  // A check that did not look must not look as if it had.
  if (!(ground?.knowsObstacles ?? footing.knowsSolids))
    found.push(finding({ rule: 'not looked at', severity: 'note', ...always }));
  // What is gone through or brushed along is near, and said already.
  found.push(
    ...nearFindings(move, footing, limits, aspect).filter(
      (near) =>
        !(near.point && isOwn(move, near.point)) &&
        isThere(near) &&
        !found.some((one) => one.channel === 'section' && meets(one, near)),
    ),
  );
  found.push(...frameFindings(move, aspect));
  found.push(...hiddenFindings(move, footing, movers));
  found.push(...eyeHeightFindings(move, limits));
  if (ground && path && path.topSpeed > limits.haste) {
    const [worst, limit] = [path.topSpeed, limits.haste];
    const fix = { kind: 'slower' as const, factor: limit / worst };
    found.push(finding({ rule: 'haste', severity: 'problem', ...always, worst, limit, fix, channel: 'pace' }));
  }
  found.push(...turningFindings(move, limits, aspect));
  found.push(...jumpFindings(move));
  if (move.lostKeys > 0) found.push(finding({ rule: 'key lost', severity: 'note', ...always, worst: move.lostKeys }));
  return problemsFirst(found);
}

/** Is a place within what has moved away by then, or carries the camera along? */
const isOwn = ({ away }: CompiledMove, point: Vec3) =>
  away !== undefined && point.every((value, k) => value >= away.min[k]! - OWN && value <= away.max[k]! + OWN);
/** So near to what carries it a camera meets that itself, metres. */
const OWN = 0.05;

/** What is in the way of a walk. */
function metFindings(move: CompiledMove): Finding[] {
  const { path } = move;
  if (!path) return [];
  return wayFindings(move).map(({ rule, from, to, size, point }) => {
    const [start, end] = [path.timeAt(from), path.timeAt(to)];
    return finding({
      rule,
      severity: 'problem',
      ...{ from: start, to: end, at: start, point },
      stretch: [from, to],
      worst: size,
      channel: 'section',
    });
  });
}

/** Where a walk is too narrow; what is gone through is said already. */
function tightFindings(
  move: CompiledMove,
  footing: Footing,
  walker: Pick<Walker, 'radius' | 'height'>,
  met: readonly Finding[],
  movers: Movers | null,
): Finding[] {
  const { path } = move;
  if (!path) return [];
  return tightPlaces(move, footing, walker, movers)
    .filter(({ from, to }) => !met.some(({ stretch }) => from < stretch![1] + BESIDE && to > stretch![0] - BESIDE))
    .map(({ severity, from, to, worst, station, point }) =>
      finding({
        rule: 'clearance',
        ...{ severity, worst, point },
        from: path.timeAt(from),
        to: path.timeAt(to),
        stretch: [from, to],
        at: path.timeAt(station),
        limit: walker.radius,
        fix: { kind: 'clear', stretch: [from, to] },
        channel: 'section',
      }),
    );
}
