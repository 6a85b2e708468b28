import { describe, expect, test } from '@jest/globals';
import { roomOfEye, storeyOfEye } from './room-at.ts';

const room = (name: string, floor: number, x: number) => ({
  name,
  area: 12,
  at: [x, floor, 0] as [number, number, number],
  places: [-1, 0, 1].flatMap((dx) => [-1, 0, 1].flatMap((dz) => [x + dx, dz])),
});
const storeys = [
  { elevation: 0, rooms: [room('Hall', 0, 0), room('Kitchen', 0, 4)] },
  { elevation: 3, rooms: [room('Study', 3, 0)] },
];

describe('where an eye is', () => {
  test('the storey below it, also for a child and a low camera; the lowest for one under all floors', () => {
    expect([1.6, 0.9, 3.1, 4.6, -2].map((y) => storeyOfEye(y, storeys))).toEqual([0, 0, 0, 1, 0]);
  });

  test('the room it stands in, by storey; none outdoors, none far above', () => {
    expect(roomOfEye([0.3, 1.6, 0.4], storeys)?.name).toBe('Hall');
    expect(roomOfEye([4.4, 1.6, -0.9], storeys)?.name).toBe('Kitchen');
    expect(roomOfEye([0.3, 4.6, 0.4], storeys)?.name).toBe('Study');
    expect(roomOfEye([8, 1.6, 0], storeys)).toBeNull();
    expect(roomOfEye([0, 9, 0], storeys)).toBeNull();
    expect(roomOfEye([0, 1, 0], [])).toBeNull();
  });
});
