import { describe, expect, test } from '@jest/globals';
import { FIRST_LIMITS, FIRST_WALKER, type Walk } from '../document/index.ts';
import { box, footingFrom, slab, walkThrough } from '../move/floor-scenes.fixture.ts';
import { compileMove } from '../move/index.ts';
import { coverageOf, type CoveredStorey } from './index.ts';

/** Two rooms of six by six metres either side of a wall at x = 0, with a door a metre wide at z = 0. */
const footing = footingFrom([
  ...slab(-6, 6, -3, 3, 0),
  ...box(-6, 6, 3, 3.2, -3, 3),
  ...box(-0.1, 0.1, 0, 3, -3, -0.5),
  ...box(-0.1, 0.1, 0, 3, 0.5, 3),
]);
const room = (name: string, from: number) => ({
  name,
  area: 36,
  at: [from + 3, 0, 0] as [number, number, number],
  places: Array.from({ length: 25 }, (_, i) => [from + 1 + (i % 5), -2 + Math.floor(i / 5)]).flat(),
});
const storeys: CoveredStorey[] = [{ name: 'Ground floor', elevation: 0, rooms: [room('West', -6), room('East', 0)] }];

const cover = (walk: Walk) => {
  const site = { footing, walker: FIRST_WALKER, parts: [], motion: null, aspect: 16 / 9, limits: FIRST_LIMITS };
  const move = compileMove(walk, site)!;
  return { move, rooms: coverageOf(move, footing, storeys, 16 / 9) };
};
const through = walkThrough([
  [-5, 0, 0],
  [5, 0, 0],
]);

describe('which rooms a move shows', () => {
  test('a walk through a door: inside each as long as it takes, the second seen before it is entered', () => {
    const { move, rooms } = cover(through);
    expect(move.duration).toBeCloseTo(10, 6);
    expect(rooms.map(({ room: name }) => name)).toEqual(['West', 'East']);
    expect(rooms[0]!.inside).toBeCloseTo(5, 0);
    expect(rooms[1]!.inside).toBeCloseTo(5, 0);
    const [west, east] = rooms;
    // It walks away from the west room: what is behind is not seen.
    expect(west!.spans[0]![0]).toBe(0);
    expect(west!.spans.at(-1)![1]).toBeLessThan(4);
    expect(east!.spans[0]![0]).toBeLessThan(5);
    expect(east!.seen).toBeGreaterThan(east!.inside - 4);
    for (const { seen, spans } of rooms)
      expect(seen).toBeCloseTo(
        spans.reduce((sum, [a, b]) => sum + b - a, 0),
        9,
      );
  });

  test('with the door shut the other room is not seen, until one is in it', () => {
    const shut = footingFrom([...slab(-6, 6, -3, 3, 0), ...box(-6, 6, 3, 3.2, -3, 3), ...box(-0.1, 0.1, 0, 3, -3, 3)]);
    const { move } = cover(through);
    const east = coverageOf(move, shut, storeys, 16 / 9)[1]!;
    expect(east.spans[0]![0]).toBeGreaterThan(4.8);
  });

  test('who looks back sees the room that is left, not the one that is entered', () => {
    const back = cover({ ...through, gaze: { kind: 'bearing', pan: Math.PI / 2, tilt: 0 } });
    expect(back.rooms[0]!.seen).toBeGreaterThan(6);
    expect(back.rooms[1]!.spans[0]![0]).toBeGreaterThan(6);
  });
});
