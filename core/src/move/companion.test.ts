import { describe, expect, test } from '@jest/globals';
import type { Footing } from '../survey/index.ts';
import { Companion } from './companion.ts';
import { box, footingFrom, slab, walkThrough } from './floor-scenes.fixture.ts';
import { CompiledWalk } from './index.ts';

/** South to north, 20 m. */
const NORTH = [
  [0, 0, 0],
  [0, 0, -20],
] as const;
const FLOOR = slab(-5, 5, -25, 5, 0);

function walked(footing: Footing, nodes: readonly (readonly [number, number, number])[] = NORTH) {
  const move = new CompiledWalk(walkThrough(nodes), footing);
  return { move, companion: Companion.of(move, footing)! };
}

describe('somebody who walks along', () => {
  test('is four metres ahead, to the right, on the floor, and looks where the way leads', () => {
    const { move, companion } = walked(footingFrom(FLOOR));
    for (let time = 1; move.path.stationAt(time) < 15; time += 0.5) {
      const { at, turn, swing } = companion.at(time);
      expect(at).toEqual([expect.closeTo(0.7, 6), 0, expect.closeTo(-move.path.stationAt(time) - 4, 6)]);
      expect(turn).toBeCloseTo(0, 6);
      expect(Math.abs(swing)).toBeLessThan(0.5);
    }
  });

  test('swings its legs once in 1.5 m, and stands at the end of the way', () => {
    const { move, companion } = walked(footingFrom(FLOOR));
    const at = (station: number) => companion.at(move.path.timeAt(station)).swing;
    expect(at(8)).toBeCloseTo(at(9.5), 3);
    expect(at(8)).toBeCloseTo(-at(8.75), 3);
    const [end, still] = [companion.at(move.duration), companion.at(move.duration - 0.5)];
    expect(end.at).toEqual([expect.closeTo(0.7, 6), 0, expect.closeTo(-20, 6)]);
    expect(end).toEqual(still);
    expect(end.swing).toBe(0);
  });

  test('walks on the way where there is no room beside it, and through a door in its middle', () => {
    // A wall across the way at z = −10, 0.3 m thick, with a door of 1 m; behind it a passage 1.2 m wide.
    const walls = [
      [-5, -0.5, -10, -9.7],
      [0.5, 5, -10, -9.7],
      [-0.9, -0.6, -16, -10],
      [0.6, 0.9, -16, -10],
    ] as const;
    const solid = walls.flatMap(([x0, x1, z0, z1]) => box(x0, x1, 0, 3, z0, z1));
    const { move, companion } = walked(footingFrom([...FLOOR, ...solid]));
    let [most, nearest, aside] = [0, Infinity, 0];
    let before = companion.at(0).at;
    for (let time = 0; time < move.duration; time += 1 / 24) {
      const { at } = companion.at(time);
      most = Math.max(most, at[0]);
      for (const [x0, x1, z0, z1] of walls) {
        const [dx, dz] = [Math.max(x0 - at[0], at[0] - x1, 0), Math.max(z0 - at[2], at[2] - z1, 0)];
        nearest = Math.min(nearest, Math.hypot(dx, dz));
      }
      aside = Math.max(aside, Math.abs(at[0] - before[0]));
      before = at;
    }
    expect(nearest).toBeGreaterThan(0.25);
    // It goes over smoothly, without a step to the side.
    expect(aside).toBeLessThan(0.04);
    expect(most).toBeCloseTo(0.7, 6);
  });

  test('beside an edge it does not walk on air; on a stair it stands on the treads', () => {
    const steps = Array.from({ length: 5 }, (_, i) => box(-2, 0.4, 0, 0.16 * (i + 1), -12 - 0.3 * i, -11.7 - 0.3 * i));
    const above = box(-2, 0.4, 0, 0.8, -20, -13.2);
    const footing = footingFrom([...slab(-2, 0.4, -11.7, 2, 0), ...steps.flat(), ...above]);
    const { move, companion } = walked(footing, [
      [0, 0, 0],
      [0, 0.8, -19],
    ]);
    const heights = new Set<number>();
    for (let time = 0; time < move.duration; time += 1 / 24) {
      const { at } = companion.at(time);
      expect(at[0]).toBeLessThanOrEqual(0.4);
      expect(footing.surfaceNear(at[0], at[2], at[1])).toBeCloseTo(at[1], 3);
      heights.add(Math.round(at[1] * 100));
    }
    expect([...heights].sort((a, b) => a - b)).toEqual([0, 16, 32, 48, 64, 80]);
  });

  test('goes round a closed way without end; what does not walk has nobody', () => {
    const nodes = [
      [0, 0, 0],
      [6, 0, 0],
      [6, 0, -6],
      [0, 0, -6],
    ] as const;
    const walk = walkThrough(nodes);
    const footing = footingFrom(slab(-9, 9, -9, 9, 0));
    const move = new CompiledWalk({ ...walk, path: { ...walk.path, closed: true } }, footing);
    const companion = Companion.of(move, footing)!;
    const [first, again] = [companion.at(0).at, companion.at(move.duration).at];
    for (const k of [0, 1, 2] as const) expect(again[k]).toBeCloseTo(first[k], 6);
    // The way begins within a rounded corner.
    expect(Math.abs(first[0] - 4.2)).toBeLessThan(0.2);
    const later = companion.at(move.duration - 2).at;
    expect(Math.hypot(later[0] - first[0], later[2] - first[2])).toBeCloseTo(2, 1);
    expect(Companion.of({ path: move.path, ground: null }, footing)).toBeNull();
  });
});
