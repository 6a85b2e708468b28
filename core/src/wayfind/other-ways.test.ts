import { beforeAll, describe, expect, test } from '@jest/globals';
import { FIRST_WALKER, moveBodySchema, type Path, type Vec3, type Walk } from '../document/index.ts';
import { box, walkAlong } from '../move/floor-scenes.fixture.ts';
import { CompiledWalk } from '../move/index.ts';
import { bare, modelOfBuilding, type Building } from '../survey/buildings.fixture.ts';
import { footingOf, surveyModel, Walkway, type Footing } from '../survey/index.ts';
import { findWay, foundAgain, otherWays, placesOfWay, type FoundWay } from './index.ts';

const walker = { ...FIRST_WALKER, eyeHeight: 1.6 };
let serial = 0;
const newId = () => `00000000-0000-4000-8000-${String((serial += 1)).padStart(12, '0')}`;

/** A hall of 10 × 8 m, parted by a wall at x = 5 with openings of a metre; what stands in it besides. */
function parted(openings: readonly number[], ...more: number[][]): Building {
  const edges = [0, ...openings.flatMap((z) => [z - 0.5, z + 0.5]), 8];
  const wall = Array.from({ length: edges.length / 2 }, (_, i) =>
    box(4.9, 5.1, 0, 2.6, edges[2 * i]!, edges[2 * i + 1]!),
  );
  return bare('a parted hall', [
    ...box(0, 10, -0.2, 0, 0, 8),
    ...box(-0.2, 0, 0, 2.6, -0.2, 8.2),
    ...box(10, 10.2, 0, 2.6, -0.2, 8.2),
    ...box(0, 10, 0, 2.6, -0.2, 0),
    ...box(0, 10, 0, 2.6, 8, 8.2),
    ...wall.flat(),
    ...more.flat(),
  ]);
}

async function make(building: Building): Promise<{ walkway: Walkway; footing: Footing }> {
  const model = modelOfBuilding(building);
  const { survey } = surveyModel(model, FIRST_WALKER);
  return {
    walkway: (await Walkway.build(model, survey, FIRST_WALKER))!,
    footing: footingOf(model, FIRST_WALKER),
  };
}

/** Where a path crosses the wall at x = 5. */
function crossings(path: Path, footing: Footing): number[] {
  const walk = new CompiledWalk(walkAlong(path), footing);
  const out: number[] = [];
  for (let s = 0.02; s <= walk.curve.length; s += 0.02) {
    const [before, here] = [walk.placeAt(s - 0.02), walk.placeAt(s)];
    if (before[0] < 5 !== here[0] < 5) out.push(here[2]);
  }
  return out;
}

const [west, east]: [Vec3, Vec3] = [
  [2, 0, 1.5],
  [8, 0, 1.5],
];

describe('other ways through the same places', () => {
  let two: Awaited<ReturnType<typeof make>>;
  beforeAll(async () => {
    two = await make(parted([1.5, 6.5]));
  });
  const others = (made: typeof two, places: readonly Vec3[]) => {
    const first = findWay(made.walkway, places, made.footing, walker, newId) as FoundWay;
    expect(first).toMatchObject({ found: true, clear: true });
    return { first, ways: otherWays(first, made.walkway, places, made.footing, walker, newId) };
  };

  test('lead through the other door: longer, clear, and only once', () => {
    const { first, ways } = others(two, [west, east]);
    expect(crossings(first.path, two.footing)).toEqual([expect.closeTo(1.5, 0)]);
    expect(ways).toHaveLength(1);
    expect(ways[0]!.clear).toBe(true);
    expect(crossings(ways[0]!.path, two.footing)).toEqual([expect.closeTo(6.5, 0)]);
    expect(ways[0]!.length).toBeGreaterThan(first.length + 4);
    // Both begin and end where they were asked to.
    for (const { path } of [first, ways[0]!]) {
      expect(Math.hypot(path.nodes[0]!.x - 2, path.nodes[0]!.z - 1.5)).toBeLessThan(0.1);
      expect(Math.hypot(path.nodes.at(-1)!.x - 8, path.nodes.at(-1)!.z - 1.5)).toBeLessThan(0.1);
    }
  });

  test('there and back, another door each time; where there is one door, there is no other way', async () => {
    const { ways } = others(two, [west, east, west]);
    expect(ways.length).toBeGreaterThan(0);
    for (const { path, stops } of ways) {
      expect(stops).toHaveLength(3);
      expect(crossings(path, two.footing)).toHaveLength(2);
    }
    expect(others(await make(parted([1.5])), [west, east]).ways).toEqual([]);
  });

  test('a floor over another one is not got to from below', async () => {
    // A gallery over the west end, two metres up; one walks below it, and up to it by a flight of twelve.
    const treads = Array.from({ length: 12 }, (_, n) =>
      box(3.675 - 0.225 * n, 3.9 - 0.225 * n, 0, 0.175 * (n + 1), 6, 7.2),
    );
    const made = await make(parted([1.5], box(0, 1.2, 2, 2.1, 0, 8), treads.flat()));
    const gallery: Vec3 = [0.6, 2.1, 4];
    const way = (...avoid: Vec3[]) => findWay(made.walkway, [east, gallery], made.footing, walker, newId, { avoid });
    const up = way() as FoundWay;
    expect(up.found).toBe(true);
    expect(up.path.nodes.at(-1)!.y).toBeCloseTo(2.1, 2);
    expect(way([2.5, 1.05, 6.6])).toEqual({ found: false, from: 0, to: 1 });
  });

  test('round the other side of what stands in the open', async () => {
    const pillar = await make(parted([1.5, 4, 6.5], box(1.6, 2.6, 0, 2.6, 3, 5)));
    const { first, ways } = others(pillar, [
      [0.8, 0, 4],
      [4, 0, 4.2],
    ]);
    expect(ways.length).toBeGreaterThan(0);
    const side = (path: Path) => path.nodes.some(({ z }) => z > 5);
    expect(side(ways[0]!.path)).toBe(!side(first.path));
  });
});

describe('a way found again', () => {
  const walkThrough = (way: FoundWay): Walk => {
    const stops = way.stops.map((i) => way.path.nodes[i]!.id);
    return walkAlong(way.path, {
      found: { places: stops.map((node, i) => ({ node, name: `Room ${i + 1}` })) },
      pace: {
        by: 'speed',
        speed: 1,
        duration: 10,
        shape: 'constant',
        pauses: [{ id: newId(), anchor: { by: 'node', node: stops[1]!, offset: 0 }, seconds: 3 }],
        marks: [{ id: newId(), anchor: { by: 'station', station: way.length / 4 }, length: 1, speed: 0.5 }],
      },
      gazeSpans: [
        {
          id: newId(),
          from: { by: 'node', node: stops[1]!, offset: -1 },
          to: { by: 'node', node: way.path.nodes[1]!.id, offset: 0.5 },
          gaze: { kind: 'point', point: [5, 1.6, 4] },
          handOver: 1,
        },
      ],
      tracks: { roll: [{ id: newId(), anchor: { by: 'time', time: 4 }, value: 2, ease: 'smooth' }] },
    });
  };

  test('in a model whose first door is gone: through the other one, its places and what holds on to them stay', async () => {
    const [before, after] = [await make(parted([1.5, 6.5])), await make(parted([6.5]))];
    const places = [west, east, [8, 0, 6.5] as Vec3];
    const walk = walkThrough(findWay(before.walkway, places, before.footing, walker, newId) as FoundWay);
    const known = placesOfWay(walk);
    expect(known.map(({ name }) => name)).toEqual(['Room 1', 'Room 2', 'Room 3']);
    const way = findWay(
      after.walkway,
      known.map(({ at }) => at),
      after.footing,
      walker,
      newId,
    ) as FoundWay;
    const again = foundAgain(walk, way)!;
    expect(moveBodySchema.safeParse(again).success).toBe(true);
    expect(crossings(again.path, after.footing)).toEqual([expect.closeTo(6.5, 0)]);
    expect(placesOfWay(again).map(({ node }) => node)).toEqual(known.map(({ node }) => node));
    placesOfWay(again).forEach(({ at }, i) =>
      expect(Math.hypot(...at.map((v, k) => v - known[i]!.at[k]!))).toBeLessThan(0.1),
    );
    const compiled = new CompiledWalk(again, after.footing);
    expect(compiled.lostKeys).toBe(0);
    // It stays where it stayed, and is slow half-way to there again: a quarter of the whole was half of the first leg.
    const pause = compiled.channels.find(({ id }) => id === 'pace')!.items!.find(({ kind }) => kind === 'pause')!;
    const stood = compiled.sampleAt((pause.from + pause.to) / 2).position;
    expect(Math.hypot(stood[0] - 8, stood[2] - 1.5)).toBeLessThan(0.2);
    expect(again.tracks).toEqual(walk.tracks);
    const part = (one: Walk) => {
      const { curve } = new CompiledWalk(one, before.footing);
      const [mark] = one.pace.marks!;
      const end = curve.nodeStations[one.path.nodes.findIndex(({ id }) => id === known[1]!.node)]!;
      return (mark!.anchor as { station: number }).station / end;
    };
    expect(part(again)).toBeCloseTo(part(walk), 6);
  });

  test('in the same model it is what it was, but for the nodes between its places', async () => {
    const made = await make(parted([1.5]));
    const way = findWay(made.walkway, [west, east], made.footing, walker, newId) as FoundWay;
    const walk = walkThrough(way);
    const again = foundAgain(
      walk,
      findWay(
        made.walkway,
        placesOfWay(walk).map(({ at }) => at),
        made.footing,
        walker,
        newId,
      ) as FoundWay,
    )!;
    const shape = ({ path }: Walk) =>
      path.nodes.map(({ x, z, radius }) => [x, z, radius].map((v) => expect.closeTo(v, 1)));
    expect(again.path.nodes.map(({ x, z, radius }) => [x, z, radius])).toEqual(shape(walk));
  });

  test('a place whose node was deleted is none of its way any more', async () => {
    const made = await make(parted([1.5]));
    const way = findWay(made.walkway, [west, east, [8, 0, 6]], made.footing, walker, newId) as FoundWay;
    const walk = walkThrough(way);
    const gone = placesOfWay(walk)[1]!.node;
    const less = { ...walk, path: { ...walk.path, nodes: walk.path.nodes.filter(({ id }) => id !== gone) } };
    expect(placesOfWay(less).map(({ name }) => name)).toEqual(['Room 1', 'Room 3']);
    // A way through three places is none of a walk through two.
    expect(foundAgain(less, way)).toBeNull();
  });
});
