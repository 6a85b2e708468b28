import { describe, expect, test } from '@jest/globals';
import { Quaternion } from 'three';
import { checkMove } from '../check/index.ts';
import { DEFAULT_LENS, FIRST_LIMITS, type Gaze, type Vec3, type Walk } from '../document/index.ts';
import { forwardOf, toDegrees } from '../geometry/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { Footing } from '../survey/index.ts';
import { compileMove, type CompiledMove, type MoveSite } from './index.ts';

const nowhere = new Footing(new Float32Array(0), new Float32Array(0));
const site: MoveSite = {
  footing: nowhere,
  walker: { height: 1.9, step: 0.25 },
  parts: [],
  motion: null,
  aspect: 16 / 9,
  limits: FIRST_LIMITS,
};
const at = (point: Vec3): Gaze => ({
  kind: 'object',
  model: '00000000-0000-4000-8000-000000000001',
  name: 'Lamp',
  point,
  centre: point,
});
const walk = (points: readonly (readonly [number, number])[], gaze: Gaze, closed = false, corner = false): Walk => ({
  kind: 'walk',
  path: {
    closed,
    nodes: points.map(([x, z], i) => ({
      id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
      x,
      y: 0,
      z,
      kind: corner ? 'corner' : 'smooth',
      radius: 0.2,
    })),
  },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.3, duration: 10, shape: 'constant' },
  gaze,
  lens: DEFAULT_LENS,
});

/** Fastest turn and its fastest change, degrees, from the samples alone. */
function turning(move: CompiledMove): { rate: number; acceleration: number } {
  const step = 0.02;
  const of = (time: number) => new Quaternion(...move.sampleAt(time).orientation);
  /** Turn over a step as a vector, degrees a second. */
  const speedAt = (time: number) => {
    const between = of(time)
      .invert()
      .multiply(of(time + step));
    const sign = between.w < 0 ? -2 : 2;
    return [between.x, between.y, between.z].map((value) => toDegrees(sign * value) / step);
  };
  let [rate, acceleration] = [0, 0];
  let before: number[] | null = null;
  for (let time = 0; time + step < move.duration; time += step) {
    const now = speedAt(time);
    rate = Math.max(rate, Math.hypot(...now));
    if (before) acceleration = Math.max(acceleration, Math.hypot(...now.map((value, k) => value - before![k]!)) / step);
    before = now;
  }
  return { rate, acceleration };
}

describe('an eye that turns as people can follow', () => {
  test('200 random walks: never faster than the limits, and what is missed by that is said', () => {
    const random = randomFrom(11);
    let said = 0;
    for (let n = 0; n < 200; n += 1) {
      const points = Array.from(
        { length: 3 + Math.floor(random() * 5) },
        () => [random() * 12, random() * 12] as const,
      );
      // Also at something that the path passes closely.
      const near = points[1]!;
      const gaze: Gaze =
        n % 2 ? { kind: 'ahead', distance: 1 + random() * 2 } : at([near[0] + 0.4, 1.2 + random(), near[1] - 0.3]);
      const move = compileMove(walk(points, gaze, n % 3 === 0, n % 5 === 0), site)!;
      const { rate, acceleration } = turning(move);
      expect(rate).toBeLessThan(FIRST_LIMITS.turnProblem * 1.02);
      // Between two instants a gaze is read from a curve through both, and a tilted eye turns about a tilted axis.
      expect(acceleration).toBeLessThan(FIRST_LIMITS.turnAcceleration * 1.25);
      const off = checkMove(move, nowhere, FIRST_LIMITS).filter(({ rule }) => rule === 'gaze off');
      expect(off.length).toBe(move.gazeOff.length);
      for (const { worst } of off) expect(worst!).toBeGreaterThan(3);
      if (off.length > 0) said += 1;
    }
    expect(said).toBeGreaterThan(40);
    expect(said).toBeLessThan(200);
  });

  test('a calm walk looks just where it is to look', () => {
    const point: Vec3 = [5, 1.4, 9];
    const move = compileMove(
      walk(
        [
          [0, 0],
          [10, 0],
        ],
        at(point),
      ),
      site,
    )!;
    expect(move.gazeOff).toEqual([]);
    for (let time = 0; time <= move.duration; time += 0.1) {
      const { position, orientation } = move.sampleAt(time);
      const forward = forwardOf(orientation);
      const way = point.map((value, k) => value - position[k]!);
      const along = way.reduce((sum, value, k) => sum + value * forward[k]!, 0);
      expect(along / Math.hypot(...way)).toBeGreaterThan(Math.cos(0.004));
    }
  });

  test('who slows down at corners turns no faster than that, also where the eye turns before the corner is there', () => {
    const random = randomFrom(11);
    let hasty = 0;
    for (let n = 0; n < 40; n += 1) {
      const points = Array.from({ length: 3 + (n % 4) }, (_, i): [number, number] => [
        4 * i + 2 * random(),
        5 * random() * (n % 3 === 0 ? 2 : 1),
      ]);
      const made = walk(points, { kind: 'ahead', distance: 1 + 3 * random() }, false, n % 2 === 0);
      const slowed = compileMove({ ...made, pace: { ...made.pace, turning: FIRST_LIMITS.turnNote } }, site)!;
      expect(turning(slowed).rate).toBeLessThan(1.02 * FIRST_LIMITS.turnNote);
      const findings = (move: CompiledMove) =>
        checkMove(move, nowhere, FIRST_LIMITS).filter(({ rule }) => rule === 'turn');
      if (findings(compileMove(made, site)!).length > 0) hasty += 1;
    }
    expect(hasty).toBeGreaterThan(15);
  });
});
