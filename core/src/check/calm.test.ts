import { describe, expect, test } from '@jest/globals';
import { FIRST_LIMITS, FIRST_WALKER, type MoveBody, type Walk } from '../document/index.ts';
import { footingFrom, slab, walkThrough } from '../move/floor-scenes.fixture.ts';
import { compileMove, type CompiledMove } from '../move/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { calmed } from './index.ts';
import { fastTurns } from './turning.ts';

const footing = footingFrom(slab(-30, 30, -30, 30, 0));
let serial = 0;
const newId = () => `00000000-0000-4000-8000-${String((serial += 1) + 700).padStart(12, '0')}`;
const aspect = 16 / 9;
const compile = (body: MoveBody): CompiledMove | null =>
  compileMove(body, { footing, walker: FIRST_WALKER, parts: [], motion: null, aspect, limits: FIRST_LIMITS });
const site = { compile, limits: FIRST_LIMITS, newId };
const turns = (walk: Walk) => fastTurns(compile(walk)!, FIRST_LIMITS);

/** Through a room with a look at something there, and back by the door that one came in. */
function therAndBack(angle: number, seconds: number, pan: number | null): Walk {
  const walk = walkThrough([
    [-8, 0, 0],
    [0, 0, 0],
    [8 * Math.cos(angle), 0, 8 * Math.sin(angle)],
  ]);
  const at = (offset: number) => ({ by: 'node' as const, node: walk.path.nodes[1]!.id, offset });
  return {
    ...walk,
    pace: {
      ...{ by: 'speed', speed: 1, duration: 1, shape: 'soft', turning: FIRST_LIMITS.turnNote },
      pauses: [{ id: newId(), anchor: at(0), seconds }],
    },
    ...(pan !== null && {
      gazeSpans: [{ id: newId(), from: at(-1.5), to: at(0.8), gaze: { kind: 'bearing', pan, tilt: 0 }, handOver: 1.5 }],
    }),
  };
}

describe('a move that is given the time to turn', () => {
  test('where it turns back or looks aside, however sharply: nothing turns too fast, and nothing is quicker than before', () => {
    const random = randomFrom(8);
    let hasty = 0;
    for (let n = 0; n < 14; n += 1) {
      const angle = Math.PI * (0.4 + 0.58 * random()) * (random() < 0.5 ? 1 : -1);
      const walk = therAndBack(angle, 2 + 2 * random(), n % 2 ? null : (2 * random() - 1) * Math.PI);
      hasty += turns(walk).length;
      const calm = calmed(walk, site);
      expect(turns(calm)).toEqual([]);
      // A turn of 180° at 30 °/s takes 6 s; the way itself is as long as it was.
      expect(compile(calm)!.duration).toBeLessThan(compile(walk)!.duration + 9);
      expect(compile(calm)!.duration).toBeGreaterThan(compile(walk)!.duration - 1e-6);
      expect(calm.path).toEqual(walk.path);
    }
    expect(hasty).toBeGreaterThan(9);
  });

  test('what is calm stays as it is', () => {
    const calm = therAndBack(0.1, 3, null);
    expect(calmed(calm, site)).toBe(calm);
  });
});
