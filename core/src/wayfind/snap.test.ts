import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Bounds, PathNode } from '../document/index.ts';
import { box, footingFrom, slab } from '../move/floor-scenes.fixture.ts';
import { passageAt, snapPlace } from './index.ts';

const node = (x: number, z: number, i = 0): PathNode => ({
  id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
  x,
  y: 0,
  z,
  kind: 'smooth',
  radius: 0.5,
});
const open = footingFrom(slab(-20, 20, -20, 20, 0));
const ask = (x: number, z: number, nodes: PathNode[] = [], footing = open) =>
  snapPlace({ x, z, nodes, footing, floor: 0, reach: 0.3 });

/** A wall along x with a door of some width about a place. */
const doorway = (at: number, width: number, thick = 0.15) =>
  footingFrom([
    ...slab(-20, 20, -20, 20, 0),
    ...box(-10, at - width / 2, 0, 2.6, -thick / 2, thick / 2),
    ...box(at + width / 2, 10, 0, 2.6, -thick / 2, thick / 2),
    ...box(at - width / 2, at + width / 2, 2.1, 2.6, -thick / 2, thick / 2),
  ]);

describe('the middle of a passage', () => {
  test('any door: its middle and its width, wherever in it one points', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0.7, max: 1.6, noNaN: true }),
        fc.double({ min: -0.4, max: 0.4, noNaN: true }),
        (at, width, off) => {
          const footing = doorway(at, width);
          const found = passageAt(footing, at + off * width, 0, 0)!;
          expect(found.x).toBeCloseTo(at, 3);
          expect(found.width).toBeCloseTo(width, 3);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('a corridor, a room and the open are none', () => {
    const corridor = footingFrom([
      ...slab(-20, 20, -20, 20, 0),
      ...box(-10, 10, 0, 2.6, -0.8, -0.7),
      ...box(-10, 10, 0, 2.6, 0.7, 0.8),
    ]);
    expect(passageAt(corridor, 0, 0, 0.2)).toBeNull();
    expect(passageAt(open, 0, 0, 0)).toBeNull();
  });
});

describe('where a drawing hand is drawn to', () => {
  const nodes = [node(0, 0, 1), node(0, -5, 2), node(4, -5, 3)];

  test('earlier nodes, but not the one that it comes from', () => {
    expect(ask(0.1, -0.2, nodes)).toEqual({ x: 0, z: 0, snap: { kind: 'node', index: 0 } });
    expect(ask(4.1, -5, nodes).snap).toBeNull();
  });

  test('straight on and square to the last leg, exactly', () => {
    expect(ask(7, -5.2, nodes)).toEqual({ x: 7, z: -5, snap: { kind: 'straight' } });
    const square = ask(4.2, -2, nodes);
    expect(square).toEqual({ x: 4, z: -2, snap: { kind: 'square' } });
    expect(ask(6, -3, nodes).snap).toBeNull();
    // Back the way it came is no leg that anyone draws on purpose.
    expect(ask(1.5, -5.1, nodes).snap).toBeNull();
  });

  test('a door before a square leg', () => {
    const snap = ask(1.15, 0, [node(1.3, -4, 1), node(1.2, -2, 2)], doorway(1, 0.9));
    expect(snap.snap).toMatchObject({ kind: 'passage' });
    expect(snap.x).toBeCloseTo(1, 3);
  });
});

describe('walls and things', () => {
  const wall = footingFrom([...slab(-20, 20, -20, 20, 0), ...box(-10, 10, 0, 2.6, -4.15, -4)]);
  const kindOf = (place: ReturnType<typeof ask>) => place.snap?.kind;

  test('a usual distance from a wall, to the millimetre; elsewhere the hand is free', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -8, max: 8, noNaN: true }),
        fc.constantFrom(0.5, 0.75, 1, 1.5, 2),
        fc.double({ min: -0.07, max: 0.07, noNaN: true }),
        (x, distance, off) => {
          const near = snapPlace({ x, z: -4 + distance + off, nodes: [], footing: wall, floor: 0, reach: 0.1 });
          expect(near.snap).toEqual({ kind: 'beside', distance });
          expect(near.z).toBeCloseTo(-4 + distance, 6);
          expect(near.x).toBeCloseTo(x, 6);
        },
      ),
    );
    expect(ask(0, 0, [], wall).snap).toBeNull();
    expect(kindOf(snapPlace({ x: 0, z: -2.75, nodes: [], footing: wall, floor: 0, reach: 0.1 }))).toBeUndefined();
  });

  test('as far from it as the node before, whatever that is', () => {
    const place = snapPlace({ x: 5, z: -3.1, nodes: [node(-3, -3.13)], footing: wall, floor: 0, reach: 0.1 });
    expect(place).toEqual({
      x: expect.closeTo(5, 6),
      z: expect.closeTo(-3.13, 6),
      snap: { kind: 'beside', distance: expect.closeTo(0.87, 6) },
    });
  });

  test('in line with the middle of a thing that is near, on this floor; never on it', () => {
    const bounds: Bounds = { min: [2, 0, 2], max: [4, 0.75, 3] };
    const things = [{ name: 'Room / Table', bounds }];
    const at = (x: number, z: number, floor = 0) =>
      snapPlace({ x, z, nodes: [], footing: open, floor, reach: 0.2, things });
    expect(at(3.15, 4.5)).toEqual({ x: 3, z: 4.5, snap: { kind: 'thing', name: 'Room / Table' } });
    expect(at(0.5, 2.6)).toEqual({ x: 0.5, z: 2.5, snap: { kind: 'thing', name: 'Room / Table' } });
    for (const [x, z, floor] of [
      [3.1, 2.5, 0],
      [3.4, 4.5, 0],
      [3.1, 7, 0],
      [3.1, 4.5, 3],
    ] as const)
      expect(at(x, z, floor).snap).toBeNull();
  });
});
