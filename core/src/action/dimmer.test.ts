import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { DimAction } from '../document/index.ts';
import { MODEL } from '../move/kinds.fixture.ts';
import { dimmersOf, isOvershadowed, MOST_DIMMERS, SiteMotion } from './index.ts';

const dim = (change: Partial<DimAction> = {}): DimAction => ({
  kind: 'dim',
  model: MODEL,
  part: 'Hall / Pendants',
  from: 1,
  to: 0.2,
  start: 2,
  seconds: 4,
  shape: 'constant',
  repeat: 'once',
  ...change,
});
const levels = (actions: DimAction[], ...times: number[]) => times.map((time) => dimmersOf(actions)[0]!.levelAt(time));

describe('lamps that dim', () => {
  test('stay as they are found, dim evenly, and stay as they are left', () => {
    expect(levels([dim()], 0, 2, 3, 4, 6, 60)).toEqual([1, 1, 0.8, 0.6, 0.2, 0.2].map((x) => expect.closeTo(x, 9)));
    expect(levels([dim({ from: 0, to: 1 })], 0, 4, 9)).toEqual([0, 0.5, 1].map((x) => expect.closeTo(x, 9)));
  });

  test('switch all at once', () => {
    expect(levels([dim({ switches: true, to: 0 })], 1.999, 2, 9)).toEqual([1, 0, 0]);
  });

  test('go to and fro without an end', () => {
    const action = dim({ repeat: 'to and fro', to: 0 });
    expect(levels([action], 2, 6, 10, 14)).toEqual([1, 0, 1, 0].map((x) => expect.closeTo(x, 9)));
  });

  test('several actions of the same lamps follow each other, in whatever order they were made', () => {
    const up = dim({ start: 10, from: 0.2, to: 1, seconds: 2 });
    for (const actions of [
      [dim(), up],
      [up, dim()],
    ]) {
      expect(dimmersOf(actions)).toHaveLength(1);
      expect(levels(actions, 0, 9, 11, 12)).toEqual([1, 0.2, 0.6, 1].map((x) => expect.closeTo(x, 9)));
    }
  });

  test('what they give lies between what was asked for, whatever the shape', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.constantFrom<DimAction['shape']>('constant', 'ease both', 'carry'),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (from, to, shape, time) => {
          const [level] = levels([dim({ from, to, shape })], time);
          expect(level).toBeGreaterThanOrEqual(Math.min(from, to) - 1e-9);
          expect(level).toBeLessThanOrEqual(Math.max(from, to) + 1e-9);
        },
      ),
    );
  });

  test('a lamp within a group obeys whichever was named first; the other does nothing, and that can be said', () => {
    const inner = dim({ part: 'Hall / Pendants / Left' });
    expect(dimmersOf([dim(), inner]).map(({ name }) => name)).toEqual(['Hall / Pendants']);
    expect(dimmersOf([inner, dim()]).map(({ name }) => name)).toEqual(['Hall / Pendants / Left']);
    expect(isOvershadowed(inner, [dim(), inner])).toBe(true);
    expect(isOvershadowed(dim(), [dim(), inner])).toBe(false);
    // The same name in another model is another lamp.
    expect(dimmersOf([dim(), { ...inner, model: 'another' }])).toHaveLength(2);
  });

  test('more groups than are gathered are left as they are', () => {
    const many = Array.from({ length: MOST_DIMMERS + 1 }, (_, i) => dim({ part: `Lamp ${i}` }));
    expect(dimmersOf(many)).toHaveLength(MOST_DIMMERS);
    expect(isOvershadowed(many.at(-1)!, many)).toBe(true);
    expect(isOvershadowed(many[0]!, many)).toBe(false);
  });

  test('move nothing', () => {
    const lamp = { model: MODEL, name: 'Hall / Pendants', bounds: { min: [0, 0, 0], max: [1, 1, 1] } } as const;
    expect(new SiteMotion({ parts: [lamp as never], joints: [], movements: [] }, [dim()]).count).toBe(0);
  });
});
