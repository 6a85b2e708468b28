import { FIRST_WALKER, type CheckLimits, type Vec3, type Walker } from '../document/index.ts';
import { toDegrees } from '../geometry/index.ts';
import type { CompiledMove } from '../move/index.ts';
import type { Footing } from '../survey/index.ts';
import { tightPlaces } from './clearance.ts';
import { crossingFindings } from './crossing.ts';
import { eyeHeightFindings } from './eye-height.ts';
import { finding, type Finding, type Fix } from './finding.ts';
import { frameFindings } from './frame.ts';
import { jumpFindings } from './jump.ts';
import { problemsFirst } from './severity.ts';
import { hiddenFindings, nearFindings } from './sight.ts';
import { passages } from './through.ts';
import { turnFindings } from './turn.ts';
import { wayFindings } from './way.ts';

/** An eye that cannot follow is offered this part of the speed, or of the rate at which it turns there. */
const GAZE_TEMPO = 0.75;

/** A walker's turn that is as fast as eyes are held to would be faster if it could: so much, perhaps. */
const [HELD, HASTIER] = [0.95, 0.5];

/** Findings nearer to each other than this are at one time, seconds. */
const TOGETHER = 0.3;

/** What is so near to something that is gone through belongs to it, metres. */
const BESIDE = 0.6;

/**
 * Everything that the checks know of a move: problems first, each in the order of time. Reads no kind of move.
 * @param aspect width over height of its pictures
 */
export function checkMove(
  move: CompiledMove,
  footing: Footing,
  limits: CheckLimits,
  walker: Pick<Walker, 'radius' | 'height'> = FIRST_WALKER,
  aspect = 16 / 9,
): Finding[] {
  const { path, ground, duration } = move;
  const always = { from: 0, to: duration };
  const met = metFindings(move);
  const found = [...met, ...tightFindings(move, footing, walker, met)];
  if (!ground)
    for (const { from, to, point } of passages(move, footing).filter(({ point: met }) => !isOwn(move, met)))
      found.push(finding({ rule: 'through', severity: 'problem', from, to, at: from, point }));
  // A check that did not look must not look as if it had.
  if (!(ground?.knowsObstacles ?? footing.knowsSolids))
    found.push(finding({ rule: 'not looked at', severity: 'note', ...always }));
  // What is gone through or brushed along is near, and said already.
  found.push(
    ...nearFindings(move, footing, limits, aspect).filter(
      (near) =>
        !(near.point && isOwn(move, near.point)) && !found.some((one) => one.channel === 'section' && meets(one, near)),
    ),
  );
  found.push(...frameFindings(move, aspect));
  found.push(...hiddenFindings(move, footing));
  found.push(...eyeHeightFindings(move, limits));
  if (ground && path && path.topSpeed > limits.haste) {
    const [worst, limit] = [path.topSpeed, limits.haste];
    const fix = { kind: 'slower' as const, factor: limit / worst };
    found.push(finding({ rule: 'haste', severity: 'problem', ...always, worst, limit, fix, channel: 'pace' }));
  }
  const turns = turningFindings(move, limits);
  found.push(...turns);
  // What is too fast to follow is said already.
  const crossed = crossingFindings(move, limits, aspect).filter((pan) => !turns.some((turn) => meets(turn, pan)));
  for (const one of crossed) found.push({ ...one, fix: turnFix(move, one, one.worst! / limits.crossing) });
  for (const { from, to, worst, at } of move.gazeOff)
    found.push(
      finding({
        rule: 'gaze off',
        severity: 'note',
        ...{ from, to, at },
        worst: toDegrees(worst),
        limit: limits.turnProblem,
        // Angles that are missed grow with the speed.
        fix: turnFix(move, { from, to }, GAZE_TEMPO),
        channel: 'gaze',
      }),
    );
  found.push(...jumpFindings(move));
  if (move.lostKeys > 0) found.push(finding({ rule: 'key lost', severity: 'note', ...always, worst: move.lostKeys }));
  return problemsFirst(found);
}

/** Is a place within what has moved away by then, or carries the camera along? */
const isOwn = ({ away }: CompiledMove, point: Vec3) =>
  away !== undefined && point.every((value, k) => value >= away.min[k]! - OWN && value <= away.max[k]! + OWN);
/** So near to what carries it a camera meets that itself, metres. */
const OWN = 0.05;

const meets = (a: Finding, b: Finding) => a.from < b.to + TOGETHER && a.to > b.from - TOGETHER;

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
): Finding[] {
  const { path } = move;
  if (!path) return [];
  return tightPlaces(move, footing, walker)
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

function turningFindings(move: CompiledMove, limits: CheckLimits): Finding[] {
  // The strip that shows it is called by what turns: the eye of who walks, the camera of who goes round.
  const channel = move.channels.some(({ id }) => id === 'gaze') ? 'gaze' : 'turn';
  return turnFindings(move, limits).map(({ severity, from, to, worst, at }) =>
    finding({
      rule: 'turn',
      ...{ severity, from, to, at, channel },
      worst: toDegrees(worst),
      limit: severity === 'problem' ? limits.turnProblem : limits.turnNote,
      fix: turnFix(
        move,
        { from, to },
        (move.ground && toDegrees(worst) > HELD * limits.turnProblem ? HASTIER : 1) *
          (limits.turnNote / toDegrees(worst)),
      ),
    }),
  );
}

/** The least tempo of a stretch that is offered, and what is left over for safety. */
const [SLOWEST, SPARE] = [0.15, 0.96];

/**
 * What lets a camera turn at a part of its rate: where it turns to or from something, or on the spot, that turn is made
 * slower; where it follows a way, that stretch of the way; else all of the move.
 */
function turnFix(
  { path, channels }: CompiledMove,
  { from, to }: { from: number; to: number },
  part: number,
): Fix | null {
  const factor = Math.max(SLOWEST, part * SPARE);
  const items = channels.flatMap((channel) => channel.items ?? []);
  const turns = items.some(
    (item) => (item.kind === 'gaze' || item.kind === 'pause') && item.from <= to && item.to >= from,
  );
  if (turns) return { kind: 'softer turn', from, to, factor };
  // What goes round has one speed; poses have spans between them; a way has places.
  if (has('turn', channels)) return { kind: 'slower', factor: part };
  const pace = has('pace', channels);
  if (path && pace?.items) return { kind: 'slower here', stretch: [path.stationAt(from), path.stationAt(to)], factor };
  if (items.some(({ kind }) => kind === 'pose')) return { kind: 'more time', from, to, factor: 1 / factor };
  // How fast what carries a camera goes is not the camera's to say.
  return null;
}

const has = (id: string, channels: CompiledMove['channels']) => channels.find((channel) => channel.id === id);
