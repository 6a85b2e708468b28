import { describe, expect, test } from '@jest/globals';
import { Vector3, type Matrix4 } from 'three';
import type { Bounds, Vec3 } from '../document/index.ts';
import { Movers, openFor, SiteMotion, type Coming } from './index.ts';

const across: Bounds = { min: [2, 0, 0], max: [2.9, 2.1, 0.05] };
const along: Bounds = { min: [0, 0, 2], max: [0.05, 2.1, 2.9] };
const part = (bounds: Bounds) => ({ model: 'a', name: 'Door leaf', bounds });
const free = (_from: Vec3, _way: Vec3, most: number) => most;
const opened = (bounds: Bounds, coming: Omit<Coming, 'at'> & Partial<Coming>, room = free) => {
  const at = bounds.min.map((value, k) => (value + bounds.max[k]!) / 2) as Vec3;
  const action = openFor(part(bounds), { at, ...coming }, room);
  const motion = new SiteMotion({ parts: [part(bounds)] }, [action]);
  const placeAt = (time: number) => {
    const out = motion.places() as [Matrix4];
    motion.place(time, out);
    return new Vector3(...bounds.min)
      .add(new Vector3(...bounds.max))
      .multiplyScalar(0.5)
      .applyMatrix4(out[0]);
  };
  return { action, placeAt, movers: new Movers([part(bounds)], motion) };
};

describe('a door that is opened for somebody', () => {
  test.each([
    ['across the way', across, [0, 1]],
    ['across the way, from behind', across, [0, -1]],
    ['along the other axis', along, [1, 0]],
    ['along the other axis, from behind', along, [-1, 0]],
  ] as [string, Bounds, [number, number]][])('swings away from them, in time: %s', (_, bounds, way) => {
    const { placeAt, action } = opened(bounds, { time: 8, way });
    const [rest, there] = [placeAt(0), placeAt(8)];
    expect((there.x - rest.x) * way[0] + (there.z - rest.z) * way[1]).toBeCloseTo(0.45, 1);
    expect(placeAt(7.4).distanceTo(there)).toBeLessThan(1e-9);
    expect(placeAt(action.start).distanceTo(rest)).toBeLessThan(1e-9);
  });

  test('hangs where it has room, and opens towards them where there is none behind', () => {
    // A cupboard behind the left end: what opens at x = 2 meets it.
    const cupboard = ([x, , z]: Vec3, [, , dz]: Vec3, most: number) => (x < 2.3 && z + dz * most > 0.1 ? 0.1 : most);
    expect(opened(across, { time: 8, way: [0, 1] }, cupboard).action.end).toBe('high');
    const wall = (_: Vec3, [, , dz]: Vec3, most: number) => (dz > 0 ? 0.2 : most);
    const { placeAt } = opened(across, { time: 8, way: [0, 1] }, wall);
    expect(placeAt(8).z).toBeLessThan(0);
  });

  test('hangs from the edge that is passed farther away', () => {
    for (const [x, end] of [
      [2.3, 'high'],
      [2.6, 'low'],
    ] as const)
      expect(opened(across, { time: 8, way: [0, 1], at: [x, 1.4, 0] }).action.end).toBe(end);
  });

  test('for who is there at once it is quick', () => {
    const { action, placeAt } = opened(across, { time: 1, way: [0, 1] });
    expect(action.start).toBe(0);
    expect(placeAt(1).z).toBeGreaterThan(0.4);
  });

  test('is in the way until it is open, as far as shoulders reach', () => {
    const { movers } = opened(across, { time: 8, way: [0, 1] });
    const inIt: Vec3 = [2.5, 1.4, 0.02];
    expect(movers.isGone(inIt, 4, 0.25)).toBe(false);
    // Just begun: the leaf has left the place, and is nearer than shoulders are wide.
    expect(movers.isGone(inIt, 6.1, 0.25)).toBe(false);
    expect(movers.isGone(inIt, 8, 0.25)).toBe(true);
    // What is beside it has nothing to do with it, nor has what is near the hinge.
    expect(movers.isGone([4, 1.4, 0.02], 8, 0.25)).toBe(false);
    expect(movers.isGone([2.1, 1.4, 0.02], 8, 0.25)).toBe(false);
  });
});
