// Reels: start times of many shots, the camera of every frame beside the move asked directly, image flow over the cuts.
import { DEFAULT_LENS } from '@eskovan/core/document';
import { compileMove } from '@eskovan/core/move';
import { CompiledReel, endFlow, planReel, startFlow } from '@eskovan/core/reel';
import { timed } from './lib/measure.mjs';

const RATE = { num: 25, den: 1 };
const SHOTS = 200;
const FRAMES = 1500;
const ASPECT = 16 / 9;
const id = (n) => `00000000-0000-4000-8000-00000000${String(8000 + n)}`;

/** A camera that goes through the site, looking ahead. */
const GLIDE = {
  kind: 'glide',
  path: {
    closed: false,
    nodes: Array.from({ length: 12 }, (_, i) => ({
      id: id(i),
      x: 6 + 2 * i,
      y: 2,
      z: 6 + 3 * Math.sin(i),
      kind: 'smooth',
      radius: 0.5,
    })),
  },
  height: { by: 'drawn' },
  pace: { by: 'duration', speed: 1, duration: 60, shape: 'constant' },
  gaze: { kind: 'ahead', distance: 3 },
  lens: DEFAULT_LENS,
};

/** @param site what moves are compiled in */
export function benchReels(site) {
  const move = compileMove(GLIDE, site);
  const source = { duration: move.duration, loops: false };
  const shot = (i, from, to, join) => ({
    id: id(100 + i),
    body: { reel: id(99), use: { kind: 'move', move: id(98), from, to }, ...(join && { join }) },
    camera: { kind: 'move', move },
  });
  const many = Array.from({ length: SHOTS }, (_, i) =>
    shot(i, (i * 7) % 50, ((i * 7) % 50) + 3, i % 3 ? undefined : { kind: 'dissolve', seconds: 0.5 }),
  );
  const planned = timed(() => planReel(many, RATE, () => source), { runs: 40, warm: 20 });
  // A minute of blends: eight shots of eight and a half seconds, each a second over the one before.
  const few = Array.from({ length: 8 }, (_, i) =>
    shot(i, i * 6, i * 6 + 8.4, i ? { kind: 'blend', seconds: 1 } : undefined),
  );
  const making = { whole: ASPECT, ratio: ASPECT, alike: () => true };
  const reel = new CompiledReel(
    planReel(few, RATE, () => source),
    few,
    making,
  );
  const frames = Array.from({ length: FRAMES }, (_, i) => i);
  const asked = timed(() => frames.forEach((frame) => reel.frameAt(frame)), { runs: 10, warm: 5 });
  const direct = timed(() => frames.forEach((frame) => move.sampleAt(frame / 25)), { runs: 10, warm: 5 });
  const cast = (from, direction, far) =>
    site.footing.hiding(
      from,
      from.map((value, k) => value + direction[k] * far),
    )?.distance ?? null;
  const measure = { rate: RATE, aspect: ASPECT, cast };
  const own = few.map((one, i) => ({ ...one, planned: reel.plan.shots[i] }));
  const flows = timed(() => own.forEach((one) => [endFlow(one, 0, measure), startFlow(one, 0, measure)]), {
    runs: 5,
    warm: 2,
  });
  const row = (what, ms, limit) => ({
    what,
    ours: `${ms < 10 ? ms.toFixed(2) : ms.toFixed(0)} ms`,
    baseline: `${limit} ms (limit)`,
    ratio: '',
    wanted: `within ${limit} ms`,
    holds: ms <= limit,
  });
  return [
    row(`a reel of ${SHOTS} shots: all start times after an edit`, planned, 5),
    {
      what: `a reel of a minute with seven blends: ${FRAMES} frames`,
      ours: `${asked.toFixed(1)} ms`,
      baseline: `the move asked directly: ${direct.toFixed(1)} ms`,
      ratio: `${(asked / direct).toFixed(2)} ×`,
      wanted: 'at most 3 ×',
      holds: asked <= 3 * direct,
    },
    row('image flow at both ends of eight shots', flows, 100),
  ];
}
