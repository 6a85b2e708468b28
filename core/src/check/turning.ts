import type { CheckLimits } from '../document/index.ts';
import { toDegrees } from '../geometry/index.ts';
import type { CompiledMove } from '../move/index.ts';
import { crossingFindings } from './crossing.ts';
import { finding, type Finding, type Fix } from './finding.ts';
import { turnFindings } from './turn.ts';

/** An eye that cannot follow is offered this part of the speed, or of the rate at which it turns there. */
const GAZE_TEMPO = 0.75;

/** A walker's turn that is as fast as eyes are held to would be faster if it could: so much, perhaps. */
const [HELD, HASTIER] = [0.95, 0.5];

/** Findings nearer to each other than this are at one time, seconds. */
const TOGETHER = 0.3;

/** Where a camera turns faster than people can follow, or than it can, and what would mend it. @param aspect width over height */
export function turningFindings(move: CompiledMove, limits: CheckLimits, aspect: number): Finding[] {
  const fast = fastTurns(move, limits);
  // What is too fast to follow is said already.
  const crossed = crossingFindings(move, limits, aspect)
    .filter((pan) => !fast.some((one) => one.rule === 'turn' && meets(one, pan)))
    .map((pan) => ({ ...pan, fix: turnFix(move, pan, pan.worst! / limits.crossing) }));
  return [...fast, ...crossed];
}

/** Where a camera turns faster than a limit, or looks elsewhere than it is told since it is held to one. */
export function fastTurns(move: CompiledMove, limits: CheckLimits): Finding[] {
  const off = move.gazeOff.map(({ from, to, worst, at }) =>
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
  return [...tooFast(move, limits), ...off];
}

/** Are two findings at one time? */
export const meets = (a: Finding, b: Finding) => a.from < b.to + TOGETHER && a.to > b.from - TOGETHER;

function tooFast(move: CompiledMove, limits: CheckLimits): Finding[] {
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
  if (turnedBy({ channels }, { from, to }).length > 0) return { kind: 'softer turn', from, to, factor };
  // What goes round has one speed; poses have spans between them; a way has places.
  if (has('turn', channels)) return { kind: 'slower', factor: part };
  const pace = has('pace', channels);
  if (path && pace?.items) return { kind: 'slower here', stretch: [path.stationAt(from), path.stationAt(to)], factor };
  if (channels.some(({ items }) => items?.some(({ kind }) => kind === 'pose')))
    return { kind: 'more time', from, to, factor: 1 / factor };
  // How fast what carries a camera goes is not the camera's to say.
  return null;
}

/** The looks and the stays that a camera turns to and from, or at, in a stretch of time, seconds. */
export const turnedBy = ({ channels }: Pick<CompiledMove, 'channels'>, { from, to }: { from: number; to: number }) =>
  channels
    .flatMap(({ items = [] }) => items)
    .filter(({ kind, ...item }) => (kind === 'gaze' || kind === 'pause') && item.from <= to && item.to >= from);

const has = (id: string, channels: CompiledMove['channels']) => channels.find((channel) => channel.id === id);
