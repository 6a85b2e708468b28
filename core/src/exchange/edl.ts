import { frameOf, isDropFrame, timecodeOf } from '../reel/index.ts';
import type { Rate } from '../document/index.ts';
import { signedSpeed, sourceFrame, type SentReel, type SentShot } from './sent-reel.ts';

/** Where programs of this kind expect a film to begin: an hour in (common practice, no source). */
const startOf = (rate: Rate): number => frameOf(isDropFrame(rate) ? '01:00:00;00' : '01:00:00:00', rate);

/** A name as a comment of the list can hold it: one line. */
const oneLine = (name: string): string => name.replace(/\s+/g, ' ').trim();
/** Sources without a tape: auxiliary. */
const AUX = 'AX      ';

/**
 * A reel as an edit decision list in the form that CMX 3600 editors read: an event for each shot, two lines where it
 * dissolves, speeds as motion memory (M2), names as comments. A blend is a dissolve there, and says that it is a blend.
 * Source: the column layout of CMX 3600 lists as commonly published, from memory.
 */
export function writeEdl({ name, rate, shots }: SentReel): string {
  const first = startOf(rate);
  const lines = [`TITLE: ${oneLine(name)}`, `FCM: ${isDropFrame(rate) ? 'DROP FRAME' : 'NON-DROP FRAME'}`, ''];
  shots.forEach((shot, i) => lines.push(...eventOf(shot, shots[i - 1], shots[i + 1], first, rate)));
  return `${lines.join('\r\n')}\r\n`;
}

function eventOf(
  shot: SentShot,
  before: SentShot | undefined,
  after: SentShot | undefined,
  first: number,
  rate: Rate,
): string[] {
  const { planned, name } = shot;
  const event = String(planned.index + 1).padStart(3, '0');
  const code = (frame: number) => timecodeOf(Math.max(0, Math.round(frame)), rate);
  const speed = signedSpeed(planned);
  const start = first + planned.start;
  // What it shares with the next one stands in the event of the next.
  const end = start + planned.frames - (after?.planned.overlap ?? 0);
  const shown = planned.frames - (after?.planned.overlap ?? 0);
  // Backwards the source begins at its later end and is played down from there.
  const from = speed < 0 ? sourceFrame(planned, rate) - shown * -speed : sourceFrame(planned, rate);
  const columns = (transition: string, times: readonly string[]) =>
    `${event}  ${AUX} V     ${transition} ${times.join(' ')}`;
  const own = [code(from), code(from + shown * Math.abs(speed)), code(start), code(end)];
  const lines: string[] = [];
  if (planned.overlap > 0 && before) {
    const left = code(
      sourceFrame(before.planned, rate) + (before.planned.frames - planned.overlap) * before.planned.speed,
    );
    lines.push(columns('C       ', [left, left, code(start), code(start)]));
    lines.push(columns(`D    ${String(planned.overlap).padStart(3, '0')}`, own));
    lines.push(`* FROM CLIP NAME: ${oneLine(before.name)}`, `* TO CLIP NAME: ${oneLine(name)}`);
  } else {
    lines.push(columns('C       ', own), `* FROM CLIP NAME: ${oneLine(name)}`);
  }
  if (Math.abs(speed - 1) > 1e-9) {
    const perSecond = (speed * rate.num) / rate.den;
    lines.push(
      `M2   ${AUX} ${perSecond < 0 ? '-' : ' '}${Math.abs(perSecond).toFixed(3).padStart(7, '0')}       ${own[0]}`,
    );
  }
  if (planned.join?.kind === 'blend') lines.push('* BLEND: ONE CONTINUOUS CAMERA');
  if (planned.join?.kind === 'dip')
    lines.push(`* DIP TO ${(planned.join.to ?? 'black').toUpperCase()} ${planned.join.seconds.toFixed(3)} S`);
  if (shot.body.note) lines.push(`* COMMENT: ${oneLine(shot.body.note)}`);
  return lines;
}
