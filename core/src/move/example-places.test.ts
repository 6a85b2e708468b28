import { describe, expect, test } from '@jest/globals';
import { SiteMotion, type SiteAction } from '../action/index.ts';
import { forwardOf } from '../geometry/index.ts';
import { exampleCarrier, examplePoses, exampleWalk } from './example-places.ts';

/** Places a metre apart over a rectangle, as rooms have them. */
const over = (minX: number, minZ: number, maxX: number, maxZ: number): number[] => {
  const pairs: number[] = [];
  for (let x = minX + 0.5; x < maxX; x += 1) for (let z = minZ + 0.5; z < maxZ; z += 1) pairs.push(x, z);
  return pairs;
};

describe('a walk that shows what walks are', () => {
  test('is the longest straight one in the largest room', () => {
    const storeys = [
      { elevation: 0, rooms: [{ area: 12, places: over(20, 0, 24, 3) }] },
      { elevation: 3.2, rooms: [{ area: 40, places: over(0, 0, 8, 5) }] },
    ];
    const [from, to] = exampleWalk(storeys)!;
    expect([from[1], to[1]]).toEqual([3.2, 3.2]);
    // From corner to corner of the places.
    expect(Math.hypot(to[0] - from[0], to[2] - from[2])).toBeCloseTo(Math.hypot(7, 4), 9);
  });

  test('does not cut the inner corner of an L, found by looking at every step of it', () => {
    const [leg, foot] = [over(0, 0, 3, 12), over(3, 9, 12, 12)];
    const [from, to] = exampleWalk([{ elevation: 0, rooms: [{ area: 63, places: [...leg, ...foot] }] }])!;
    for (let i = 0; i <= 100; i += 1) {
      const [x, z] = [from[0] + (i / 100) * (to[0] - from[0]), from[2] + (i / 100) * (to[2] - from[2])];
      // Half a metre into the corner is still beside its places.
      expect(x < 3.5 || z > 8.5).toBe(true);
    }
    expect(Math.hypot(to[0] - from[0], to[2] - from[2])).toBeGreaterThan(9);
  });

  test('there is none where no room is long enough', () => {
    expect(exampleWalk([])).toBeNull();
    expect(exampleWalk([{ elevation: 0, rooms: [{ area: 4, places: over(0, 0, 2, 2) }] }])).toBeNull();
  });
});

describe('poses that show what flights are', () => {
  test('are outside of it, above it, and look at its middle: a product, a tower, a landscape far from the origin', () => {
    for (const bounds of [
      { min: [-0.01, 0, -0.015], max: [0.01, 0.01, 0.015] },
      { min: [0, 0, 0], max: [20, 120, 18] },
      { min: [5000, 12, -9000], max: [6000, 60, -8200] },
    ] as const) {
      const centre = bounds.min.map((value, k) => (value + bounds.max[k]!) / 2);
      const poses = examplePoses({ min: [...bounds.min], max: [...bounds.max] });
      expect(poses).toHaveLength(3);
      for (const { position, orientation } of poses) {
        expect(position.some((value, k) => value < bounds.min[k]! || value > bounds.max[k]!)).toBe(true);
        const towards = centre.map((value, k) => value - position[k]!);
        const length = Math.hypot(...towards);
        forwardOf(orientation).forEach((value, k) => expect(value).toBeCloseTo(towards[k]! / length, 6));
      }
    }
  });
});

describe('something that goes, for showing what rides are', () => {
  const box = (name: string, x: number) => ({
    model: 'm',
    name,
    bounds: { min: [x, 0, 0] as [number, number, number], max: [x + 2, 1, 1] as [number, number, number] },
  });
  const parts = [box('Wheel', 0), box('Cart / Body', 10), box('Cart / Bell', 11)];
  const spin = { kind: 'spin', model: 'm', part: 'Wheel', start: 0, axis: [0, 1, 0], rate: 2 } as SiteAction;
  const along = {
    kind: 'along',
    model: 'm',
    part: 'Cart',
    start: 0,
    seconds: 8,
    shape: 'constant',
    repeat: 'once',
    faces: false,
    path: {
      closed: false,
      nodes: [10, 26].map((x, i) => ({ id: `${i}`, x, y: 0, z: 0, kind: 'corner', radius: 0 })),
    },
  } as unknown as SiteAction;
  const motionOf = (...actions: SiteAction[]) => new SiteMotion({ parts, joints: [], movements: [] }, actions);

  test('is what goes farthest, with all that goes along', () => {
    const found = exampleCarrier({ parts, motion: motionOf(spin, along) }, 8)!;
    expect(found).toMatchObject({ model: 'm', name: 'Cart / Body', bounds: { min: [10, 0, 0], max: [13, 1, 1] } });
    // Half of sixteen metres on.
    found.half.forEach((value, k) => expect(value).toBeCloseTo([19.5, 0.5, 0.5][k]!, 6));
  });

  test('is nothing where things only turn, or stand', () => {
    expect(exampleCarrier({ parts, motion: motionOf(spin) }, 8)).toBeNull();
    expect(exampleCarrier({ parts, motion: motionOf() }, 8)).toBeNull();
    expect(exampleCarrier({ parts, motion: null }, 8)).toBeNull();
  });
});
