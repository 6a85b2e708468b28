import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { moveBodySchema, type Walk } from '../document/index.ts';
import { footingFrom, slab, walkThrough } from './floor-scenes.fixture.ts';
import { CompiledWalk, joinWalks, splitWalk } from './index.ts';

const ground = footingFrom(slab(-50, 50, -50, 50, 0));
let serial = 0;
const newId = () => `00000000-0000-4000-9000-${String((serial += 1)).padStart(12, '0')}`;
const compile = (walk: Walk) => new CompiledWalk(walk, ground);
const node = (i: number) => `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`;

/** Straight legs, a stay and a slow place on both sides of the middle node, keys by node and by time, one gaze over it. */
const long: Walk = {
  ...walkThrough([
    [0, 0, 0],
    [6, 0, 0],
    [12, 0, 0],
    [18, 0, 0],
    [24, 0, 0],
  ]),
  pace: {
    by: 'speed',
    speed: 1,
    duration: 10,
    shape: 'constant',
    pauses: [3, 18].map((station) => ({ id: newId(), anchor: { by: 'station', station }, seconds: 2 })),
    marks: [1, 3].map((i) => ({
      id: newId(),
      anchor: { by: 'node', node: node(i), offset: 1 },
      length: 2,
      speed: 0.6,
    })),
  },
  gazeSpans: [
    {
      id: newId(),
      from: { by: 'node', node: node(1), offset: 1 },
      to: { by: 'node', node: node(3), offset: 2 },
      gaze: { kind: 'point', point: [12, 1.6, -8] },
      handOver: 0.5,
    },
  ],
  tracks: {
    lift: [
      { id: newId(), anchor: { by: 'node', node: node(1), offset: 0 }, value: 0.2, ease: 'smooth' },
      { id: newId(), anchor: { by: 'time', time: 20 }, value: 0.4, ease: 'smooth' },
    ],
  },
};

describe('a walk split at a node', () => {
  const [first, second] = splitWalk(long, compile(long), node(2))!;

  test('each part keeps what is in it, where it was', () => {
    const whole = compile(long);
    const [a, b] = [compile(first), compile(second)];
    expect(a.path.length + b.path.length).toBeCloseTo(whole.path.length, 9);
    expect([a.lostKeys, b.lostKeys]).toEqual([0, 0]);
    const at = whole.timeAt(12);
    expect(a.pace.pauses![0]!.station).toBeCloseTo(3, 9);
    expect(b.pace.pauses![0]!.station).toBeCloseTo(6, 9);
    expect(a.sampleAt(3).position).toEqual(whole.sampleAt(3).position);
    expect(second.tracks!.lift).toMatchObject([{ anchor: { by: 'time', time: 20 - at }, value: 0.4 }]);
    // A gaze over the cut is looked along on both sides.
    expect(first.gazeSpans![0]!.to).toEqual({ by: 'node', node: node(2), offset: 0 });
    expect(second.gazeSpans![0]!.from).toEqual({ by: 'node', node: node(2), offset: 0 });
    for (const part of [first, second]) expect(moveBodySchema.safeParse(part).success).toBe(true);
  });

  test('not at its ends, and not where it is closed', () => {
    expect(splitWalk(long, compile(long), node(0))).toBeNull();
    expect(splitWalk(long, compile(long), node(4))).toBeNull();
    const closed = { ...long, path: { ...long.path, closed: true } };
    expect(splitWalk(closed, compile(closed), node(2))).toBeNull();
  });

  test('joined again it goes the same way, with everything at its place', () => {
    const joined = joinWalks(first, compile(first), second, newId);
    expect(joined.path.nodes.map(({ id, x }) => [id, x])).toEqual(long.path.nodes.map(({ id, x }) => [id, x]));
    const [now, before] = [compile(joined), compile(long)];
    expect(now.path.length).toBeCloseTo(before.path.length, 9);
    expect(now.pace.pauses!.map(({ station }) => station)).toEqual(
      before.pace.pauses!.map(({ station }) => expect.closeTo(station, 6)),
    );
    expect(now.pace.marks!.map(({ from }) => from)).toEqual(
      before.pace.marks!.map(({ from }) => expect.closeTo(from, 6)),
    );
    expect(joined.tracks!.lift).toHaveLength(2);
    expect(joined.gazeSpans).toHaveLength(2);
  });
});

describe('two walks joined', () => {
  test('any two: the length is both and the gap, no id comes twice, nothing is lost', () => {
    fc.assert(
      fc.property(fc.integer({ min: -20, max: 20 }), fc.integer({ min: -20, max: 20 }), fc.boolean(), (x, z, same) => {
        const shift = (walk: Walk): Walk => ({
          ...walk,
          path: {
            ...walk.path,
            nodes: walk.path.nodes.map((one) => ({
              ...one,
              x: one.x + (same ? 24 : x),
              z: one.z + (same ? 0 : z + 0.5),
            })),
          },
        });
        const joined = joinWalks(long, compile(long), shift(long), newId);
        const all = [
          ...joined.path.nodes,
          ...joined.pace.pauses!,
          ...joined.pace.marks!,
          ...joined.gazeSpans!,
          ...joined.tracks!.lift!,
        ];
        expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
        expect(joined.path.nodes).toHaveLength(same ? 9 : 10);
        const move = compile(joined);
        expect(move.lostKeys).toBe(0);
        expect(move.pace.pauses).toHaveLength(4);
        if (same) expect(move.path.length).toBeCloseTo(48, 6);
        expect(moveBodySchema.safeParse(joined).success).toBe(true);
      }),
      { numRuns: 25 },
    );
  });
});
