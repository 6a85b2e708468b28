import type { MovePath } from './sample.ts';
import { tableAt } from './uniform-table.ts';

/** A way is measured so often, seconds, and at no more instants than so many. */
const INSTANT = 1 / 60;
const MOST = 20_000;

/** The way of a camera that is placed by time; stations are metres along it. Null where it gets nowhere. */
export function timedPath(
  duration: number,
  placeAt: (time: number, out: Float64Array, at: number) => void,
): MovePath | null {
  const instants = Math.min(MOST, Math.max(16, Math.ceil(duration / INSTANT)));
  const step = duration / instants;
  const places = new Float64Array(3 * (instants + 1));
  const way = new Float64Array(instants + 1);
  let topSpeed = 0;
  for (let i = 0; i <= instants; i += 1) {
    placeAt(i * step, places, 3 * i);
    if (i === 0) continue;
    const gone = Math.hypot(...[0, 1, 2].map((k) => places[3 * i + k]! - places[3 * i - 3 + k]!));
    way[i] = way[i - 1]! + gone;
    topSpeed = Math.max(topSpeed, gone / step);
  }
  const length = way[instants]!;
  if (length < NOWHERE) return null;
  const table = { values: way, length: duration, closed: false };
  const timeAt = (station: number) => {
    let [low, high] = [0, instants];
    if (station <= 0) return 0;
    if (station >= length) high = low = way.findIndex((gone) => gone >= length);
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (way[middle]! < station) low = middle;
      else high = middle;
    }
    const wide = way[high]! - way[low]!;
    return step * (low + (wide > 0 ? (station - way[low]!) / wide : 0));
  };
  const place = new Float64Array(3);
  return {
    length,
    closed: false,
    topSpeed,
    stationAt: (time) => tableAt(table, time),
    timeAt,
    pointAt: (station, out) => {
      placeAt(timeAt(station), place, 0);
      out[0] = place[0]!;
      out[1] = place[2]!;
    },
    placeAt: (station) => {
      placeAt(timeAt(station), place, 0);
      return [place[0]!, place[1]!, place[2]!];
    },
    anchorAt: (station) => ({ by: 'station', station: Math.max(0, station) }),
    nearest: (x, z) => {
      let [best, at] = [Infinity, 0];
      for (let i = 0; i <= instants; i += 1) {
        const away = Math.hypot(places[3 * i]! - x, places[3 * i + 2]! - z);
        if (away < best) [best, at] = [away, i];
      }
      return way[at]!;
    },
  };
}

/** Who gets no farther than this has no way, metres. */
const NOWHERE = 1e-3;
