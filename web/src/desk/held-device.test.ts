import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { gamepad, simulatedHandheld } from './held-device.ts';

const plug = (axes: readonly number[] | null) => {
  const pads = axes ? [{ connected: true, axes }] : [null];
  Object.defineProperty(navigator, 'getGamepads', { configurable: true, value: jest.fn(() => pads) });
};
afterEach(() => plug(null));

describe('what is held in the hand', () => {
  test('a gamepad: the left stick walks, the right one looks, one that is let go of wants nothing', () => {
    plug([0, 0, 0, 0]);
    expect(gamepad.read(0)).toBeNull();
    plug([0.08, -0.05, 0.1, 0]);
    expect(gamepad.read(0)).toBeNull();
    plug([0.5, -1, 0.25, 0.5]);
    expect(gamepad.read(0)).toEqual({ forward: 1, right: 0.5, left: -0.25, up: -0.5 });
    plug(null);
    expect(gamepad.read(0)).toBeNull();
  });

  test('the simulated handheld walks, stops, and shakes no more than a hand', () => {
    const wishes = Array.from({ length: 900 }, (_, i) => simulatedHandheld.read(i / 30)!);
    expect(wishes.some(({ forward }) => forward > 0.5)).toBe(true);
    expect(wishes.some(({ forward }) => forward === 0)).toBe(true);
    const most = Math.max(...wishes.map(({ shake }) => Math.hypot(shake!.x, shake!.y, shake!.z)));
    expect(most).toBeGreaterThan(0.003);
    expect(most).toBeLessThan(0.02);
  });
});
