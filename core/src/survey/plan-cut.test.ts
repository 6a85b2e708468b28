import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, ExtrudeGeometry, Path, PlaneGeometry, Shape, TorusGeometry, Vector2 } from 'three';
import { randomFrom } from '../random.fixture.ts';
import { blockingOf, clearance, planCut, stepAside, surveyModel } from './index.ts';
import { modelOf, soupOf } from './soup.fixture.ts';

const join = (...soups: Float32Array[]) => Float32Array.from(soups.flatMap((soup) => [...soup]));
const box = (x: number, y: number, z: number, w: number, h: number, d: number) =>
  soupOf(new BoxGeometry(w, h, d).translate(x, y + h / 2, z));
const solid = (soup: Float32Array) => new Uint8Array(soup.length / 9);
const area = (loop: readonly number[]) => {
  let sum = 0;
  for (let i = 0; i < loop.length; i += 2) {
    const j = (i + 2) % loop.length;
    sum += loop[i]! * loop[j + 1]! - loop[j]! * loop[i + 1]!;
  }
  return Math.abs(sum) / 2;
};

describe('plan cut', () => {
  test('a wall is one closed outline of the right size', () => {
    const wall = box(0, 0, 0, 5, 3, 0.3);
    const { cut, openCut } = planCut(wall, solid(wall), 0);
    expect(cut).toHaveLength(1);
    expect(cut[0]).toHaveLength(1);
    expect(area(cut[0]![0]!)).toBeCloseTo(1.5, 3);
    expect(cut[0]![0]).toHaveLength(8);
    expect(openCut).toEqual([]);
  });

  test('walls all round are a ring with a hole, a ring of single faces is lines, whichever way they look', () => {
    const shape = new Shape([new Vector2(0, 0), new Vector2(8, 0), new Vector2(8, 6), new Vector2(0, 6)]);
    shape.holes.push(
      new Path(
        [0.3, 0.3, 0.3, 5.7, 7.7, 5.7, 7.7, 0.3].reduce<Vector2[]>(
          (all, value, i, list) => (i % 2 ? all : [...all, new Vector2(value, list[i + 1])]),
          [],
        ),
      ),
    );
    const walls = soupOf(new ExtrudeGeometry(shape, { depth: 3, bevelEnabled: false }).rotateX(-Math.PI / 2));
    const ring = planCut(walls, solid(walls), 0);
    expect(ring.cut.map((outlines) => outlines.map(area))).toEqual([
      [expect.closeTo(48, 2), expect.closeTo(7.4 * 5.4, 2)],
    ]);
    expect(ring.openCut).toEqual([]);
    for (const turn of [false, true]) {
      const faces = box(0, 0, 0, 8, 3, 6);
      if (turn)
        for (let o = 0; o < faces.length; o += 9)
          for (let k = 0; k < 3; k += 1) [faces[o + 3 + k], faces[o + 6 + k]] = [faces[o + 6 + k]!, faces[o + 3 + k]!];
      const plan = planCut(faces, solid(faces), 0);
      expect(plan.cut).toEqual([]);
      expect(plan.openCut.length / 4).toBe(4);
      const pier = box(0, 0, 0, 1.2, 3, 1.2);
      expect(planCut(pier, solid(pier), 0).cut).toHaveLength(1);
    }
  });

  test('glass is a line, never a fill; a table is an outline below the cut', () => {
    const glass = soupOf(new PlaneGeometry(2, 2).translate(0, 1, 0));
    const table = box(3, 0.7, 3, 1.6, 0.05, 0.8);
    const soup = join(glass, table);
    const flags = solid(soup);
    flags.fill(1, 0, glass.length / 9);
    const plan = planCut(soup, flags, 0);
    expect(plan.cut).toEqual([]);
    expect(plan.glass.length / 4).toBeGreaterThan(0);
    expect(plan.below.length / 4).toBe(4);
  });

  test('boards laid side by side leave one outline, also where their joints do not meet', () => {
    const boards = join(
      ...[0, 1, 2, 3].flatMap((row) =>
        [0, 1].map((half) =>
          soupOf(
            new PlaneGeometry(half ? 3 - 0.4 * row : 2 + 0.4 * row, 0.25)
              .rotateX(-Math.PI / 2)
              .translate(half ? 2 + 0.4 * row + (3 - 0.4 * row) / 2 : (2 + 0.4 * row) / 2, 0, 0.25 * row),
          ),
        ),
      ),
    );
    const { below } = planCut(boards, solid(boards), 0);
    const length = Array.from({ length: below.length / 4 }, (_, i) =>
      Math.hypot(below[4 * i + 2]! - below[4 * i]!, below[4 * i + 3]! - below[4 * i + 1]!),
    ).reduce((a, b) => a + b, 0);
    expect(length).toBeCloseTo(2 * 5 + 2 * 1, 2);
  });

  test('the bumps of a scanned floor are no edges; a step in it is one', () => {
    const random = randomFrom(5);
    const floor = new PlaneGeometry(4, 4, 80, 80).rotateX(-Math.PI / 2);
    const places = floor.getAttribute('position');
    const step = (x: number) => (x > 1.01 ? 0.15 : 0);
    for (let i = 0; i < places.count; i += 1) places.setY(i, step(places.getX(i)) + 0.01 * (2 * random() - 1));
    const scan = soupOf(floor);
    const { below } = planCut(scan, solid(scan), 0);
    const inside = Array.from({ length: below.length / 4 }, (_, i) => below.slice(4 * i, 4 * i + 4)).filter((line) =>
      line.every((value) => Math.abs(value) < 1.99),
    );
    // The step alone: both of its edges, and bumps that touch them.
    for (const [ax, , bx] of inside) for (const x of [ax!, bx!]) expect(Math.abs(x - 1.025)).toBeLessThan(0.08);
    expect(inside.length).toBeGreaterThan(20);
  });
});

const WALKER = { slope: 45 };
const findStoreys = (soup: Float32Array) => surveyModel(modelOf(soup), WALKER).survey.storeys;

describe('storeys', () => {
  const floor = (y: number, w: number) => box(0, y - 0.2, 0, w, 0.2, w);

  test('floors under cover are storeys, a flat roof is none, the ground outside is one', () => {
    const soup = join(box(0, -0.7, 0, 30, 0.2, 30), floor(0, 10), floor(3, 10), floor(6, 10));
    expect(findStoreys(soup).map(({ name, elevation }) => [name, elevation])).toEqual([
      ['Outside', -0.5],
      ['Ground', 0],
      ['Level 1', 3],
    ]);
  });

  test('the eaves of a roof are no ground, and without ground nothing is a basement', () => {
    const house = join(floor(0, 10), box(0, 2.8, 0, 12, 0.1, 12));
    expect(findStoreys(house).map(({ name, elevation }) => [name, elevation])).toEqual([['Ground', 0]]);
    const pitched = join(
      floor(0, 10),
      soupOf(new PlaneGeometry(12, 7).rotateX(-Math.PI / 2 + 0.5).translate(0, 4, 3)),
      soupOf(new PlaneGeometry(12, 7).rotateX(-Math.PI / 2 - 0.5).translate(0, 4, -3)),
    );
    expect(findStoreys(pitched).map(({ name, elevation }) => [name, elevation])).toEqual([['Ground', 0]]);
    const sheets = join(
      soupOf(new PlaneGeometry(8, 6).rotateX(-Math.PI / 2)),
      soupOf(new PlaneGeometry(8.8, 6.8).rotateX(-Math.PI / 2).translate(0, 2.8, 0)),
    );
    expect(findStoreys(sheets).map(({ name, elevation }) => [name, elevation])).toEqual([['Ground', 0]]);
  });

  test('a storey reaches as far as its floor, platforms in it included', () => {
    const soup = join(box(0, -0.2, 0, 10, 0.2, 6), box(8, 0, 0, 6, 0.5, 6), box(3, 3, 0, 18, 0.2, 8));
    const [ground] = findStoreys(soup);
    const [x0, z0, x1, z1] = ground!.extent;
    expect([x0, x1]).toEqual([expect.closeTo(-5, 0), expect.closeTo(11, 0)]);
    expect([z0, z1]).toEqual([expect.closeTo(-3, 0), expect.closeTo(3, 0)]);
  });

  test('table tops and landings are no storeys', () => {
    const soup = join(floor(0, 10), box(2, 0.7, 2, 2, 0.05, 2), box(-4, 1.4, -4, 1, 0.1, 1), floor(3, 10));
    expect(findStoreys(soup).map(({ elevation }) => elevation)).toEqual([0]);
  });

  test('a product without any floor gets a plan through its middle, however small it is', () => {
    for (const scale of [1, 0.02]) {
      const soup = soupOf(new TorusGeometry(0.4, 0.1, 24, 64).rotateX(Math.PI / 2).scale(scale, scale, scale));
      const [storey, ...others] = surveyModel(modelOf(soup), WALKER).survey.storeys;
      expect(others).toEqual([]);
      const [outlines] = storey!.plan.cut;
      expect(outlines!.map((loop) => Math.sqrt(area(loop) / Math.PI) / scale)).toEqual([
        expect.closeTo(0.5, 1),
        expect.closeTo(0.3, 1),
      ]);
    }
  });

  test('a core of solid wall is no room, and the floor around it counts as it is', () => {
    const soup = join(floor(0, 10), floor(3, 10), floor(6, 10), box(0, 0, 0, 4, 2.8, 4), box(0, 3, 0, 4, 2.8, 4));
    const [ground, upper] = surveyModel(modelOf(soup), WALKER).survey.storeys;
    expect([ground!.rooms, upper!.rooms]).toEqual([[], []]);
    // Neither where there is nothing above it.
    const open = surveyModel(modelOf(join(floor(0, 10), box(0, 0, 0, 4, 2.8, 4), box(8, -0.2, 0, 4, 3, 4))), WALKER);
    expect(open.survey.storeys.flatMap(({ rooms }) => rooms)).toEqual([]);
    expect(ground!.area).toBeCloseTo(100 - 16, -1);
  });

  test('a model without triangles is refused', () => {
    expect(() => surveyModel(modelOf(new Float32Array(0)), WALKER)).toThrow(RangeError);
  });
});

describe('walking into walls', () => {
  const walls = join(box(0, 0, -2, 6, 3, 0.2), box(-1.75, 0, 0, 2.5, 3, 0.2), box(1.75, 0, 0, 2.5, 3, 0.2));
  const blocking = blockingOf(planCut(walls, solid(walls), 0));

  test('a doorway of a metre lets a walker through; a wall does not', () => {
    expect(stepAside(blocking, [0, 1], [0, 0], 0.22)).toEqual([0, 0]);
    expect(stepAside(blocking, [1.7, 0.5], [1.7, 0.2], 0.22)).not.toEqual([1.7, 0.2]);
  });

  test('slides along a wall that it meets at an angle', () => {
    const [x, z] = stepAside(blocking, [1.5, 0.4], [1.7, 0.2], 0.22);
    expect(x).toBeCloseTo(1.7, 6);
    expect(z).toBeCloseTo(0.4, 6);
  });

  test('clearance is the distance to the nearest face', () => {
    expect(clearance(blocking, 0, -1)).toBeCloseTo(0.9, 2);
  });

  test('who stands too close may move away', () => {
    expect(stepAside(blocking, [1.7, 0.15], [1.7, 0.3], 0.22)).toEqual([1.7, 0.3]);
  });
});
