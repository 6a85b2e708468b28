import { beforeAll, describe, expect, test } from '@jest/globals';
import { Box3, Triangle, Vector3 } from 'three';
import { FIRST_WALKER, type Path, type Vec3 } from '../document/index.ts';
import { box, walkAlong } from '../move/floor-scenes.fixture.ts';
import { CompiledWalk } from '../move/index.ts';
import { bare, BUILDINGS, modelOfBuilding, plain, type Building } from '../survey/buildings.fixture.ts';
import { footingOf, surveyModel, Walkway, type Footing, type Survey } from '../survey/index.ts';
import { findWay, whyNoWay, type FoundWay } from './index.ts';

const walker = { ...FIRST_WALKER, eyeHeight: 1.6 };
/** The ways below may be so much nearer to things than the shoulders need: a rounded bend is no polygon. Metres. */
const SLACK = 0.01;
/** In doors that are exactly as wide as the walker, entered from aside. */
const TIGHT = 0.03;
/** Longer than the shortest clear path at most. */
const DETOUR = 1.08;

let serial = 0;
const newId = () => `00000000-0000-4000-8000-${String((serial += 1)).padStart(12, '0')}`;

interface Made {
  survey: Survey;
  walkway: Walkway;
  footing: Footing;
  triangles: readonly Boxed[];
}
interface Boxed {
  triangle: Triangle;
  box: Box3;
}

async function make(building: Building): Promise<Made> {
  const model = modelOfBuilding(building);
  const { survey } = surveyModel(model, FIRST_WALKER);
  const { triangles: t } = building;
  return {
    survey,
    walkway: (await Walkway.build(model, survey, FIRST_WALKER))!,
    footing: footingOf(model, FIRST_WALKER),
    triangles: Array.from({ length: t.length / 9 }, (_, i) => {
      const corner = (o: number) => new Vector3(t[9 * i + o], t[9 * i + o + 1], t[9 * i + o + 2]);
      const triangle = new Triangle(corner(0), corner(3), corner(6));
      return { triangle, box: new Box3().setFromPoints([triangle.a, triangle.b, triangle.c]) };
    }),
  };
}

const find = ({ walkway, footing }: Made, places: readonly Vec3[]) => findWay(walkway, places, footing, walker, newId);

const walkOn = (path: Path, footing: Footing) => new CompiledWalk(walkAlong(path), footing);

/** Heights that a body reaches through over its floor, every so often, metres. */
const HEIGHTS = Array.from({ length: 30 }, (_, i) => 0.46 + i * 0.05);
const nearest = new Vector3();
const at = new Vector3();
/**
 * Level distance to everything beside a body on a floor, by brute force: every triangle, at many heights. Metres.
 * @param most what is farther than this is not looked at
 */
function freeAt(triangles: readonly Boxed[], x: number, y: number, z: number, most = Infinity): number {
  let free = most;
  for (const { triangle, box } of triangles) {
    const { min, max } = box;
    if (max.y < y + 0.45 || min.y > y + walker.height) continue;
    if (Math.hypot(Math.max(min.x - x, 0, x - max.x), Math.max(min.z - z, 0, z - max.z)) >= free) continue;
    for (const height of HEIGHTS) {
      if (y + height < min.y - 0.03 || y + height > max.y + 0.03) continue;
      at.set(x, y + height, z);
      triangle.closestPointToPoint(at, nearest);
      if (Math.abs(nearest.y - at.y) < 0.03) free = Math.min(free, Math.hypot(nearest.x - x, nearest.z - z));
    }
  }
  return free;
}

/** The least room beside a walk. */
function leastRoom(path: Path, { footing, triangles }: Made): number {
  const walk = walkOn(path, footing);
  let least = Infinity;
  for (let s = 0; s <= walk.curve.length; s += 0.05) {
    const [x, y, z] = walk.placeAt(s);
    least = Math.min(least, freeAt(triangles, x, y, z));
  }
  return least;
}

/**
 * Length of the shortest path on one floor that keeps the shoulders free: Dijkstra over a grid of 10 cm with sixteen
 * directions, drawn taut afterwards by leaving out what can be seen past.
 */
function bruteForce(from: Vec3, to: Vec3, { triangles }: Made): number {
  const cell = 0.1;
  const size = 140;
  const [x0, z0] = [Math.min(from[0], to[0]) - 5, Math.min(from[2], to[2]) - 5];
  const free = new Int8Array(size * size).fill(-1);
  const isFree = (k: number) => {
    if (free[k]! < 0) {
      const [x, z] = [x0 + (k % size) * cell, z0 + Math.floor(k / size) * cell];
      const needed = walker.radius - 0.02;
      free[k] = freeAt(triangles, x, from[1], z, needed) >= needed ? 1 : 0;
    }
    return free[k] === 1;
  };
  const cellOf = (p: Vec3) => Math.round((p[2] - z0) / cell) * size + Math.round((p[0] - x0) / cell);
  const steps = [-2, -1, 0, 1, 2].flatMap((i) => [-2, -1, 0, 1, 2].map((j) => [i, j] as const));
  const goal = cellOf(to);
  const reached = new Float64Array(size * size).fill(Infinity);
  const open: [cost: number, k: number][] = [[0, cellOf(from)]];
  reached[cellOf(from)] = 0;
  while (open.length > 0) {
    let best = 0;
    for (let i = 1; i < open.length; i += 1) if (open[i]![0] < open[best]![0]) best = i;
    const [cost, k] = open[best]!;
    open[best] = open.at(-1)!;
    open.pop();
    if (cost > reached[k]!) continue;
    if (k === goal) return cost * cell;
    for (const [i, j] of steps) {
      const next = k + j * size + i;
      const [x, z] = [(k % size) + i, Math.floor(k / size) + j];
      if ((i === 0 && j === 0) || x < 0 || z < 0 || x >= size || z >= size || !isFree(next)) continue;
      // A step over two cells passes the ones between.
      if (Math.max(Math.abs(i), Math.abs(j)) === 2 && !isFree(k + Math.trunc(j / 2) * size + Math.trunc(i / 2)))
        continue;
      const there = cost + Math.hypot(i, j);
      if (there < reached[next]! - 1e-9) {
        reached[next] = there;
        open.push([there, next]);
      }
    }
  }
  return Infinity;
}

describe.each(BUILDINGS)('$name', (building) => {
  let made: Made;
  beforeAll(async () => {
    made = await make(building);
  });

  test('through every door the way is clear and keeps the shoulders free', () => {
    for (const { from, to } of building.doors) {
      const way = find(made, [from, to]) as FoundWay;
      expect(way).toMatchObject({ found: true, clear: true });
      const ends = Math.min(...[from, to].map(([x, y, z]) => freeAt(made.triangles, x, y, z)));
      expect(leastRoom(way.path, made)).toBeGreaterThan(Math.min(walker.radius, ends) - SLACK);
    }
  });

  const tight = /as wide as the walker|stair well|millimetres/.test(building.name);
  test('from room to room on one floor it is no more than 8 % longer than the shortest clear path', () => {
    for (const { rooms } of made.survey.storeys)
      rooms.slice(1).forEach(({ at: to }, i) => {
        const from = rooms[i]!.at;
        const shortest = bruteForce(from, to, made);
        const way = find(made, [from, to]);
        // A grid does not come through doors that are as wide as the walker; the way does.
        if (shortest < Infinity) expect(way.found).toBe(true);
        if (!way.found) return;
        expect(way.clear).toBe(true);
        expect(way.length).toBeLessThan(shortest * DETOUR + 0.05);
        expect(leastRoom(way.path, made)).toBeGreaterThan(walker.radius - (tight ? TIGHT : SLACK));
      });
  });
});

/** Two rooms over each other, 2.8 m apart, joined by a stair that turns back on itself: 8 and 8 risers of 175 mm. */
function dogLeg(width: number): Building {
  const riser = 0.175;
  const going = 0.28;
  const [x1, z1, high] = [8, 6, 16 * riser];
  const run = 8 * going;
  const flights: number[] = [];
  for (let k = 0; k < 8; k += 1) {
    const [a, b] = [2 + k * going, 2 + (k + 1) * going];
    flights.push(...box(a, b, 0, (k + 1) * riser, 0, width));
    flights.push(...box(a, b, (15 - k) * riser - 0.2, (16 - k) * riser, width + 0.1, 2 * width + 0.1));
  }
  const landing = box(2 + run, 2 + run + width, 8 * riser - 0.2, 8 * riser, 0, 2 * width + 0.1);
  return bare(`a dog-leg stair of ${width} m`, [
    ...flights,
    ...landing,
    ...box(0, x1, -0.25, 0, 0, z1),
    // The upper floor, open over the stair; walls all round, and a roof.
    ...box(0, 2, high - 0.25, high, 0, z1),
    ...box(2, x1, high - 0.25, high, 2 * width + 0.1, z1),
    ...box(-0.3, 0, 0, 5.6, -0.3, z1 + 0.3),
    ...box(x1, x1 + 0.3, 0, 5.6, -0.3, z1 + 0.3),
    ...box(0, x1, 0, 5.6, -0.3, 0),
    ...box(0, x1, 0, 5.6, z1, z1 + 0.3),
    ...box(-0.3, x1 + 0.3, 5.6, 5.85, -0.3, z1 + 0.3),
  ]);
}

describe('stairs', () => {
  test.each([0.8, 1, 1.2])(
    'up a dog-leg stair of %s m and down again: on its treads, clear, as long as it is',
    async (width) => {
      const made = await make(dogLeg(width));
      const [below, above]: [Vec3, Vec3] = [
        [1, 0, width / 2],
        [1, 2.8, 1.5 * width + 0.1],
      ];
      for (const places of [
        [below, above],
        [above, below],
      ]) {
        const way = find(made, places) as FoundWay;
        expect(way).toMatchObject({ found: true, clear: true });
        const walk = walkOn(way.path, made.footing);
        expect(walk.placeAt(0)[1]).toBeCloseTo(places[0]![1], 2);
        expect(walk.placeAt(walk.curve.length)[1]).toBeCloseTo(places[1]![1], 2);
        // Along both flights, and round the landing by no more than its middle line.
        const flight = 8 * 0.28 + 1;
        expect(way.length).toBeGreaterThan(2 * flight);
        expect(way.length).toBeLessThan((2 * flight + (Math.PI / 2) * (width + 0.1)) * DETOUR);
      }
    },
  );

  test('places in their order, with a node at each; where there is no way it says between which', async () => {
    const made = await make(plain('A house'));
    const [a, b] = made.survey.storeys.flatMap(({ rooms }) => rooms.map(({ at: middle }) => middle));
    const way = find(made, [a!, b!, a!]) as FoundWay;
    expect(way.stops).toHaveLength(3);
    const [first, second, third] = way.stops.map((i) => way.path.nodes[i]!);
    expect(Math.hypot(first!.x - third!.x, first!.z - third!.z)).toBeLessThan(0.01);
    expect(Math.hypot(second!.x - b![0], second!.z - b![2])).toBeLessThan(1.2);
    expect(find(made, [a!, b!, [a![0], 40, a![2]]])).toEqual({ found: false, from: 1, to: 2 });
  });

  test.each([
    ['a door of 0.3 m', { at: 2.2, width: 0.3, head: 2.1 }, { reason: 'narrow', size: 0.3, needed: 0.5 }],
    ['a door of 1.8 m head', { at: 2.2, width: 0.9, head: 1.8 }, { reason: 'low', size: 1.8, needed: 1.9 }],
    ['a door of both', { at: 2.2, width: 0.3, head: 1.8 }, { reason: 'low', size: 1.8, needed: 1.9 }],
  ])('says what is in the way and by how much: %s', async (_, door, expected) => {
    const building = plain('A house', { door });
    const made = await make(building);
    const [{ from, to }] = building.doors as [Building['doors'][number]];
    expect(find(made, [from, to]).found).toBe(false);
    const block = await whyNoWay(made.walkway, made.footing, made.survey, [from, to], FIRST_WALKER);
    expect(block).toMatchObject({ ...expected, size: expect.closeTo(expected.size, 2) });
    // In the door: in the wall between both rooms.
    expect(Math.abs(block!.at[0] - (from[0] + to[0]) / 2)).toBeLessThan(0.3);
  });

  test('says how high a step is that nobody takes', async () => {
    const platform = bare('a platform', [...box(-6, 6, -0.2, 0, -4, 4), ...box(1, 6, -0.2, 0.42, -4, 4)]);
    const made = await make(platform);
    const places: [Vec3, Vec3] = [
      [-4, 0, 0],
      [4, 0.42, 0],
    ];
    expect(find(made, places).found).toBe(false);
    const block = await whyNoWay(made.walkway, made.footing, made.survey, places, FIRST_WALKER);
    expect(block).toMatchObject({ reason: 'step', size: expect.closeTo(0.42, 2), needed: 0.25 });
    expect(block!.at[0]).toBeCloseTo(1, 1);
  });

  test('says where a stair is out of reach that begins too near a wall', async () => {
    // As a house has it that was modelled elsewhere: no room before the first tread.
    const treads = Array.from({ length: 16 }, (_, i) =>
      box(9, 10.2, (3 * i) / 16, (3 * (i + 1)) / 16, 7.6 - (i + 1) * 0.213, 7.62 - i * 0.213),
    ).flat();
    const house = bare('a cramped stair', [
      ...box(0, 12, -0.2, 0, 0, 8),
      ...box(0, 12, 0, 2.7, 7.85, 8),
      ...box(10.25, 10.4, 0, 2.7, 3, 8),
      ...box(0, 9, 2.7, 3, 0, 8),
      ...box(9, 12, 2.7, 3, 0, 4.4),
      ...treads,
    ]);
    const made = await make(house);
    const places: [Vec3, Vec3] = [
      [3, 0, 3],
      [3, 3, 3],
    ];
    expect(find(made, places).found).toBe(false);
    const block = await whyNoWay(made.walkway, made.footing, made.survey, places, FIRST_WALKER);
    expect(block).toMatchObject({ reason: 'narrow', needed: 0.5 });
    expect((block as { size: number }).size).toBeLessThan(0.5);
    expect(Math.hypot(block!.at[0] - 9.2, block!.at[2] - 7.5)).toBeLessThan(1);
  });

  test.each([
    [
      'a ditch of 1.5 m',
      [...box(-6, 0, -0.2, 0, -4, 4), ...box(1.5, 6, -0.2, 0, -4, 4)],
      [4, 0, 0] as Vec3,
      { reason: 'gap', size: expect.closeTo(1.5, 1), rise: expect.closeTo(0, 1) },
    ],
    [
      'a gallery that begins 0.3 m behind the last tread',
      [
        ...box(-6, 6, -0.2, 0, -4, 4),
        ...Array.from({ length: 10 }, (_, k) => box(0.3 * k, 0.3 * (k + 1), 0.2 * k, 0.2 * (k + 1), -1, 1)).flat(),
        ...box(3.3, 6, 1.8, 2, -4, 4),
      ],
      [5, 2, 0] as Vec3,
      { reason: 'gap', size: expect.closeTo(0.3, 1), rise: expect.closeTo(0, 1) },
    ],
    [
      'a gallery without a stair',
      [...box(-6, 6, -0.2, 0, -4, 4), ...box(0, 6, 2.6, 2.8, -4, 4)],
      [4, 2.8, 0] as Vec3,
      { reason: 'gap', rise: expect.closeTo(2.8, 1) },
    ],
    [
      'a wall without a door',
      [...box(-6, 6, -0.2, 0, -4, 4), ...box(0, 0.2, 0, 4, -4.2, 4.2)],
      [4, 0, 0] as Vec3,
      { reason: 'wall' },
    ],
  ])('says how far one gets where nobody gets through: %s', async (name, triangles, to, expected) => {
    const made = await make(bare(name, triangles));
    const places: [Vec3, Vec3] = [[-4, 0, 0], to];
    expect(find(made, places).found).toBe(false);
    // A gap is as wide from its other side; the others are looked at from one.
    const ways = [places, [places[1], places[0]] as [Vec3, Vec3]].slice(0, name.startsWith('a ditch') ? 2 : 1);
    for (const [a, b] of ways) {
      const block = await whyNoWay(made.walkway, made.footing, made.survey, [a, b], FIRST_WALKER);
      expect(block).toMatchObject(expected);
    }
  });
});
