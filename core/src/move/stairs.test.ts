import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEFAULT_LENS } from '../document/index.ts';
import { Footing } from '../survey/index.ts';
import { CompiledWalk, tableAt } from './index.ts';

interface Stair {
  /** metres */
  riser: number;
  going: number;
  count: number;
}

// Range of domestic and public stairs: riser 130 to 220 mm, going 220 to 350 mm (the span of BS 5395-1, from memory).
const anyStair: fc.Arbitrary<Stair> = fc.record({
  riser: fc.integer({ min: 130, max: 220 }).map((mm) => mm / 1000),
  going: fc.integer({ min: 220, max: 350 }).map((mm) => mm / 1000),
  count: fc.integer({ min: 3, max: 20 }),
});

const quad = (x0: number, x1: number, y: number) => [x0, y, -2, x0, y, 2, x1, y, 2, x0, y, -2, x1, y, 2, x1, y, -2];

/** A flight along x: floor before x = 0, tread n from (n − 1)·going, landing after the last nosing. */
function flight({ riser, going, count }: Stair): Footing {
  const treads = Array.from({ length: count - 1 }, (_, n) => quad(n * going, (n + 1) * going, (n + 1) * riser));
  return new Footing(
    Float32Array.from(
      [quad(-6, 0, 0), ...treads, quad((count - 1) * going, (count - 1) * going + 6, count * riser)].flat(),
    ),
  );
}

function walkAlong(floor: Footing, from: readonly [number, number], to: readonly [number, number]): CompiledWalk {
  const node = ([x, y]: readonly [number, number], i: number) => ({
    id: `00000000-0000-4000-8000-00000000000${i}`,
    x,
    y,
    z: 0,
    kind: 'smooth' as const,
    radius: 0.5,
  });
  return new CompiledWalk(
    {
      kind: 'walk',
      path: { closed: false, nodes: [from, to].map(node) },
      eyeHeight: 1.6,
      pace: { by: 'speed', speed: 1, duration: 1, shape: 'constant' },
      gaze: { kind: 'ahead', distance: 2 },
      lens: DEFAULT_LENS,
    },
    floor,
  );
}

describe('any stair', () => {
  const top = ({ riser, going, count }: Stair) => [(count - 1) * going + 3, count * riser] as const;

  test('going up, the eye keeps within half a riser of the pitch line and rises all the way', () => {
    fc.assert(
      fc.property(anyStair, (stair) => {
        const walk = walkAlong(flight(stair), [-3, 0], top(stair));
        expect(walk.profile.gaps).toEqual([]);
        let before = -Infinity;
        for (let s = 0; s <= walk.curve.length; s += 0.02) {
          const eye = tableAt(walk.eyeLine, s);
          expect(eye).toBeGreaterThanOrEqual(before - 1e-6);
          before = eye;
          const x = s - 3;
          if (x < 0 || x > (stair.count - 1) * stair.going) continue;
          const pitchLine = stair.riser + (x / stair.going) * stair.riser;
          expect(Math.abs(eye - 1.6 - pitchLine)).toBeLessThan(stair.riser / 2);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('coming down mirrors going up', () => {
    fc.assert(
      fc.property(anyStair, (stair) => {
        const up = walkAlong(flight(stair), [-3, 0], top(stair));
        const down = walkAlong(flight(stair), top(stair), [-3, 0]);
        for (let s = 0; s <= up.curve.length; s += 0.1)
          expect(Math.abs(tableAt(down.eyeLine, up.curve.length - s) - tableAt(up.eyeLine, s))).toBeLessThan(0.012);
      }),
      { numRuns: 40 },
    );
  });

  test('the head never rises faster than the stair itself does', () => {
    fc.assert(
      fc.property(anyStair, (stair) => {
        const walk = walkAlong(flight(stair), [-3, 0], top(stair));
        const steepest = Math.max(stair.riser / stair.going, stair.riser / 0.3);
        for (let s = 0.05; s <= walk.curve.length; s += 0.05) {
          const rise = (tableAt(walk.eyeLine, s) - tableAt(walk.eyeLine, s - 0.05)) / 0.05;
          expect(rise).toBeLessThan(steepest * 1.15);
        }
      }),
      { numRuns: 40 },
    );
  });
});
