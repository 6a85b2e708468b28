import { expect, test } from '@jest/globals';
import { PACE_LIMITS, paceSchema, type Pace } from '../document/index.ts';
import { changePaceItem, removePaceItem } from './index.ts';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const at = (n: number) => ({ id: id(n), anchor: { by: 'station' as const, station: n } });
const PACE: Pace = {
  by: 'speed',
  speed: 1.2,
  duration: 10,
  shape: 'soft',
  marks: [{ ...at(1), length: 3, speed: 0.6 }],
  pauses: [
    { ...at(2), seconds: 3 },
    { ...at(3), seconds: 4 },
  ],
};

test('an item is changed by its name, within what a pace may say; all others stay', () => {
  const made = changePaceItem(changePaceItem(PACE, id(2), { seconds: 9000 }), id(1), { speed: 0, length: 0 });
  expect(made).toEqual({
    ...PACE,
    marks: [{ ...at(1), length: PACE_LIMITS.length[0], speed: PACE_LIMITS.speed[0] }],
    pauses: [{ ...at(2), seconds: 600 }, PACE.pauses![1]],
  });
  expect(paceSchema.safeParse(made).success).toBe(true);
  expect(made.pins).toBeUndefined();
});

test('one that is taken away leaves the others, and unknown ones change nothing', () => {
  expect(removePaceItem(PACE, id(2)).pauses).toEqual([PACE.pauses![1]]);
  expect(changePaceItem(PACE, id(9), { time: 3 })).toEqual(PACE);
});
