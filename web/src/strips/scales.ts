import { METRES, shownIn, type LengthUnit } from '@eskovan/core/document';
import type { MovePath } from '@eskovan/core/move';
import type { Channel } from '@eskovan/core/track';

/** Room for the names at the left, at the right, and for the ruler, pixels. */
export const LABELS = 108;
const RIGHT = 18;
export const RULER = 22;
const GAP = 6;
/** A strip is at least so high, pixels. */
const LEAST = 30;

/** Instants at which a channel is looked at, at most. */
const MOST = 600;

/** What runs from left to right, and which part of it is shown: 0…1 of the whole. */
export interface StripAxis {
  by: 'time' | 'station';
  from: number;
  to: number;
}

/** What a scale has to know of a move. */
export interface Scaled {
  duration: number;
  path: Pick<MovePath, 'length' | 'stationAt' | 'timeAt'> | null;
}

/** Time across the strips: pixels from the left edge, and back. */
export interface StripScale {
  inner: number;
  by: StripAxis['by'];
  x: (time: number) => number;
  /** The same to half a pixel: what is drawn there stays as it is where a whole reel moves by less. */
  at: (time: number) => number;
  timeAt: (pixels: number) => number;
  /** When it is so many pixels beside an instant. */
  shifted: (time: number, pixels: number) => number;
  /** Is an instant within what is shown? */
  shows: (time: number) => boolean;
  /** Instants as far apart as they are drawn, both ends included. */
  times: readonly number[];
  /** From where to where it is shown, in seconds or metres. */
  ends: readonly [number, number];
  /** What lengths are shown in. */
  lengths: LengthUnit;
}

export function stripScaleOf(
  width: number,
  { duration, path }: Scaled,
  axis: StripAxis,
  lengths: LengthUnit = METRES,
): StripScale {
  const inner = Math.max(10, width - LABELS - RIGHT);
  // What does not get anywhere has no stations.
  const by = path && path.length > 0 ? axis.by : 'time';
  const whole = by === 'time' ? duration : path!.length;
  const [from, to] = [axis.from * whole, axis.to * whole];
  const placeAt = (time: number) => (by === 'time' ? time : path!.stationAt(time));
  const x = (time: number) => LABELS + ((placeAt(time) - from) / (to - from)) * inner;
  const timeAt = (pixels: number) => {
    const place = Math.min(whole, Math.max(0, from + ((pixels - LABELS) / inner) * (to - from)));
    return by === 'time' ? place : path!.timeAt(place);
  };
  // Asked once for all strips: by station each of them is searched for.
  const steps = Math.max(2, Math.min(MOST, Math.round(inner)));
  const times = Array.from({ length: steps + 1 }, (_, i) => timeAt(LABELS + (inner * i) / steps));
  return {
    at: (time) => Math.round(2 * x(time)) / 2,
    inner,
    by,
    times,
    x,
    timeAt,
    shifted: (time, pixels) => timeAt(x(time) + pixels),
    shows: (time) => x(time) >= LABELS - 0.5 && x(time) <= LABELS + inner + 0.5,
    ends: [from, to],
    lengths,
  };
}

/** Nothing is looked at closer than so many seconds or metres. */
const CLOSEST = 0.5;

/** Looks closer (`factor` under 1) or from farther, about a part of the whole that stays where it is. */
export function zoomed(
  axis: StripAxis,
  factor: number,
  about: number,
  whole: number,
  lengths: LengthUnit = METRES,
): StripAxis {
  const closest = axis.by === 'station' ? CLOSEST * lengths.steps : CLOSEST;
  const wide = Math.min(1, Math.max(closest / Math.max(whole, closest), (axis.to - axis.from) * factor));
  const part = (about - axis.from) / (axis.to - axis.from);
  return shiftedTo(axis, about - part * wide, wide);
}

/** The same stretch elsewhere. @param by a part of what is shown */
export const panned = (axis: StripAxis, by: number): StripAxis =>
  shiftedTo(axis, axis.from + by * (axis.to - axis.from), axis.to - axis.from);

function shiftedTo(axis: StripAxis, from: number, wide: number): StripAxis {
  const start = Math.min(1 - wide, Math.max(0, from));
  return { ...axis, from: start, to: start + wide };
}

/** A strip with a section in it is so much higher than others; each row of one that has rows, so high. */
const [SECTION, ROW] = [1.9, 0.4];

/** Where each of some strips is, from the upper edge, pixels. */
export function stripScale(height: number, channels: readonly Pick<Channel, 'id' | 'under' | 'rows'>[]) {
  const weights = channels.map(({ under, rows = 0 }) => (under ? SECTION : Math.max(1, ROW * rows)));
  const sum = weights.reduce((all, one) => all + one, 0);
  const room = height - RULER - 8 - GAP * channels.length;
  const heights = weights.map((weight) => Math.max(LEAST, (room * weight) / Math.max(1, sum)));
  const tops = heights.map((_, i) => RULER + 4 + heights.slice(0, i).reduce((all, one) => all + one + GAP, 0));
  return {
    height: (i: number) => heights[i]!,
    top: (i: number) => tops[i]!,
    /** The strip at a height; −1 where there is none. */
    indexAt: (pixels: number) => tops.findIndex((top, i) => pixels >= top && pixels <= top + heights[i]! + GAP),
  };
}

/** The values that a strip has room for, and the channel's own at places as far apart as they are drawn. */
export function valuesOf(channel: Channel, { times }: StripScale) {
  const values = times.map((time) => channel.at(time));
  const under = channel.under && times.map((time) => channel.under!.at(time));
  return { times, values, under };
}

/** Ceilings higher over the eye than this are left out, metres: the line of the eye must not be flat. */
const OVERHEAD = 1.6;

/** What is free over and under a line, metres. */
const FREE = 0.35;
/** A line over nothing but itself keeps so much of its own extent free. */
const FREE_PART = 0.5;

/** What a hand or key changes a channel's keys by. */
export const stepOf = ({ unit, track }: Pick<Channel, 'unit' | 'track'>, lengths: LengthUnit): number =>
  (track?.step ?? 0) * (unit === 'm' ? lengths.steps : 1);

/** Lowest and highest value that a strip shows: with a floor it begins just under it, else at nothing. */
export function rangeOf(
  channel: Channel,
  values: readonly number[],
  under: readonly number[] | undefined,
  lengths: LengthUnit,
): [number, number] {
  if (channel.rows) return [0.4, channel.rows + 0.6];
  if (under) {
    const [least, most] = [Math.min(...under), Math.max(...values)];
    const free = lengths === METRES ? FREE : Math.max(1e-6, FREE_PART * (most - least));
    return [least - free, most + (channel.cut && lengths === METRES ? OVERHEAD : free)];
  }
  const most = Math.max(...values, channel.band ? channel.band[1] * 1.28 : 0);
  // What has keys is pulled up and down: it needs room above, and shows no more below than there is.
  if (channel.track?.keys.length) {
    const least = Math.min(...values);
    const step = stepOf(channel, lengths);
    const room = Math.max(5 * step, 0.25 * (most - least), 0.1 * most);
    return [Math.max(channel.track.limits[0] - step, least - room), most + room];
  }
  return [0, Math.max(most * 1.2, 1e-3 / shownIn(channel.unit, lengths).times)];
}

/** A hand that raises something goes by such steps; in a strip of something small by finer ones, of so many pixels at most. */
const [VALUE_STEP, STEP_PIXELS] = [0.05, 3];

/** The largest of 1, 2 and 5 tens that is no larger than so many pixels. @param perPixel value of a pixel */
export function valueStep(perPixel: number): number {
  const most = Math.max(1e-6, STEP_PIXELS * perPixel);
  const ten = 10 ** Math.floor(Math.log10(most));
  return Math.min(VALUE_STEP, ten * ([5, 2].find((part) => part * ten <= most) ?? 1));
}
