import type { Rate } from '../document/index.ts';

/** Frames that a timecode second counts: 29.97 counts to 30. */
export function nominalRate(rate: Rate): number {
  return Math.round(rate.num / rate.den);
}

/** Drop-frame counting is defined for 29.97 and 59.94 only. */
export function isDropFrame(rate: Rate): boolean {
  return rate.den === 1001 && nominalRate(rate) % 30 === 0;
}

/** Whole frames of a duration in seconds, at least one. */
export function frameCount(duration: number, rate: Rate): number {
  return Math.max(1, Math.round((duration * rate.num) / rate.den));
}

/** The instant that frame `index` shows, seconds: i·den/num. */
export function frameTime(index: number, rate: Rate): number {
  return (index * rate.den) / rate.num;
}

/** The frame on screen at a time: the last one whose instant has come. */
export function frameAt(time: number, rate: Rate): number {
  return Math.floor((time * rate.num) / rate.den + 1e-6);
}

const pad = (value: number) => String(value).padStart(2, '0');

/**
 * Timecode of a frame after SMPTE ST 12-1. Drop-frame (with ';') skips the numbers 0 and 1 (at 59.94: 0 to 3) at the
 * start of every minute that is not a multiple of ten; no picture is dropped.
 */
export function timecodeOf(frame: number, rate: Rate): string {
  if (!Number.isInteger(frame) || frame < 0) throw new RangeError(`a frame is a whole number from 0, got ${frame}`);
  const fps = nominalRate(rate);
  const drop = isDropFrame(rate);
  let label = frame;
  if (drop) {
    const skipped = fps / 15;
    const perMinute = fps * 60 - skipped;
    const perTen = perMinute * 10 + skipped;
    const tens = Math.floor(frame / perTen);
    const rest = frame % perTen;
    label += skipped * 9 * tens + (rest >= fps * 60 ? skipped * (1 + Math.floor((rest - fps * 60) / perMinute)) : 0);
  }
  const seconds = Math.floor(label / fps);
  const parts = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60].map(pad).join(':');
  return `${parts}${drop ? ';' : ':'}${pad(label % fps)}`;
}

/** Frame of a timecode; the inverse of {@link timecodeOf}. @throws RangeError for a label that does not exist */
export function frameOf(timecode: string, rate: Rate): number {
  const match = /^(\d{2,}):([0-5]\d):([0-5]\d)[:;](\d{2})$/.exec(timecode);
  if (!match) throw new RangeError(`timecode must look like 00:00:00:00, got "${timecode}"`);
  const [hours, minutes, seconds, frames] = match.slice(1).map(Number) as [number, number, number, number];
  const fps = nominalRate(rate);
  if (frames >= fps) throw new RangeError(`"${timecode}": a second has the frames 0 to ${fps - 1}`);
  const label = ((hours * 60 + minutes) * 60 + seconds) * fps + frames;
  if (!isDropFrame(rate)) return label;
  const skipped = fps / 15;
  const allMinutes = hours * 60 + minutes;
  if (seconds === 0 && frames < skipped && minutes % 10 !== 0)
    throw new RangeError(`"${timecode}" is one of the labels that drop-frame counting skips`);
  return label - skipped * (allMinutes - Math.floor(allMinutes / 10));
}

/**
 * A length or a place as people type it, in whole frames: a timecode, frames (`72f`), seconds (`3` or `3s`), minutes and
 * seconds (`1:30`). Null where it is none of them.
 */
export function readFrames(text: string, rate: Rate): number | null {
  const typed = text.trim().replace(',', '.');
  const inFrames = /^(\d+)\s*f$/i.exec(typed);
  if (inFrames) return Number(inFrames[1]);
  const inSeconds = /^(\d+(?:\.\d*)?|\.\d+)\s*s?$/i.exec(typed);
  if (inSeconds) return Math.round((Number(inSeconds[1]) * rate.num) / rate.den);
  const inMinutes = /^(\d+):([0-5]?\d(?:\.\d+)?)$/.exec(typed);
  if (inMinutes) return Math.round(((Number(inMinutes[1]) * 60 + Number(inMinutes[2])) * rate.num) / rate.den);
  try {
    return frameOf(typed, rate);
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}
