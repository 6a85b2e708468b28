import { describe, expect, test } from '@jest/globals';
import { surfaceFor, wayFindings } from '../check/index.ts';
import { FIRST_WALKER } from '../document/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { box, footingFrom, SCENES, walkThrough, type FloorScene } from './floor-scenes.fixture.ts';
import { CompiledWalk, MOST_RISE, PACE_LENGTH, tableAt } from './index.ts';

/** Spacing at which the line is worked out here, metres. */
const FINE = 0.005;

/**
 * The line of the head by its definition and from the formula of the floor alone: ramps of 0.3 m, or from nosing to
 * nosing, up to every riser; nowhere steeper than the limit; then a triangular mean over one pace.
 */
function expectedLine(scene: Pick<FloorScene, 'height'>, walk: CompiledWalk): (station: number) => number {
  const { length } = walk.curve;
  const count = Math.ceil(length / FINE);
  const step = length / count;
  const point = new Float64Array(2);
  const known = Array.from({ length: count + 1 }, (_, i) => {
    walk.curve.pointAt(i * step, point);
    return scene.height(point[0]!, point[1]!, i * step);
  });
  // Over a hole the eye holds its line: straight from edge to edge.
  const floor = known.map((y, i) => {
    if (y !== null) return y;
    const before = known.slice(0, i).findLastIndex((value) => value !== null);
    const after = known.findIndex((value, k) => k > i && value !== null);
    const [a, b] = [known[before]!, known[after]!];
    return a + ((b - a) * (i - before)) / (after - before);
  });
  const risers: { at: number; up: boolean; high: number; low: number }[] = [];
  for (let i = 1; i <= count; i += 1) {
    const rise = floor[i]! - floor[i - 1]!;
    if (Math.abs(rise) > 0.055)
      risers.push({
        at: (i - 0.5) * step,
        up: rise > 0,
        high: Math.max(floor[i]!, floor[i - 1]!),
        low: Math.min(floor[i]!, floor[i - 1]!),
      });
  }
  const raised = floor.map((y, i) => {
    let best = y;
    for (const [k, riser] of risers.entries()) {
      const next = risers[riser.up ? k - 1 : k + 1];
      const near = next && next.up === riser.up && Math.abs(next.at - riser.at) <= 0.4 ? next : null;
      const run = near ? Math.abs(near.at - riser.at) : 0.3;
      const back = riser.up ? riser.at - i * step : i * step - riser.at;
      if (back < 0 || back > run) continue;
      const foot = near ? near.high : riser.low;
      best = Math.max(best, riser.high - ((riser.high - foot) * back) / run);
    }
    return best;
  });
  // The lowest line over it that is nowhere steeper: what every point lifts behind it, then before it.
  const limited = [...raised];
  for (let i = 1; i <= count; i += 1) limited[i] = Math.max(limited[i]!, limited[i - 1]! - MOST_RISE * step);
  for (let i = count - 1; i >= 0; i -= 1) limited[i] = Math.max(limited[i]!, limited[i + 1]! - MOST_RISE * step);
  const half = Math.round(PACE_LENGTH / 2 / step);
  const at = (i: number): number =>
    i < 0 ? 2 * limited[0]! - limited[-i]! : i > count ? 2 * limited[count]! - limited[2 * count - i]! : limited[i]!;
  return (station) => {
    const i = Math.round(station / step);
    let [sum, weights] = [0, 0];
    for (let k = -half; k <= half; k += 1) {
      sum += (half - Math.abs(k)) * at(i + k);
      weights += half - Math.abs(k);
    }
    return sum / weights;
  };
}

/** Everything that must hold of a walk over floors that are known. */
function checkWalk(scene: Omit<FloorScene, 'name'>, label: string): void {
  const walk = new CompiledWalk(walkThrough(scene.nodes, scene.smooth), scene.footing);
  const back = new CompiledWalk(walkThrough([...scene.nodes].reverse(), scene.smooth), scene.footing);
  const expected = expectedLine(scene, walk);
  const { length } = walk.curve;
  let worst = 0;
  let mirrored = 0;
  for (let s = 0; s <= length; s += 0.037) {
    worst = Math.max(worst, Math.abs(tableAt(walk.profile.walkLine, s) - expected(s)));
    mirrored = Math.max(
      mirrored,
      Math.abs(tableAt(walk.profile.walkLine, s) - tableAt(back.profile.walkLine, length - s)),
    );
  }
  const { values } = walk.profile.walkLine;
  const spacing = length / (values.length - 1);
  let [speed, change] = [0, 0];
  for (let i = 1; i < values.length - 1; i += 1) {
    speed = Math.max(speed, Math.abs(values[i]! - values[i - 1]!) / spacing);
    change = Math.max(change, Math.abs(values[i + 1]! - 2 * values[i]! + values[i - 1]!) / spacing ** 2);
  }
  const said = wayFindings(walk);
  const wanted = scene.findings.map(({ rule, size }) => ({
    rule,
    size: size === undefined ? null : (expect.closeTo(size, 2) as unknown as number),
  }));
  expect({ label, said: said.map(({ rule, size }) => ({ rule, size })) }).toEqual({ label, said: wanted });
  expect({ label, worst: worst < 0.01 ? 'within 1 cm' : worst }).toEqual({ label, worst: 'within 1 cm' });
  expect({ label, mirrored: mirrored < 1e-3 ? 'same' : mirrored }).toEqual({ label, mirrored: 'same' });
  // Per metre walked: the limit itself, and what a triangular mean of so steep a line can change.
  expect(speed).toBeLessThanOrEqual(MOST_RISE * 1.001);
  expect(change).toBeLessThanOrEqual(((2 * MOST_RISE) / (PACE_LENGTH / 2)) * 1.2);
}

describe('the floor of a whole path', () => {
  test.each(Object.entries(SCENES))('over %s, ten times: the line, the findings, both ways', (name, make) => {
    for (let run = 0; run < 10; run += 1) checkWalk(make(randomFrom(1000 * name.length + run)), `${name} ${run}`);
  });

  test('over hills, a hundred times', () => {
    const random = randomFrom(77);
    const size = 41;
    const waves = Array.from({ length: 6 }, () => [random() * 0.35, random() * 0.35, random() * 6, 0.2 + random()]);
    const grid = (c: number, r: number) =>
      waves.reduce((sum, [a, b, phase, high]) => sum + high! * Math.sin(a! * c + b! * r + phase!), 0);
    const triangles: number[] = [];
    const corner = (c: number, r: number) => [c - 20, grid(c, r), r - 20];
    for (let r = 0; r < size - 1; r += 1)
      for (let c = 0; c < size - 1; c += 1)
        triangles.push(
          ...[...corner(c, r), ...corner(c, r + 1), ...corner(c + 1, r)],
          ...[...corner(c + 1, r), ...corner(c, r + 1), ...corner(c + 1, r + 1)],
        );
    // Two plane triangles a cell, by their own heights.
    const height = (x: number, z: number) => {
      const [c, r] = [Math.floor(x + 20), Math.floor(z + 20)];
      const [u, v] = [x + 20 - c, z + 20 - r];
      const [a, b, d, e] = [grid(c, r), grid(c + 1, r), grid(c, r + 1), grid(c + 1, r + 1)];
      return u + v <= 1 ? a + u * (b - a) + v * (d - a) : e + (1 - u) * (d - e) + (1 - v) * (b - e);
    };
    const footing = footingFrom(triangles);
    for (let run = 0; run < 100; run += 1) {
      const nodes = Array.from({ length: 2 + Math.floor(random() * 3) }, (): [number, number, number] => {
        const [x, z] = [random() * 30 - 15, random() * 30 - 15];
        return [x, height(x, z), z];
      });
      checkWalk({ footing, nodes, smooth: true, height, findings: [] }, `hill ${run}`);
    }
  });

  test('a press beyond a stair means the floor that the stair leads to, not the one below it', () => {
    const [riser, going, count] = [0.17, 0.28, 16];
    const top = (count - 1) * going;
    const footing = footingFrom([
      ...box(-8, top + 8, -0.3, 0, -4, 4),
      ...Array.from({ length: count - 1 }, (_, n) =>
        box(n * going, (n + 1) * going, (n + 1) * riser - 0.05, (n + 1) * riser, -1, 1),
      ).flat(),
      ...box(top, top + 8, count * riser - 0.25, count * riser, -1, 1),
    ]);
    const press = (x: number, z: number, last?: { x: number; y: number; z: number }) =>
      surfaceFor({ x, z }, last, footing, FIRST_WALKER, 1.6, 1.2);
    const foot = { x: -3, y: 0, z: 0 };
    expect(press(-3, 0)).toBeCloseTo(0, 6);
    expect(press(top + 4, 0, foot)).toBeCloseTo(count * riser, 4);
    // Beside the stair the same storey goes on below.
    expect(press(top + 4, 2.5, { x: -3, y: 0, z: 2.5 })).toBeCloseTo(0, 6);
    // Along it on the upper floor.
    expect(press(top + 6, 0, { x: top + 4, y: count * riser, z: 0 })).toBeCloseTo(count * riser, 4);
  });

  test('a walker with a longer step takes the higher step', () => {
    const scene = SCENES['a step at the entrance']!(() => 0.7);
    const walk = (step: number) =>
      new CompiledWalk(walkThrough(scene.nodes), scene.footing, { walker: { ...FIRST_WALKER, step } });
    expect(wayFindings(walk(0.25)).map(({ rule }) => rule)).toEqual(['step']);
    expect(wayFindings(walk(0.3))).toEqual([]);
  });

  test('a walk that never lands anywhere says so for its whole length', () => {
    const walk = new CompiledWalk(
      walkThrough([
        [0, 2, 0],
        [4, 2, 0],
      ]),
      footingFrom([]),
    );
    expect(wayFindings(walk)).toEqual([
      expect.objectContaining({ rule: 'no floor', from: 0, to: expect.closeTo(4, 6) as unknown as number }),
    ]);
    expect(walk.sampleAt(1).position[1]).toBeCloseTo(3.6, 6);
  });
});
