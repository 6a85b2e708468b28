import type { Rate } from '../document/index.ts';
import { FormatError } from '../format/index.ts';
import { frameOf, isDropFrame } from '../reel/index.ts';
import type { BroughtReel, BroughtShot } from './sent-reel.ts';

interface EdlEvent {
  number: string;
  kind: string;
  frames: number;
  sourceIn: number;
  sourceOut: number;
  recordIn: number;
  recordOut: number;
  from: string | null;
  to: string | null;
  speed: number | null;
  blend: boolean;
  dip: boolean;
}

const LINE =
  /^(\d{1,6})\s+(\S+)\s+(\S+)\s+(C|D|W\d{3}|K\s*\w?)\s*(\d{1,4})?\s+(\d\d:\d\d:\d\d[:;.]\d\d)\s+(\d\d:\d\d:\d\d[:;.]\d\d)\s+(\d\d:\d\d:\d\d[:;.]\d\d)\s+(\d\d:\d\d:\d\d[:;.]\d\d)\s*$/;
const ADVICE = 'Export the list again as CMX 3600 EDL.';

/**
 * The shots of an edit decision list, in their order.
 * @param rate what its timecodes count, which a list does not say; whether numbers are dropped it does
 * @throws FormatError for a file that has no event
 */
export function readEdl(text: string, fileName: string, rate: Rate): BroughtReel {
  const leftOut: string[] = [];
  let name = fileName.replace(/\.edl$/i, '');
  let counting: Rate = rate;
  const events: EdlEvent[] = [];
  let sound = 0;
  let unread = 0;
  for (const line of text.split(/\r\n|\r|\n/)) {
    const title = /^TITLE:\s*(.*)$/.exec(line)?.[1]?.trim();
    if (title) name = title;
    const fcm = /^FCM:\s*(.*)$/.exec(line)?.[1];
    if (fcm && /^DROP/.test(fcm) && !isDropFrame(rate)) {
      counting = { num: Math.round(rate.num / rate.den) > 40 ? 60_000 : 30_000, den: 1001 };
      leftOut.push('Its timecodes drop numbers: they are read at 29.97 (or 59.94) frames a second.');
    }
    const last = events.at(-1);
    const event = LINE.exec(line.trimEnd());
    if (event) {
      if (/^A+\d*$/i.test(event[3]!) && !/V/i.test(event[3]!)) sound += 1;
      else if (!pushEvent(events, event, counting)) unread += 1;
    } else if (last) comment(last, line, counting);
  }
  if (sound > 0) leftOut.push(`${sound} events of sound.`);
  if (unread > 0) leftOut.push(`${unread} events with a timecode that there is not at this rate.`);
  if (events.length === 0)
    throw new FormatError('wrong-type', fileName, 'it has no event of an edit decision list.', ADVICE);
  return { name, rate: counting, shots: shotsOf(events, leftOut), leftOut };
}

function pushEvent(events: EdlEvent[], match: RegExpExecArray, rate: Rate): boolean {
  const code = (text: string) => frameOf(text.replace('.', ':'), rate);
  try {
    const [sourceIn, sourceOut, recordIn, recordOut] = match.slice(6, 10).map(code) as [number, number, number, number];
    events.push({
      number: match[1]!,
      kind: match[4]!.trim(),
      frames: Number(match[5] ?? 0),
      sourceIn,
      sourceOut,
      recordIn,
      recordOut,
      from: null,
      to: null,
      speed: null,
      blend: false,
      dip: false,
    });
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

function comment(event: EdlEvent, line: string, rate: Rate): void {
  const says = (pattern: RegExp) => pattern.exec(line)?.[1]?.trim();
  event.from ??= says(/^\*\s*FROM CLIP NAME:\s*(.+)$/i) ?? null;
  event.to ??= says(/^\*\s*TO CLIP NAME:\s*(.+)$/i) ?? null;
  const perSecond = says(/^M2\s+\S+\s+(-?\s*\d+(?:\.\d+)?)/);
  if (perSecond) event.speed = Number(perSecond.replace(/\s/g, '')) / (rate.num / rate.den);
  if (/^\*\s*BLEND/.test(line)) event.blend = true;
  if (/^\*\s*DIP TO/.test(line)) event.dip = true;
}

function shotsOf(events: readonly EdlEvent[], leftOut: string[]): BroughtShot[] {
  const shots: BroughtShot[] = [];
  let wipes = 0;
  events.forEach((event, i) => {
    const shown = event.recordOut - event.recordIn;
    // The first line of a dissolve only says what is left.
    const leads = shown <= 0 && events[i + 1]?.number === event.number;
    if (leads || shown <= 0) return;
    if (/^[WK]/.test(event.kind)) wipes += 1;
    const overlap = event.kind === 'C' || shots.length === 0 ? 0 : event.frames;
    const before = shots.at(-1);
    if (before) before.frames += overlap;
    const speed = event.speed ?? 1;
    shots.push({
      name: (overlap > 0 ? event.to : null) ?? event.from ?? '',
      id: null,
      frames: shown,
      overlap,
      join: overlap > 0 ? (event.blend ? 'blend' : 'dissolve') : event.dip ? 'dip' : null,
      from: speed < 0 ? event.sourceOut : event.sourceIn,
      speed,
    });
  });
  if (wipes > 0) leftOut.push(`${wipes} wipes and keys: they become dissolves.`);
  return shots;
}
