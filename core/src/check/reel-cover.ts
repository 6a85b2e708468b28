import type { CompiledMove } from '../move/index.ts';
import { roomOfEye, type Footing } from '../survey/index.ts';
import { coverageOf, type CoveredStorey, type RoomCover } from './coverage.ts';

/** What is under no roof, as a row among rooms. */
export const OUTSIDE = 'Outside';
/** Where the camera is outside it shows the outside: looked at so often, seconds. */
const INSTANT = 0.25;

/** How long a shot shows every room, and the outside. Times are seconds since its first frame. */
export function shotCover(
  shot: Pick<CompiledMove, 'duration' | 'sampleAt'>,
  footing: Footing,
  storeys: readonly CoveredStorey[],
  aspect: number,
): RoomCover[] {
  const outside: RoomCover = { room: OUTSIDE, storey: '', seen: 0, inside: 0, spans: [] };
  const steps = Math.max(1, Math.ceil(shot.duration / INSTANT));
  const step = shot.duration / steps;
  for (let i = 0; i < steps; i += 1) {
    if (roomOfEye(shot.sampleAt((i + 0.5) * step).position, storeys)) continue;
    outside.seen += step;
    outside.inside += step;
    addSpan(outside.spans, [i * step, (i + 1) * step]);
  }
  return [outside, ...coverageOf(shot, footing, storeys, aspect)];
}

/** What shots show, one after the other: rooms of the same name on the same storey are one. */
export function joinCovers(shots: readonly { start: number; cover: readonly RoomCover[] }[]): RoomCover[] {
  const joined = new Map<string, RoomCover>();
  for (const { start, cover } of shots)
    for (const { room, storey, seen, inside, spans } of cover) {
      const key = `${storey}\n${room}`;
      const sum = joined.get(key) ?? { room, storey, seen: 0, inside: 0, spans: [] };
      joined.set(key, sum);
      sum.seen += seen;
      sum.inside += inside;
      for (const [from, to] of spans) addSpan(sum.spans, [start + from, start + to]);
    }
  return [...joined.values()];
}

/** Stretches that touch are one. */
function addSpan(spans: [number, number][], [from, to]: [number, number]): void {
  const last = spans.at(-1);
  if (last && from - last[1] < 1e-6) last[1] = Math.max(last[1], to);
  else spans.push([from, to]);
}
