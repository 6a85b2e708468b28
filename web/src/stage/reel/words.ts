import type { Join, Rate } from '@eskovan/core/document';
import {
  CARRIES,
  frameTime,
  timecodeOf,
  type CutFlow,
  type CutNote,
  type FlowWord,
  type Match,
} from '@eskovan/core/reel';
import { toDegrees } from '@eskovan/core/geometry';

/** A length as people say it: 1:02 or 4.2 s. */
export function lengthText(frames: number, rate: Rate): string {
  const seconds = frameTime(frames, rate);
  if (seconds < 60) return `${seconds.toFixed(1)} s`;
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

/** A length to the frame, in all three ways: seconds, frames, timecode. */
export const exactLength = (frames: number, rate: Rate): string =>
  `${frameTime(frames, rate).toFixed(2)} s · ${frames} frames · ${timecodeOf(frames, rate)}`;

export const FLOW_COLOURS: Record<FlowWord, string> = {
  carries: 'var(--moss)',
  stops: 'var(--ochre)',
  races: 'var(--madder)',
  'turns back': 'var(--madder)',
};

/** What a join does, in a sentence. */
export function flowSentence({ word, before, after }: CutFlow): string {
  const speeds = `${before.toFixed(2)} → ${after.toFixed(2)} frame widths a second`;
  switch (word) {
    case 'carries':
      return `Movement goes on over the join: ${speeds}.`;
    case 'stops':
      return `The picture moves, and is suddenly nearly still: ${speeds}.`;
    case 'races':
      return `The picture is suddenly much faster: ${speeds}.`;
    case 'turns back':
      return `The picture moves one way, and then the other: ${speeds}.`;
  }
}

export const carries = ({ score }: Pick<CutFlow, 'score'>): boolean => score >= CARRIES;

export function joinText(join: Join | null, overlap: number, rate: Rate): string {
  if (!join) return 'cut';
  const seconds = join.kind === 'dip' ? join.seconds : frameTime(overlap, rate);
  return `${join.kind}${join.kind === 'dip' ? ` to ${join.to ?? 'black'}` : ''} ${seconds.toFixed(1)} s`;
}

export function noteSentence(note: CutNote): string {
  switch (note.kind) {
    case 'thirty degrees':
      return `The same thing from nearly the same side (${toDegrees(note.angle).toFixed(0)}° apart): it jumps. Thirty degrees or more, or another size, would not.`;
    case 'crosses the line':
      return 'What goes to one side goes to the other after the cut: the camera has crossed its line.';
    case 'size':
      return `The same thing is ${note.ratio >= 1 ? `${note.ratio.toFixed(1)} times as large` : `${(1 / note.ratio).toFixed(1)} times as small`} after the cut.`;
  }
}

/** Of a cut-out that loses what is looked at for so many seconds. */
export const outsideText = (seconds: number): string =>
  `What it looks at is outside the cut-out ${seconds < 0.05 ? 'for a moment' : `for ${seconds.toFixed(1)} s`}.`;

/** A proposal in a few words. @param names of the two shots */
export function matchText({ kind, by }: Match, [first, second]: readonly [string, string], rate: Rate): string {
  const seconds = by === null ? '' : `${frameTime(Math.abs(by), rate).toFixed(1)} s`;
  const pace = by === null ? '' : `${(by * 100).toFixed(0)} % of its pace`;
  switch (kind) {
    case 'end earlier or later':
      return `End ${first} ${seconds} ${by! < 0 ? 'earlier' : 'later'}`;
    case 'begin earlier or later':
      return `Begin ${second} ${seconds} ${by! > 0 ? 'later' : 'earlier'} in its move`;
    case 'slip the first':
      return `Slip ${first} by ${seconds} ${by! > 0 ? 'on' : 'back'}`;
    case 'slip the second':
      return `Slip ${second} by ${seconds} ${by! > 0 ? 'on' : 'back'}`;
    case 'reverse the first':
      return `Play ${first} the other way`;
    case 'reverse the second':
      return `Play ${second} the other way`;
    case 'swap':
      return 'Swap the two shots';
    case 'pace of the first':
      return `${first} at ${pace}`;
    case 'pace of the second':
      return `${second} at ${pace}`;
    case 'even pace of the first':
      return `${first} at one pace all the way (changes the move)`;
    case 'even pace of the second':
      return `${second} at one pace all the way (changes the move)`;
  }
}
