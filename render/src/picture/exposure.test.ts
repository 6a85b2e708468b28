import { expect, test } from '@jest/globals';
import { DEFAULT_LENS, type Vec3 } from '@eskovan/core/document';
import { standing } from '@eskovan/core/move';
import { FIRST_GAIN } from '@eskovan/core/survey';
import { Vector3 } from 'three';
import { Exposure } from './exposure.ts';

const at = (x: number, exposure = 0) => ({
  ...standing({ position: [x, 1.6, 0], orientation: [0, 0, 0, 1] }, DEFAULT_LENS),
  exposure,
});
/** It is darker to the east: half of the light every metre. */
const meter = { gainAt: ([x]: Vec3): Vec3 => [2 ** x, 2 ** x, 2 ** x] };
const made = () => {
  const gain = { value: new Vector3() };
  const exposure = new Exposure(gain);
  exposure.use(meter, 0);
  return { gain, exposure };
};

test('a picture is as bright as its place asks for, and a stop is twice the light', () => {
  const { gain, exposure } = made();
  exposure.set(at(2));
  expect(gain.value.x).toBeCloseTo(4, 9);
  exposure.use(meter, 1);
  exposure.set(at(2, -2));
  expect(gain.value.x).toBeCloseTo(2, 9);
  exposure.use(null, 0);
  exposure.set(at(2));
  expect(gain.value.toArray()).toEqual([...FIRST_GAIN]);
  // A drawing is paper and ink, however dark the place is.
  exposure.use(null, null);
  exposure.set(at(2, 3));
  expect(gain.value.toArray()).toEqual([...FIRST_GAIN]);
});

test('while one moves it gets used to another light bit by bit, and comes to it; somewhere else it is there at once', () => {
  const { exposure } = made();
  exposure.set(at(0));
  const seen = Array.from({ length: 30 }, () => {
    const gain = exposure.eased(at(0.5));
    exposure.set(at(0.5), gain);
    return gain[0];
  });
  expect(seen[0]).toBeCloseTo(2 ** (0.3 * 0.5), 9);
  for (let i = 1; i < seen.length; i += 1) expect(seen[i]!).toBeGreaterThan(seen[i - 1]!);
  expect(seen.at(-1)).toBeCloseTo(2 ** 0.5, 4);
  expect(exposure.eased(at(4))[0]).toBeCloseTo(16, 9);
});

test('of moving pictures each third asks the meter; the first one after a leap does', () => {
  const { exposure } = made();
  let asked = 0;
  exposure.use({ gainAt: (place) => ((asked += 1), meter.gainAt(place)) }, 0);
  exposure.set(at(0));
  asked = 0;
  for (let i = 0; i < 9; i += 1) exposure.set(at(0.1 * i), exposure.eased(at(0.1 * i)));
  expect(asked).toBe(3);
  exposure.set(at(20), exposure.eased(at(20)));
  expect(asked).toBe(4);
  expect(exposure.eased(at(20.2))[0]).toBeCloseTo(2 ** (20 + 0.3 * 0.2), 3);
});

test('a drawing, and what is seen after it, are as they are at once', () => {
  const { exposure } = made();
  exposure.set(at(3));
  exposure.use(null, null);
  expect(exposure.eased(at(3))).toEqual([...FIRST_GAIN]);
  exposure.set(at(3), exposure.eased(at(3)));
  exposure.use(meter, 0);
  expect(exposure.eased(at(3))[0]).toBeCloseTo(8, 9);
});
