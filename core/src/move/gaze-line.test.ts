import { describe, expect, test } from '@jest/globals';
import { moveBodySchema, type Gaze, type Glide, type Vec3, type Walk } from '../document/index.ts';
import { forwardOf } from '../geometry/index.ts';
import { footingFrom, slab, walkThrough } from './floor-scenes.fixture.ts';
import { glideOf, poseOf, siteOf, travelOf } from './kinds.fixture.ts';
import { middleOf, turned } from '../path/index.ts';
import { CompiledWalk, compileMove, gazesAlong, reversedWalk, splitWalk, type CompiledMove } from './index.ts';

const ground = footingFrom(slab(-50, 50, -50, 50, 0));
const id = (n: number) => `00000000-0000-4000-9000-${String(n).padStart(12, '0')}`;
const lineThrough = (places: readonly Vec3[]): Extract<Gaze, { kind: 'line' }> => ({
  kind: 'line',
  path: {
    nodes: places.map(([x, y, z], n) => ({ id: id(n), x, y, z, kind: 'corner', radius: 0 })),
    closed: false,
  },
});
/** Beside the walk below, from eye height up to three metres. */
const line = lineThrough([
  [0, 1.6, -6],
  [12, 3, -6],
]);
const even: Walk['pace'] = { by: 'speed', speed: 1, duration: 10, shape: 'constant' };
const walkOf = (change: Partial<Walk>): Walk => ({
  ...walkThrough([
    [0, 0, 0],
    [6, 0, 0],
    [12, 0, 0],
  ]),
  pace: even,
  ...change,
});
const compile = (walk: Walk) => new CompiledWalk(walk, ground);

/** How far what is looked at passes the line between where it should be and the eye, radians. */
function off(move: CompiledMove, time: number, target: Vec3): number {
  const { position, orientation } = move.sampleAt(time);
  const way = target.map((value, k) => value - position[k]!) as Vec3;
  const length = Math.hypot(...way);
  const ahead = forwardOf(orientation);
  return Math.acos(
    Math.min(
      1,
      way.reduce((sum, value, k) => sum + (value / length) * ahead[k]!, 0),
    ),
  );
}
/** On the line above at a part of it, by hand: its slope is even but for rounding at its level ends. */
const onLine = (part: number): Vec3 => [12 * part, 1.6 + 1.4 * (3 * part ** 2 - 2 * part ** 3), -6];

describe('a gaze along a line', () => {
  const move = compile(walkOf({ gaze: line }));

  test('goes along it evenly while the walk lasts, from its beginning to its end', () => {
    for (const part of [0, 0.1, 0.35, 0.5, 0.8, 1])
      expect(off(move, part * move.duration, onLine(part))).toBeLessThan(0.01);
  });

  test('through a stay the eye goes on', () => {
    const pauses = [{ id: id(60), anchor: { by: 'station' as const, station: 6 }, seconds: 4 }];
    const stays = compile(walkOf({ gaze: line, pace: { ...even, pauses } }));
    const [early, late] = [stays.duration / 2 - 1.5, stays.duration / 2 + 1.5];
    expect(
      Math.hypot(...stays.sampleAt(early).position.map((v, k) => v - stays.sampleAt(late).position[k]!)),
    ).toBeLessThan(0.01);
    for (const time of [early, late]) expect(off(stays, time, onLine(time / stays.duration))).toBeLessThan(0.01);
  });

  test('for a while: from the beginning of its span to the end of it, held where in the frame it is to be', () => {
    const gazeSpans = [
      {
        id: id(50),
        from: { by: 'time' as const, time: 3 },
        to: { by: 'time' as const, time: 9 },
        gaze: line,
        handOver: 0.5,
      },
    ];
    const spanned = compile(walkOf({ gazeSpans }));
    for (const time of [4, 6, 8]) expect(off(spanned, time, onLine((time - 3) / 6))).toBeLessThan(0.01);
    expect(spanned.channels.find((one) => one.id === 'gaze')!.items![0]!.about).toBe('Along a line');
    const aside = compile(walkOf({ gaze: { ...line, place: [0.5, 0] } }));
    expect(off(aside, aside.duration / 2, onLine(0.5))).toBeGreaterThan(0.1);
  });

  test('reversed, the walk sees the same from the same places; twice, it is what it was', () => {
    const walk = walkOf({ gaze: line });
    const back = compile(reversedWalk(walk));
    for (const part of [0.1, 0.4, 0.9]) {
      const [there, again] = [move.sampleAt(part * move.duration), back.sampleAt((1 - part) * back.duration)];
      there.orientation.forEach((value, k) => expect(again.orientation[k]).toBeCloseTo(value, 4));
    }
    expect(reversedWalk(reversedWalk(walk))).toEqual(walk);
  });

  test('split at a node, both parts look where the whole did', () => {
    const [first, second] = splitWalk(walkOf({ gaze: line }), move, walkOf({}).path.nodes[1]!.id)!;
    const [a, b] = [compile(first), compile(second)];
    expect(moveBodySchema.safeParse(first).success && moveBodySchema.safeParse(second).success).toBe(true);
    for (const part of [0.2, 0.45]) expect(off(a, part * move.duration, onLine(part))).toBeLessThan(0.02);
    for (const part of [0.55, 0.9]) expect(off(b, part * move.duration - a.duration, onLine(part))).toBeLessThan(0.02);
  });

  test('what all nodes are at is looked at; a closed way does not pretend to end as it began', () => {
    const still = compile(
      walkOf({
        gaze: lineThrough([
          [5, 1, -5],
          [5, 1, -5],
        ]),
      }),
    );
    expect(off(still, 4, [5, 1, -5])).toBeLessThan(0.01);
    const { path } = walkThrough([
      [0, 0, 0],
      [6, 0, 0],
      [6, 0, 6],
    ]);
    const round = walkOf({ path: { ...path, closed: true } });
    expect(compile(round).loops).toBe(true);
    expect(compile({ ...round, gaze: line }).loops).toBe(false);
    expect(
      moveBodySchema.safeParse({ ...round, gaze: { kind: 'line', path: { nodes: [], closed: false } } }).success,
    ).toBe(false);
  });

  test('whatever the kind: a glide and a travel look along it too', () => {
    const glide: Glide = {
      ...glideOf([
        [0, 2, 0],
        [12, 2, 0],
      ]),
      gaze: line,
    };
    const travel = travelOf([poseOf(1, 0, [0, 2, 0]), poseOf(2, 8, [12, 2, 0])], { gaze: line });
    for (const body of [glide, travel]) {
      const made = compileMove(body, siteOf({}))!;
      for (const part of [0, 0.25, 0.75, 1]) expect(off(made, part * made.duration, onLine(part))).toBeLessThan(0.03);
    }
  });
});

describe('what is looked at goes along when the whole path is moved', () => {
  const gazes: Gaze[] = [
    { kind: 'point', point: [6, 1.2, -5] },
    line,
    { kind: 'bearing', pan: 0.4, tilt: 0.1 },
    { kind: 'ahead', distance: 2 },
  ];
  test.each(gazes)('every sample is moved rigidly: $kind', (gaze) => {
    const walk = walkOf({ gaze });
    const angle = 0.7;
    const about = middleOf(walk.path.nodes);
    const turnedWalk = gazesAlong({ ...walk, path: turned(walk.path, angle, () => 0) }, { about, angle });
    const nodes = turnedWalk.path.nodes.map((node) => ({ ...node, x: node.x + 3, z: node.z - 2 }));
    const moved = gazesAlong({ ...turnedWalk, path: { ...turnedWalk.path, nodes } }, { dx: 3, dz: -2 });
    const [was, now] = [compile(walk), compile(moved)];
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    for (const part of [0, 0.3, 0.6, 1]) {
      const [a, b] = [was.sampleAt(part * was.duration), now.sampleAt(part * now.duration)];
      const [dx, dz] = [a.position[0] - about.x, a.position[2] - about.z];
      expect(b.position[0]).toBeCloseTo(about.x + c * dx + s * dz + 3, 6);
      expect(b.position[2]).toBeCloseTo(about.z - s * dx + c * dz - 2, 6);
      const [fa, fb] = [forwardOf(a.orientation), forwardOf(b.orientation)];
      expect(fb[0]).toBeCloseTo(c * fa[0] + s * fa[2], 4);
      expect(fb[1]).toBeCloseTo(fa[1], 4);
    }
  });

  test('a thing that is looked at stays where it is', () => {
    const gaze: Gaze = { kind: 'object', model: id(1), name: 'Table', point: [1, 1, 1], centre: [1, 1, 1] };
    expect(gazesAlong(walkOf({ gaze }), { dx: 5, angle: 1 }).gaze).toEqual(gaze);
  });
});
