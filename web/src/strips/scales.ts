import type { Channel } from '@eskovan/core/track';

/** Room for the names at the left, at the right, and for the ruler, pixels. */
export const LABELS = 108;
const RIGHT = 18;
export const RULER = 22;
const GAP = 6;
/** A strip is at least so high, pixels. */
const LEAST = 30;

/** Time across the strips: pixels from the left edge, and back. */
export function timeScale(width: number, duration: number) {
  const inner = Math.max(10, width - LABELS - RIGHT);
  return {
    inner,
    x: (time: number) => LABELS + (time / duration) * inner,
    timeAt: (pixels: number) => Math.min(1, Math.max(0, (pixels - LABELS) / inner)) * duration,
  };
}

/** Where each of some strips is, from the upper edge, pixels. */
export function stripScale(height: number, count: number) {
  const each = Math.max(LEAST, (height - RULER - 8) / Math.max(1, count) - GAP);
  return {
    height: each,
    top: (i: number) => RULER + 4 + i * (each + GAP),
    indexAt: (pixels: number) => Math.floor((pixels - RULER - 4) / (each + GAP)),
  };
}

/** Instants at which a channel is looked at, at most. */
const MOST = 600;

/** The values that a strip has room for, and the channel's own at even times. */
export function valuesOf(channel: Channel, duration: number, pixels: number) {
  const steps = Math.max(2, Math.min(MOST, Math.round(pixels)));
  const times = Array.from({ length: steps + 1 }, (_, i) => (duration * i) / steps);
  const values = times.map((time) => channel.at(time));
  const under = channel.under && times.map((time) => channel.under!.at(time));
  return { times, values, under };
}

/** Lowest and highest value that a strip shows: with a floor it begins just under it, else at nothing. */
export function rangeOf(
  channel: Channel,
  values: readonly number[],
  under: readonly number[] | undefined,
): [number, number] {
  if (under) return [Math.min(...under) - 0.35, Math.max(...values) + 0.35];
  const most = Math.max(...values, channel.band ? channel.band[1] * 1.28 : 0);
  // What has keys is pulled up and down: it needs room above, and shows no more below than there is.
  if (channel.track?.keys.length) {
    const least = Math.min(...values);
    const room = Math.max(5 * channel.track.step, 0.25 * (most - least), 0.1 * most);
    return [Math.max(channel.track.limits[0] - channel.track.step, least - room), most + room];
  }
  return [0, Math.max(most * 1.2, 1e-3)];
}
