// Moves of each kind: compiled, checked and asked for frames, beside a walk as long in time.
import { SiteMotion } from '@eskovan/core/action';
import { checkMove } from '@eskovan/core/check';
import { DEFAULT_LENS, FIRST_LIMITS, FIRST_WALKER } from '@eskovan/core/document';
import { compileMove, SAMPLE_STRIDE } from '@eskovan/core/move';
import { timed } from './lib/measure.mjs';

const FRAMES = 1500;
const SECONDS = 60;
const id = (n) => `00000000-0000-4000-8000-00000000${String(7000 + n)}`;

/** A winding way over the site, as places for whatever goes there. */
const WAY = Array.from({ length: 24 }, (_, i) => [
  4 + 14 * Math.sin(i / 2.3),
  2 + Math.sin(i / 3),
  6 + 12 * Math.cos(i / 3.1),
]);

function bodies(part) {
  const always = { lens: DEFAULT_LENS };
  const nodes = WAY.map(([x, y, z], i) => ({ id: id(i), x, y, z, kind: 'smooth', radius: 0.5 }));
  const pace = { by: 'duration', speed: 1, duration: SECONDS, shape: 'soft' };
  return {
    travel: {
      kind: 'travel',
      poses: WAY.map((position, i) => ({
        id: id(100 + i),
        time: (SECONDS * i) / (WAY.length - 1),
        hold: 0,
        position,
        orientation: [0, Math.sin(i / 4), 0, Math.cos(i / 4)],
        span: 'smooth',
      })),
      turning: 'free',
      ends: 'rest',
      gaze: { kind: 'kept' },
      ...always,
    },
    'glide over everything': {
      kind: 'glide',
      path: { nodes, closed: false },
      height: { by: 'ground', above: 6, clearance: 2 },
      pace,
      gaze: { kind: 'ahead', distance: 4 },
      ...always,
    },
    'soft ride': {
      kind: 'ride',
      carrier: { model: part.model, name: part.name, centre: [0, 0, 0] },
      seat: [0, 2, 0],
      facing: [0, 0, 0, 1],
      softness: 0.5,
      horizon: 'level',
      duration: SECONDS,
      gaze: { kind: 'kept' },
      ...always,
    },
  };
}

/** @param site what moves are compiled in; a part of it is sent along the way */
export function benchKinds(site) {
  const [part] = site.parts;
  const path = {
    closed: false,
    nodes: WAY.map(([x, y, z], i) => ({ id: id(i), x, y, z, kind: 'smooth', radius: 0.5 })),
  };
  const action = {
    kind: 'along',
    model: part.model,
    part: part.name,
    path,
    faces: true,
    start: 0,
    seconds: SECONDS,
    shape: 'soft',
    repeat: 'once',
  };
  const motion = new SiteMotion({ parts: site.parts, joints: [], movements: [] }, [action]);
  return Object.entries(bodies(part)).flatMap(([name, body]) => {
    const here = { ...site, motion };
    const move = compileMove(body, here);
    const times = Float64Array.from({ length: FRAMES }, (_, i) => (move.duration * i) / (FRAMES - 1));
    const out = new Float64Array(FRAMES * SAMPLE_STRIDE);
    const filled = timed(() => move.fill(times, out), { runs: 20, warm: 20 });
    const checked = timed(() => checkMove(compileMove(body, here), site.footing, FIRST_LIMITS, FIRST_WALKER), {
      runs: 5,
      warm: 2,
    });
    const row = (what, ms, limit) => ({
      what: `a ${name} of ${SECONDS} s: ${what}`,
      ours: `${ms < 10 ? ms.toFixed(1) : ms.toFixed(0)} ms`,
      baseline: `${limit} ms (limit)`,
      ratio: '',
      wanted: `within ${limit} ms`,
      holds: ms <= limit,
    });
    return [row(`${FRAMES} frames evaluated`, filled, 10), row('compiled and fully checked', checked, 400)];
  });
}
