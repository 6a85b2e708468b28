// Walks in a house: asked for frames, checked, and found.
import { checkMove, coverageOf } from '@eskovan/core/check';
import { FIRST_LIMITS, FIRST_WALKER } from '@eskovan/core/document';
import { compileMove, SAMPLE_STRIDE } from '@eskovan/core/move';
import { findWay } from '@eskovan/core/wayfind';
import { timed } from './lib/measure.mjs';

const FRAMES = 1500;

/** The same walk with two pauses, slower corners, a pin and two gazes. */
function shaped(body) {
  const { nodes } = body.path;
  const at = (n, offset = 0) => ({ by: 'node', node: nodes[n].id, offset });
  const id = () => crypto.randomUUID();
  return {
    ...body,
    pace: {
      ...body.pace,
      turning: 40,
      pauses: [4, 11].map((n) => ({ id: id(), anchor: at(n), seconds: 3 })),
      pins: [{ id: id(), anchor: at(8), time: 45 }],
    },
    gazeSpans: [2, 10].map((n) => ({
      id: id(),
      from: at(n),
      to: at(n + 2),
      gaze: { kind: 'point', point: [12.5, 1.5, 6] },
      handOver: 1.5,
    })),
  };
}

/** @param site what walks are compiled in @param body a walk of about 60 m */
export function benchWalks(site, survey, walkway, body) {
  const { footing } = site;
  const move = compileMove(body, site);
  const times = Float64Array.from({ length: FRAMES }, (_, i) => (move.duration * i) / (FRAMES - 1));
  const out = new Float64Array(FRAMES * SAMPLE_STRIDE);
  const filled = timed(() => move.fill(times, out), { runs: 50, warm: 50 });
  const check = () => checkMove(compileMove(body, site), footing, FIRST_LIMITS, FIRST_WALKER);
  const checked = timed(check, { runs: 10, warm: 3 });
  const withAll = shaped(body);
  const looking = timed(() => checkMove(compileMove(withAll, site), footing, FIRST_LIMITS, FIRST_WALKER), {
    runs: 10,
    warm: 3,
  });
  const covered = timed(() => coverageOf(move, footing, survey.storeys, site.aspect), { runs: 3, warm: 1 });
  const compiled = timed(() => compileMove(withAll, site), { runs: 20, warm: 5 });
  const rooms = survey.storeys.flatMap(({ rooms }) => rooms.map(({ at }) => at));
  const walker = { ...FIRST_WALKER, eyeHeight: 1.6 };
  const found = timed(() => findWay(walkway, rooms.slice(0, 4), footing, walker, () => crypto.randomUUID()), {
    runs: 5,
    warm: 2,
  });
  const row = (what, ms, limit) => ({
    what,
    ours: `${ms < 10 ? ms.toFixed(1) : ms.toFixed(0)} ms`,
    baseline: limit ? `${limit} ms (limit)` : '',
    ratio: '',
    wanted: limit ? `within ${limit} ms` : '',
    holds: limit ? ms <= limit : null,
  });
  const metres = move.path.length.toFixed(0);
  return [
    row(`a walk of ${metres} m: ${FRAMES} frames evaluated`, filled, 10),
    row(`a walk of ${metres} m: compiled with pauses, a pin, corners and gazes`, compiled, 120),
    row(`a walk of ${metres} m: compiled and fully checked`, checked, 400),
    row(`a walk of ${metres} m: the same with pauses, a pin, corners and two gazes`, looking, 400),
    row(`a walk of ${metres} m: which rooms it shows`, covered, null),
    row('the way through four rooms found', found, null),
  ];
}
