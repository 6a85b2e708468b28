import type { Travel } from '../document/index.ts';
import { pieceAt } from '../geometry/index.ts';
import { paceProfile } from '../pace/index.ts';
import type { Footing } from '../survey/index.ts';
import type { Channel } from '../track/index.ts';
import { heightChannel } from './height-channel.ts';
import { posedPlaces, TimedCamera, type TimedSite } from './timed-camera.ts';
import { TravelCurve } from './travel-curve.ts';

/** A camera that travels through kept poses, ready to be asked. @throws RangeError with fewer than two poses */
export function compileTravel(body: Travel, footing: Footing, site: TimedSite): TimedCamera {
  const curve = new TravelCurve(body);
  const { duration } = curve;
  const clock = body.even ? evenClock(body, curve) : (time: number) => time;
  const placeAt = (time: number, out: Float64Array, at: number) => curve.placeAt(clock(time), out, at);
  const orientationAt = (time: number) => curve.orientationAt(clock(time));
  return new TimedCamera(
    body,
    {
      ...posedPlaces(duration, placeAt, orientationAt),
      channels: travelChannels(body, duration, placeAt, footing),
    },
    site,
  );
}

/** A run between two stays is measured in so many pieces a second, and speed is read over so long. */
const PIECES = 120;
const MEASURED = 0.02;

/** The clock that lets a travel go at one speed from stay to stay: when it is where it would have been at a time. */
function evenClock({ poses, ends }: Travel, curve: TravelCurve): (time: number) => number {
  const start = poses[0]!.time;
  const stays = poses
    .filter(({ hold }) => hold > 0)
    .map(({ time, hold }) => ({ from: time - start, to: time - start + hold }));
  const bounds = [{ from: 0, to: 0 }, ...stays, { from: curve.duration, to: curve.duration }];
  const runs = bounds.slice(1).flatMap(({ from: to }, i) => {
    const from = bounds[i]!.to;
    if (to - from < 1e-6) return [];
    const pieces = Math.max(16, Math.ceil((to - from) * PIECES));
    const way = new Float64Array(pieces + 1);
    const [a, b] = [new Float64Array(3), new Float64Array(3)];
    curve.placeAt(from, a, 0);
    for (let k = 1; k <= pieces; k += 1) {
      curve.placeAt(from + ((to - from) * k) / pieces, b, 0);
      way[k] = way[k - 1]! + Math.hypot(b[0]! - a[0]!, b[1]! - a[1]!, b[2]! - a[2]!);
      a.set(b);
    }
    const length = way[pieces]!;
    if (length < 1e-6) return [];
    const rests = ends === 'rest' || from > 0 || to < curve.duration;
    const pace = paceProfile(
      { by: 'duration', speed: 1, duration: to - from, shape: rests ? 'soft' : 'constant' },
      { length },
    );
    return [{ from, to, way, pace }];
  });
  return (time) => {
    const run = runs.find(({ from, to }) => time > from && time < to);
    if (!run) return time;
    const { from, to, way, pace } = run;
    const gone = pace.stationAt(time - from);
    const low = pieceAt(way, gone);
    const wide = way[low + 1]! - way[low]!;
    const part = wide > 0 ? (gone - way[low]!) / wide : 0;
    return from + ((to - from) * (low + part)) / (way.length - 1);
  };
}

function travelChannels(
  { poses }: Travel,
  duration: number,
  placeAt: (time: number, out: Float64Array, at: number) => void,
  footing: Footing,
): Channel[] {
  const [place, other] = [new Float64Array(3), new Float64Array(3)];
  const start = poses[0]!.time;
  return [
    heightChannel(footing, placeAt, {
      items: poses.map(({ id, time, hold, position }, i) => {
        const from = time - start;
        const to = Math.min(duration, from + hold);
        return { id, kind: 'pose' as const, from, to, value: position[1], about: `Pose ${i + 1}` };
      }),
    }),
    {
      id: 'pace',
      title: 'Pace',
      unit: 'm/s',
      at: (time) => {
        const [from, to] = [Math.max(0, time - MEASURED / 2), Math.min(duration, time + MEASURED / 2)];
        placeAt(from, place, 0);
        placeAt(to, other, 0);
        return Math.hypot(...[0, 1, 2].map((k) => other[k]! - place[k]!)) / Math.max(1e-6, to - from);
      },
    },
  ];
}
