import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PerspectiveCamera, Vector3 } from 'three';
import type { Vec3 } from '../document/index.ts';
import { SpaceWay } from '../path/index.ts';
import { Footing } from '../survey/index.ts';
import { glideOf, siteOf } from './kinds.fixture.ts';
import { checkMove } from '../check/index.ts';
import { FIRST_LIMITS } from '../document/index.ts';
import { compileMove, SAMPLE_STRIDE } from './index.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** Nodes that follow each other at some distance: two at one place of the plan are one. */
const places = fc
  .array(fc.tuple(number(-40, 40), number(0, 30), number(-40, 40)), { minLength: 3, maxLength: 7 })
  .filter((list) =>
    list.every(([x, , z], i) => list.every(([px, , pz], j) => i === j || Math.hypot(x - px, z - pz) > 3)),
  );
const EVEN = { by: 'duration' as const, speed: 1, duration: 10, shape: 'constant' as const };

/** Hills as triangles: a grid of heights, and blocks that stand on it. */
function hills(seed: number, blocks: readonly [x: number, z: number, half: number, top: number][]): Footing {
  const height = (x: number, z: number) => 4 * Math.sin((x + seed) / 9) * Math.cos((z - seed) / 7) + (x + z) / 20;
  const ground: number[] = [];
  const side = 60;
  for (let x = -side; x < side; x += 2)
    for (let z = -side; z < side; z += 2) {
      const at = (px: number, pz: number) => [px, height(px, pz), pz];
      ground.push(...at(x, z), ...at(x, z + 2), ...at(x + 2, z + 2), ...at(x, z), ...at(x + 2, z + 2), ...at(x + 2, z));
    }
  const others = blocks.flatMap(([x, z, half, top]) => {
    const [a, b, c, d] = [x - half, x + half, z - half, z + half];
    return [a, top, c, a, top, d, b, top, d, a, top, c, b, top, d, b, top, c];
  });
  return new Footing(Float32Array.from(ground), Float32Array.from(others));
}

describe('a way in space', () => {
  // Source: the arc of a helix, s = √(r² + c²)·θ; its plan here is a polygon's smooth curve, measured by a fine sum.
  test('is as long as a fine sum over it says, and is walked evenly', () => {
    fc.assert(
      fc.property(places, fc.boolean(), (list, closed) => {
        const { path } = glideOf(list, {}, closed);
        const way = new SpaceWay(path);
        const place = new Float64Array(3);
        const at = (plan: number): Vec3 => {
          way.curve.pointAt(plan, place);
          return [place[0]!, way.heightAt(plan), place[1]!];
        };
        let [sum, before] = [0, at(0)];
        const steps = 20_000;
        for (let i = 1; i <= steps; i += 1) {
          const now = at((way.curve.length * i) / steps);
          sum += Math.hypot(...now.map((value, k) => value - before[k]!));
          before = now;
        }
        expect(Math.abs(way.length / sum - 1)).toBeLessThan(2e-4);
        for (let i = 0; i <= 50; i += 1) {
          const station = (way.length * i) / 50;
          expect(way.stationAt(way.planAt(station))).toBeCloseTo(station, 2);
        }
      }),
      { numRuns: 20 },
    );
  });

  test('is no higher and no lower than the nodes beside it, and passes them', () => {
    fc.assert(
      fc.property(places, (list) => {
        const move = compileMove(glideOf(list), siteOf());
        if (!move) return;
        const heights = list.map(([, y]) => y);
        const [low, high] = [Math.min(...heights), Math.max(...heights)];
        const reached = Array.from({ length: 201 }, (_, i) => move.sampleAt(i / 20).position[1]);
        expect(Math.min(...reached)).toBeGreaterThanOrEqual(low - 1e-9);
        expect(Math.max(...reached)).toBeLessThanOrEqual(high + 1e-9);
        const there = Array.from({ length: 2001 }, (_, i) => move.path!.placeAt((move.path!.length * i) / 2000));
        list.forEach(([x, y, z]) => {
          const station = move.path!.nearest(x, z);
          const [px, , pz] = move.path!.placeAt(station);
          expect(Math.hypot(px - x, pz - z)).toBeLessThan(2e-3);
          // Another stretch may pass above the same place.
          expect(Math.min(...there.map((one) => Math.hypot(one[0] - x, one[1] - y, one[2] - z)))).toBeLessThan(0.25);
        });
      }),
      { numRuns: 40 },
    );
  });
});

describe('a glide', () => {
  test('at constant pace goes at one speed, up and down too', () => {
    fc.assert(
      fc.property(places, (list) => {
        const move = compileMove(glideOf(list, { pace: EVEN }), siteOf());
        if (!move) return;
        const speed = move.path!.length / 10;
        const at = (time: number) => move.sampleAt(time).position;
        for (let time = 0.1; time < 9.9; time += 0.1) {
          const gone = Math.hypot(...at(time + 0.02).map((value, k) => value - at(time - 0.02)[k]!));
          // Over a sharp bend the straight line is shorter than the way.
          expect(gone / 0.04 / speed).toBeLessThan(1.01);
        }
        const middle = Math.hypot(...at(5.001).map((value, k) => value - at(4.999)[k]!)) / 0.002;
        expect(middle / speed).toBeGreaterThan(0.99);
      }),
      { numRuns: 40 },
    );
  });

  test('that is closed goes on at its end as at its beginning: place, direction and turning', () => {
    const ring = [0, 1, 2, 3, 4, 5].map((i): Vec3 => [9 * Math.sin(i), 3 + Math.sin(2 * i), 7 * Math.cos(i)]);
    const move = compileMove(glideOf(ring, {}, true), siteOf())!;
    expect(move.loops).toBe(true);
    const step = 1 / 240;
    const out = new Float64Array(4 * SAMPLE_STRIDE);
    move.fill([10 - 2 * step, 10 - step, 0, step], out);
    // After a whole turn the same orientation is written with the other sign.
    const at = (i: number, k: number) => (k > 2 && i > 1 ? -1 : 1) * out[i * SAMPLE_STRIDE + k]!;
    for (let k = 0; k < 7; k += 1) {
      const [before, across, after] = [at(1, k) - at(0, k), at(2, k) - at(1, k), at(3, k) - at(2, k)];
      expect(Math.abs(across - before)).toBeLessThan(2e-3);
      expect(Math.abs(after - across)).toBeLessThan(2e-3);
    }
  });

  test('keeps its clearance over everything, by dense sampling (50 random ways over hills and blocks)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(number(-45, 45), number(-45, 45)), { minLength: 2, maxLength: 6 }),
        fc.array(fc.tuple(number(-40, 40), number(-40, 40), number(0.6, 6), number(4, 25)), { maxLength: 6 }),
        number(0, 50),
        number(1, 20),
        number(0.3, 5),
        (list, blocks, seed, above, clearance) => {
          const footing = hills(seed, blocks);
          const move = compileMove(
            glideOf(
              list.map(([x, z]): Vec3 => [x, 0, z]),
              { height: { by: 'ground', above, clearance } },
            ),
            siteOf({ footing }),
          );
          if (!move) return;
          let least = Infinity;
          let lowest = Infinity;
          for (let time = 0; time <= 10; time += 0.01) {
            const [x, y, z] = move.sampleAt(time).position;
            const top = footing.topAt(x, z);
            const ground = footing.floors.floorBelow(x, z, Infinity);
            if (top > -Infinity) least = Math.min(least, y - top);
            if (ground > -Infinity) lowest = Math.min(lowest, y - ground);
          }
          // Between two places that were looked at, 0.25 m apart, these hills rise by some centimetres.
          expect(least).toBeGreaterThan(clearance - 0.15);
          expect(lowest).toBeGreaterThan(above - 0.15);
        },
      ),
      { numRuns: 50 },
    );
  });

  test('whose heights are drawn too low is said to go through the ground', () => {
    const footing = hills(3, []);
    const through = compileMove(
      glideOf([
        [-40, 12, 0],
        [0, -9, 5],
        [40, 12, 0],
      ]),
      siteOf({ footing }),
    )!;
    const over = compileMove(
      glideOf([
        [-40, 12, 0],
        [0, 11, 5],
        [40, 12, 0],
      ]),
      siteOf({ footing }),
    )!;
    const rules = (move: typeof over) => checkMove(move, footing, FIRST_LIMITS).map(({ rule }) => rule);
    expect(rules(through)).toContain('through');
    expect(rules(over)).not.toContain('through');
  });

  test('looks along its way, down a dive too (camera of three.js)', () => {
    const move = compileMove(
      glideOf([
        [0, 30, 0],
        [0, 20, -30],
        [0, 3, -60],
      ]),
      siteOf(),
    )!;
    for (const time of [2, 5, 7]) {
      const { position, orientation } = move.sampleAt(time);
      const camera = new PerspectiveCamera(50, 1, 0.1, 500);
      camera.position.fromArray(position);
      camera.quaternion.fromArray(orientation);
      camera.updateMatrixWorld();
      const station = move.path!.stationAt(time);
      const seen = new Vector3(...move.path!.placeAt(station + 2)).project(camera);
      expect(Math.hypot(seen.x, seen.y)).toBeLessThan(0.06);
    }
  });

  test('is shifted, raised and turned by tracks on top of it', () => {
    const key = (value: number) => [
      {
        id: '00000000-0000-4000-8000-0000000000aa',
        anchor: { by: 'time' as const, time: 1 },
        value,
        ease: 'smooth' as const,
      },
    ];
    const plain = compileMove(
      glideOf([
        [0, 2, 0],
        [0, 2, -10],
      ]),
      siteOf(),
    )!;
    const moved = compileMove(
      glideOf(
        [
          [0, 2, 0],
          [0, 2, -10],
        ],
        { tracks: { truck: key(0.5), pedestal: key(1.5), dolly: key(2), pan: key(90), tilt: key(-20) } },
      ),
      siteOf(),
    )!;
    const [a, b] = [plain.sampleAt(5), moved.sampleAt(5)];
    // Going north, right is east: +X; ahead is −Z.
    expect(b.position[0] - a.position[0]).toBeCloseTo(0.5, 9);
    expect(b.position[1] - a.position[1]).toBeCloseTo(1.5, 9);
    expect(b.position[2] - a.position[2]).toBeCloseTo(-2, 9);
    const ahead = new Vector3(0, 0, -1).applyQuaternion(new PerspectiveCamera().quaternion.fromArray(b.orientation));
    expect(ahead.x).toBeCloseTo(-Math.cos(Math.PI / 9), 6);
    expect(ahead.y).toBeCloseTo(-Math.sin(Math.PI / 9), 6);
    expect(moved.channels.map(({ id }) => id)).toEqual(
      expect.arrayContaining(['truck', 'pedestal', 'dolly', 'pan', 'tilt']),
    );
  });
});
