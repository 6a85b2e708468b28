import { describe, expect, test } from '@jest/globals';
import { wayFindings } from '../check/index.ts';
import { Footing, packFooting, SURFACE, unpackFooting } from '../survey/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { box, footingFrom, walkThrough } from './floor-scenes.fixture.ts';
import { CompiledWalk } from './index.ts';

interface Wall {
  x0: number;
  x1: number;
  z0: number;
  z1: number;
}

/** Walls on a grid of rooms, with open doors in some of them. */
function building(random: () => number): Wall[] {
  const [rooms, side] = [4, 4];
  const thick = 0.08 + random() * 0.2;
  const walls: Wall[] = [];
  for (let line = 0; line <= rooms; line += 1)
    for (let room = 0; room < rooms; room += 1)
      for (const along of ['x', 'z'] as const) {
        const [a0, a1] = [room * side + thick / 2, (room + 1) * side - thick / 2];
        const [b0, b1] = [line * side - thick / 2, line * side + thick / 2];
        const piece = (from: number, to: number) =>
          walls.push(along === 'x' ? { x0: from, x1: to, z0: b0, z1: b1 } : { x0: b0, x1: b1, z0: from, z1: to });
        if (random() < 0.5) {
          const door = a0 + 0.3 + random() * (a1 - a0 - 1.5);
          piece(a0, door);
          piece(door + 0.9, a1);
        } else piece(a0, a1);
      }
  return walls;
}

/** Part of the line from a to b at which it enters a rectangle, and leaves it; null where it misses (slab method, Kay & Kajiya 1986). */
function through({ x0, x1, z0, z1 }: Wall, a: readonly [number, number], b: readonly [number, number]) {
  let [enter, leave] = [0, 1];
  for (const [from, to, low, high] of [
    [a[0], b[0], x0, x1],
    [a[1], b[1], z0, z1],
  ] as const) {
    const d = to - from;
    if (Math.abs(d) < 1e-12) {
      if (from < low || from > high) return null;
      continue;
    }
    const [t0, t1] = [(low - from) / d, (high - from) / d];
    enter = Math.max(enter, Math.min(t0, t1));
    leave = Math.min(leave, Math.max(t0, t1));
  }
  return enter < leave ? ([enter, leave] as const) : null;
}

describe('what a walk goes through', () => {
  test('a hundred lines across buildings: every crossing of a wall, and none in an open door', () => {
    const random = randomFrom(5);
    let crossings = 0;
    for (let house = 0; house < 10; house += 1) {
      const walls = building(random);
      const footing = footingFrom([
        ...box(-20, 40, -0.3, 0, -20, 40),
        ...walls.flatMap(({ x0, x1, z0, z1 }) => box(x0, x1, 0, 2.6, z0, z1)),
      ]);
      for (let run = 0; run < 10; run += 1) {
        const [a, b] = [
          [random() * 24 - 4, random() * 24 - 4],
          [random() * 24 - 4, random() * 24 - 4],
        ] as [[number, number], [number, number]];
        // A line that starts or ends in a wall is no crossing.
        if (walls.some((wall) => [a, b].some(([x, z]) => x > wall.x0 && x < wall.x1 && z > wall.z0 && z < wall.z1)))
          continue;
        const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
        const walk = new CompiledWalk(
          walkThrough([
            [a[0], 0, a[1]],
            [b[0], 0, b[1]],
          ]),
          footing,
        );
        const truth = walls
          .map((wall) => through(wall, a, b))
          .filter((hit) => hit !== null)
          .map(([enter, leave]) => [enter * length, leave * length] as const);
        crossings += truth.length;
        for (const [enter, leave] of truth) {
          for (const face of [enter, leave]) {
            const found = walk.ground.obstacles.find(({ from, to }) => face >= from - 0.005 && face <= to + 0.005);
            expect({ face, kind: found?.kind }).toEqual({ face, kind: 'wall' });
          }
        }
        for (const { from, to } of walk.ground.obstacles)
          for (const end of [from, to])
            expect(Math.min(...truth.flat().map((station) => Math.abs(station - end)))).toBeLessThan(0.005);
        expect(wayFindings(walk)).toHaveLength(walk.ground.obstacles.length);
      }
    }
    expect(crossings).toBeGreaterThan(200);
  });

  test('says what it is: a closed door, glass, a parapet, a wall', () => {
    const leaf = (x: number, high: number) => Float32Array.from(box(x, x + 0.05, 0, high, -1, 1));
    const floor = footingFrom(box(-10, 10, -0.2, 0, -5, 5));
    const [door, glass, parapet, wall] = [leaf(-3, 2), leaf(-1, 2), leaf(1, 0.8), leaf(3, 2.5)];
    const soup = Float32Array.from([...door, ...glass, ...parapet, ...wall]);
    const kinds = new Uint8Array(soup.length / 9);
    kinds.fill(SURFACE.door, 0, door.length / 9);
    kinds.fill(SURFACE.glass, door.length / 9, (door.length + glass.length) / 9);
    const footing = new Footing(floor.walkable, soup, kinds);
    // As it is kept and read again.
    for (const one of [footing, unpackFooting(packFooting(footing).buffer)]) {
      const walk = new CompiledWalk(
        walkThrough([
          [-5, 0, 0],
          [5, 0, 0],
        ]),
        one,
      );
      expect(walk.ground.obstacles.map(({ kind }) => kind)).toEqual(['closed door', 'glass', 'low', 'wall']);
    }
  });

  test('the floors of an older site are read, and nothing is said of what stands in the way', () => {
    const floor = footingFrom(box(-10, 10, -0.2, 0, -5, 5)).walkable;
    const old = unpackFooting(Float32Array.from(floor).buffer);
    expect(old.floors.floorBelow(0, 0, 1)).toBeCloseTo(0, 6);
    expect(old.knowsSolids).toBe(false);
    expect(() => unpackFooting(new ArrayBuffer(35))).toThrow(/damaged/);
    expect(() => unpackFooting(packFooting(footingFrom(box(0, 1, 0, 1, 0, 1))).buffer.slice(0, -1))).toThrow(/damaged/);
  });
});
