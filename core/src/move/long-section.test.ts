import { describe, expect, test } from '@jest/globals';
import { FIRST_WALKER, type Walk } from '../document/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { box, footingFrom, slab, walkThrough } from './floor-scenes.fixture.ts';
import { CompiledWalk } from './index.ts';

const sectionOf = (walk: Walk, triangles: readonly number[]) => {
  const move = new CompiledWalk(walk, footingFrom(triangles), { walker: FIRST_WALKER });
  return { move, cut: move.channels.find(({ id }) => id === 'section')!.cut! };
};

/** A room with a ceiling at 2.8 m, a wall with a door 2.05 m high at x = 5, a cupboard beside the way, and open air after x = 10. */
const scene = [
  ...slab(-2, 20, -3, 3, 0),
  ...box(-2, 10, 2.8, 3.1, -3, 3),
  ...box(4.9, 5.1, 2.05, 2.8, -0.6, 0.6),
  ...box(4.9, 5.1, 0, 2.8, -3, -0.6),
  ...box(4.9, 5.1, 0, 2.8, 0.6, 3),
  ...box(7, 8, 0, 1.3, 0.4, 1),
];
const through = walkThrough([
  [0, 0, 0],
  [14, 0, 0],
]);

describe('the long section', () => {
  const { move, cut } = sectionOf(through, scene);
  const at = (x: number) => cut.at(move.timeAt(x));

  test('shows the ceiling and what it is thick, the lintel, and the open sky', () => {
    expect(at(2).ceiling).toBeCloseTo(2.8, 3);
    expect(at(2).top).toBeCloseTo(3.1, 3);
    expect(at(5).ceiling).toBeCloseTo(2.05, 3);
    expect(at(12).ceiling).toBeNaN();
  });

  test('shows what stands within half a metre beside, not what is farther or ahead', () => {
    expect(at(7.5).beside).toBeCloseTo(1.3, 3);
    expect(at(7.5).free).toBeCloseTo(0.4, 3);
    expect(at(2).beside).toBeNaN();
    // The jambs stand 0.6 m to either side.
    expect(at(5).beside).toBeNaN();
  });

  test('names the tightest places', () => {
    expect(cut.tightest.map(({ kind, value }) => [kind, Number(value.toFixed(3))])).toEqual([
      ['overhead', 2.05],
      ['beside', 0.4],
    ]);
    expect(move.path.stationAt(cut.tightest[0]!.time)).toBeGreaterThan(4.8);
    expect(move.path.stationAt(cut.tightest[0]!.time)).toBeLessThan(5.2);
  });

  test('the treads of a stair are ahead, not beside', () => {
    const flight = Array.from({ length: 10 }, (_, n) => box(2 + n * 0.28, 10, n * 0.17, (n + 1) * 0.17, -1, 1)).flat();
    const stairs = sectionOf(
      walkThrough([
        [0, 0, 0],
        [8, 1.7, 0],
      ]),
      [...slab(-1, 2, -1, 1, 0), ...flight],
    );
    for (let time = 0; time < stairs.move.duration; time += 0.25) expect(stairs.cut.at(time).beside).toBeNaN();
  });

  test('agrees with every box of a hundred rooms, asked one by one', () => {
    const random = randomFrom(7);
    for (let n = 0; n < 100; n += 1) {
      const height = 2 + random() * 2;
      const [x, z, size, high] = [1 + random() * 6, 0.2 + random() * 0.6, 0.3 + random(), 0.2 + random() * 1.6];
      const things = [
        ...slab(-1, 10, -2, 3, 0),
        ...box(-1, 10, height, height + 0.3, -2, 3),
        ...box(x, x + size, 0, high, z, z + 0.5),
      ];
      const room = sectionOf(
        walkThrough([
          [0, 0, 0],
          [9, 0, 0],
        ]),
        things,
      );
      for (let station = 0.5; station < 8.5; station += 0.37) {
        const seen = room.cut.at(room.move.timeAt(station));
        expect(seen.ceiling).toBeCloseTo(height, 3);
        if (station > x + 0.1 && station < x + size - 0.1 && z < 0.49) {
          expect(seen.beside).toBeCloseTo(high, 3);
          // What is lower than the knee is stepped past.
          if (high > 0.41) expect(seen.free).toBeCloseTo(z, 3);
        }
        if (z > 0.51 || station < x - 0.1 || station > x + size + 0.1) expect(seen.beside).toBeNaN();
      }
    }
  });
});
