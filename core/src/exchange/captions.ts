import { frameTime } from '../reel/index.ts';
import type { SentReel } from './sent-reel.ts';

const pad = (value: number, digits = 2) => String(value).padStart(digits, '0');

/** A time as SubRip writes it: 00:01:02,345. */
function stamp(seconds: number): string {
  const ms = Math.max(0, Math.round(seconds * 1000));
  return `${pad(Math.floor(ms / 3_600_000))}:${pad(Math.floor(ms / 60_000) % 60)}:${pad(Math.floor(ms / 1000) % 60)},${pad(ms % 1000, 3)}`;
}

/** Captions of a reel as SubRip text (.srt): each as long as its shot is seen alone, so that no two are there at once. */
export function writeSrt({ shots, rate }: SentReel): string {
  const said = shots.flatMap(({ body, planned }, i) => {
    if (!body.caption) return [];
    const end = planned.start + planned.frames - (shots[i + 1]?.planned.overlap ?? 0);
    return [{ text: body.caption.text, from: frameTime(planned.start, rate), to: frameTime(end, rate) }];
  });
  return said
    .map(({ text, from, to }, i) => `${i + 1}\r\n${stamp(from)} --> ${stamp(to)}\r\n${plainLines(text)}\r\n`)
    .join('\r\n');
}

/** An empty line ends a caption there, so a caption has none. */
const plainLines = (text: string): string =>
  text
    .split(/\r\n|\r|\n/)
    .map((line) => line.trim())
    .filter(Boolean)
    .join('\r\n');
