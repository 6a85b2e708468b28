import { describe, expect, test } from '@jest/globals';
import { MOST_NODES, pathSchema, type Path } from '../document/index.ts';
import { LONGEST_PATH, pathFault } from './index.ts';

const through = (places: readonly (readonly [number, number])[], closed = false): Path => ({
  closed,
  nodes: places.map(([x, z], i) => ({
    id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
    x,
    y: 0,
    z,
    kind: 'smooth',
    radius: 0.5,
  })),
});

describe('what a path can hold', () => {
  test('as many nodes as the document takes, and no more', () => {
    const many = (count: number) => through(Array.from({ length: count }, (_, i) => [i, 0] as const));
    expect(pathFault(many(MOST_NODES))).toBeNull();
    expect(pathSchema.safeParse(many(MOST_NODES)).success).toBe(true);
    expect(pathFault(many(MOST_NODES + 1))).toEqual({ rule: 'nodes', worst: MOST_NODES + 1, limit: MOST_NODES });
    expect(pathSchema.safeParse(many(MOST_NODES + 1)).success).toBe(false);
  });

  test('as long as a walk of an hour; the way back to the start counts where it is closed', () => {
    const out = [
      [0, 0],
      [0, 0.5 * LONGEST_PATH],
      [10, 0.5 * LONGEST_PATH],
    ] as const;
    expect(pathFault(through(out))).toBeNull();
    const fault = pathFault(through(out, true))!;
    expect(fault.rule).toBe('length');
    expect(fault.worst).toBeCloseTo(LONGEST_PATH + 10, 1);
    expect(pathFault(through([]))).toBeNull();
  });
});
