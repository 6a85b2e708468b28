import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PlaneGeometry } from 'three';
import { DEFAULT_LENS, type Walk } from '../document/index.ts';
import { anglesOf, forwardOf } from '../geometry/index.ts';
import { Footing, walkableTriangles } from '../survey/index.ts';
import { CompiledWalk, tableAt, type UniformTable } from './index.ts';
import { smoothTable } from './uniform-table.ts';

const plane = (y: number, x0: number, x1: number) => {
  const flat = new PlaneGeometry(x1 - x0, 40)
    .rotateX(-Math.PI / 2)
    .translate((x0 + x1) / 2, y, 0)
    .toNonIndexed();
  return [...flat.getAttribute('position').array];
};
const floorOf = (...planes: number[][]) => new Footing(walkableTriangles(Float32Array.from(planes.flat())));

function walkOn(
  floor: Footing,
  points: readonly (readonly [number, number])[],
  change: Partial<Walk> = {},
  closed = false,
): CompiledWalk {
  return new CompiledWalk(
    {
      kind: 'walk',
      path: {
        closed,
        nodes: points.map(([x, z], i) => ({
          id: `00000000-0000-4000-8000-0000000000${String(i).padStart(2, '0')}`,
          x,
          y: 0,
          z,
          kind: 'smooth',
          radius: 0.5,
        })),
      },
      eyeHeight: 1.6,
      pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'constant' },
      gaze: { kind: 'ahead', distance: 2 },
      lens: DEFAULT_LENS,
      ...change,
    },
    floor,
  );
}

const node = (x: number, y: number) => ({
  id: '00000000-0000-4000-8000-000000000000',
  x,
  y,
  z: 0,
  kind: 'smooth' as const,
  radius: 0.5,
});
const walkBody: Walk = {
  kind: 'walk',
  path: { closed: false, nodes: [] },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'constant' },
  gaze: { kind: 'ahead', distance: 2 },
  lens: DEFAULT_LENS,
};

describe('following the floor', () => {
  test('a level floor gives a level eye', () => {
    const walk = walkOn(floorOf(plane(0, -20, 20)), [
      [-5, 0],
      [0, 3],
      [5, 0],
    ]);
    for (let t = 0; t <= walk.duration; t += 0.1) expect(walk.sampleAt(t).position[1]).toBeCloseTo(1.6, 6);
  });

  test('a kerb is mounted softly, both ways alike', () => {
    const floor = floorOf(plane(0, -20, 0), plane(0.15, 0, 20));
    const up = walkOn(floor, [
      [-4, 0],
      [4, 0],
    ]);
    const down = new CompiledWalk(
      { ...walkBody, path: { closed: false, nodes: [node(4, 0.15), node(-4, 0.15)] } },
      floor,
    );
    for (let s = 0; s <= 8; s += 0.05) {
      expect(tableAt(up.eyeLine, s)).toBeGreaterThanOrEqual(1.6 - 1e-6);
      expect(tableAt(up.eyeLine, s)).toBeLessThanOrEqual(1.75 + 1e-6);
      expect(tableAt(down.eyeLine, 8 - s)).toBeCloseTo(tableAt(up.eyeLine, s), 2);
    }
  });

  test('does not climb a table or fall off an edge, and reports where there is no floor', () => {
    const table = walkOn(floorOf(plane(0, -20, 20), plane(0.75, -1, 1)), [
      [-5, 0],
      [5, 0],
    ]);
    expect(Math.max(...table.eyeLine.values)).toBeCloseTo(1.6, 5);
    const edge = walkOn(floorOf(plane(0, -20, 0), plane(-3, 0, 20)), [
      [-3, 0],
      [1.5, 0],
    ]);
    expect(Math.min(...edge.eyeLine.values)).toBeCloseTo(1.6, 5);
    expect(edge.profile.gaps).toHaveLength(1);
    expect(edge.profile.gaps[0]!.from).toBeCloseTo(3, 1);
    const gap = walkOn(floorOf(plane(0, -20, 0), plane(0, 1, 20)), [
      [-3, 0],
      [3, 0],
    ]);
    expect(gap.profile.gaps).toEqual([
      { reason: 'no floor', from: expect.closeTo(3, 3), to: expect.closeTo(4, 3), size: expect.closeTo(1, 3) },
    ]);
  });

  test('where there is nothing at all the eye keeps the height of the storey it was drawn on', () => {
    const walk = walkOn(new Footing(new Float32Array(0)), [
      [0, 0],
      [4, 0],
    ]);
    expect(walk.sampleAt(1).position[1]).toBeCloseTo(1.6, 6);
    expect(walk.profile.gaps).toEqual([
      { reason: 'no floor', from: 0, to: expect.closeTo(4, 6), size: expect.closeTo(4, 6) },
    ]);
  });
});

describe('gaze ahead', () => {
  const floor = floorOf(plane(0, -40, 40));

  test('looks along a straight path, level', () => {
    const walk = walkOn(floor, [
      [0, 0],
      [10, 0],
    ]);
    for (const t of [0, 3, 8]) {
      const [x, y, z] = forwardOf(walk.sampleAt(t).orientation);
      expect(x).toBeCloseTo(1, 4);
      expect(y).toBeCloseTo(0, 4);
      expect(z).toBeCloseTo(0, 4);
    }
  });

  test('a kink of the line does not jerk the head', () => {
    const walk = walkOn(
      floor,
      [
        [0, 0],
        [3, 0],
        [3.3, 0.4],
        [3, 0.8],
        [6, 1],
      ],
      { pace: { by: 'speed', speed: 1.2, duration: 1, shape: 'constant' } },
    );
    let fastest = 0;
    for (let t = 1 / 25; t < walk.duration; t += 1 / 25) {
      const turn = Math.abs(
        anglesOf(walk.sampleAt(t).orientation).pan - anglesOf(walk.sampleAt(t - 1 / 25).orientation).pan,
      );
      fastest = Math.max(fastest, Math.min(turn, 2 * Math.PI - turn) * 25);
    }
    expect((fastest * 180) / Math.PI).toBeLessThan(90);
  });

  test('a closed loop ends as it began, looking the same way', () => {
    const ring = Array.from({ length: 8 }, (_, i): [number, number] => [
      3 * Math.cos((i * Math.PI) / 4),
      3 * Math.sin((i * Math.PI) / 4),
    ]);
    const walk = walkOn(floor, ring, {}, true);
    const [first, last] = [walk.sampleAt(0), walk.sampleAt(walk.duration)];
    first.position.forEach((value, k) => expect(last.position[k]).toBeCloseTo(value, 6));
    const [f, l] = [forwardOf(first.orientation), forwardOf(last.orientation)];
    expect(f[0] * l[0] + f[1] * l[1] + f[2] * l[2]).toBeGreaterThan(0.9999);
  });
});

describe('tables', () => {
  const values = fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 4, maxLength: 60 });
  const table = (v: readonly number[], closed = false): UniformTable => ({
    values: Float64Array.from(v),
    length: v.length - 1,
    closed,
  });

  test('pass through their values and never overshoot between them', () => {
    fc.assert(
      fc.property(values, fc.double({ min: 0, max: 1, noNaN: true }), (v, part) => {
        const t = table(v);
        v.forEach((value, i) => expect(tableAt(t, i)).toBeCloseTo(value, 9));
        const at = part * (v.length - 1);
        const [a, b] = [v[Math.floor(at)]!, v[Math.min(v.length - 1, Math.floor(at) + 1)]!];
        expect(tableAt(t, at)).toBeGreaterThanOrEqual(Math.min(a, b) - 1e-9);
        expect(tableAt(t, at)).toBeLessThanOrEqual(Math.max(a, b) + 1e-9);
      }),
    );
  });

  test('smoothing keeps straight lines straight and what rises rising', () => {
    fc.assert(
      fc.property(values, (v) => {
        const rising = [...v].sort((a, b) => a - b);
        const smooth = smoothTable(table(rising), 2).values;
        for (let i = 1; i < smooth.length; i += 1) expect(smooth[i]!).toBeGreaterThanOrEqual(smooth[i - 1]! - 1e-9);
        const line = v.map((_, i) => 3 * i - 1);
        smoothTable(table(line), 2).values.forEach((value, i) => expect(value).toBeCloseTo(3 * i - 1, 6));
      }),
    );
  });
});
