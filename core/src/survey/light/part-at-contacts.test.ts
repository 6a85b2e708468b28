import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PLAIN_MATERIAL, type SceneMaterial, type SceneModel, type ScenePart } from '../../format/index.ts';
import { cornerNormal } from '../../geometry/index.ts';
import { bakeLight } from './bake.ts';
import { partAtContacts } from './part-at-contacts.ts';
import { StandingFaces } from './standing.ts';
import { subdivide } from './subdivide.ts';

const PLAIN: SceneMaterial = { ...PLAIN_MATERIAL, doubleSided: false };

type Vec = readonly [number, number, number];

/** A box with faces that look outwards. @param turn about the vertical axis, radians */
function box(name: string, min: Vec, max: Vec, turn = 0): ScenePart {
  const [positions, normals, indices]: [number[], number[], number[]] = [[], [], []];
  const put = ([x, y, z]: Vec): number[] => [
    x * Math.cos(turn) + z * Math.sin(turn),
    y,
    z * Math.cos(turn) - x * Math.sin(turn),
  ];
  for (let axis = 0; axis < 3; axis += 1)
    for (const end of [0, 1]) {
      const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
      const first = positions.length / 3;
      for (const [a, b] of [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ] as const) {
        const corner: [number, number, number] = [0, 0, 0];
        corner[axis] = (end ? max : min)[axis]!;
        corner[u] = (a ? max : min)[u]!;
        corner[v] = (b ? max : min)[v]!;
        positions.push(...put(corner));
        const normal: [number, number, number] = [0, 0, 0];
        normal[axis] = end ? 1 : -1;
        normals.push(...put(normal));
      }
      const order = end ? [0, 1, 2, 0, 2, 3] : [0, 2, 1, 0, 3, 2];
      indices.push(...order.map((k) => first + k));
    }
  return {
    name,
    material: 0,
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    uvs: null,
    light: null,
    indices: Uint32Array.from(indices),
  };
}
const modelOf = (...parts: ScenePart[]): SceneModel => ({ parts, materials: [PLAIN], textures: [] });

/** Triangles of a part that look up at a height. */
function* onTop({ positions: p, indices }: ScenePart, y: number) {
  const normal = new Float64Array(3);
  for (let t = 0; t < indices.length; t += 3) {
    const corners = [0, 1, 2].map((c) => indices[t + c]!);
    cornerNormal(p, 3 * corners[0]!, 3 * corners[1]!, 3 * corners[2]!, normal);
    if (normal[1]! <= 0 || corners.some((v) => Math.abs(p[3 * v + 1]! - y) > 1e-5)) continue;
    yield { corners, xs: corners.map((v) => p[3 * v]!), area: normal[1]! / 2 };
  }
}

const SLAB = box('Slab', [0, -0.2, 0], [8, 0, 6]);
const cut = (slab: ScenePart, ...others: ScenePart[]) =>
  partAtContacts(subdivide(slab, 0.7), new StandingFaces(modelOf(slab, ...others)));

describe('a floor on which walls stand', () => {
  test.each([
    ['stands on it', 0],
    ['ends in it', -0.1],
    ['ends a centimetre over it', 0.01],
  ])('is cut along both faces of a wall that %s', (_, from) => {
    const { part, sides } = cut(SLAB, box('Wall', [3, from, 0], [3.12, 2.7, 6]));
    let [area, under] = [0, 0];
    for (const { corners, xs, area: own } of onTop(part, 0)) {
      const middle = (xs[0]! + xs[1]! + xs[2]!) / 3;
      const beneath = middle > 3 && middle < 3.12;
      // None reaches from one room into the other, or under the wall.
      for (const x of xs)
        expect(beneath ? x > 3 - 1e-4 && x < 3.12 + 1e-4 : x < 3 + 1e-4 || x > 3.12 - 1e-4).toBe(true);
      expect(corners.map((v) => sides[v])).toEqual(beneath ? [1, 1, 1] : [0, 0, 0]);
      area += own;
      if (beneath) under += own;
    }
    expect(area).toBeCloseTo(48, 4);
    expect(under).toBeCloseTo(0.12 * 6, 4);
  });

  test('so is a ceiling over a wall with a door in it, also over the door', () => {
    const ceiling = box('Ceiling', [0, 2.5, 0], [8, 2.7, 6]);
    const wall = [
      box('Wall', [3, 0, 0], [3.12, 2.5, 2]),
      box('Over the door', [3, 2.1, 2], [3.12, 2.5, 2.9]),
      box('Wall', [3, 0, 2.9], [3.12, 2.5, 6]),
    ];
    // One body, as a program writes it.
    const [a, b, c] = wall as [ScenePart, ScenePart, ScenePart];
    const whole: ScenePart = {
      ...a,
      positions: Float32Array.from([...a.positions, ...b.positions, ...c.positions]),
      normals: Float32Array.from([...a.normals, ...b.normals, ...c.normals]),
      indices: Uint32Array.from([
        ...a.indices,
        ...[...b.indices].map((v) => v + 24),
        ...[...c.indices].map((v) => v + 48),
      ]),
    };
    const { part } = cut(ceiling, whole);
    const p = part.positions;
    for (let t = 0; t < part.indices.length; t += 3) {
      const corners = [0, 1, 2].map((k) => part.indices[t + k]!);
      if (corners.some((v) => Math.abs(p[3 * v + 1]! - 2.5) > 1e-5)) continue;
      const xs = corners.map((v) => p[3 * v]!);
      expect(Math.min(...xs) < 3 - 1e-3 && Math.max(...xs) > 3 + 1e-3).toBe(false);
    }
  });

  test('is left whole by posts, tables and what hangs over it', () => {
    const alone = subdivide(SLAB, 0.7);
    const others = [
      box('Post', [2, 0, 2], [2.1, 2.7, 2.1]),
      box('Table', [4, 0, 2], [5.6, 0.75, 2.8]),
      box('Hood', [5, 1.2, 4], [7, 3, 5]),
    ];
    expect(cut(SLAB, ...others).part.indices.length).toBe(alone.indices.length);
  });

  test('keeps its area and has no gap, however walls stand on it', () => {
    const wall = fc.record({
      x: fc.double({ min: -3, max: 3, noNaN: true }),
      z: fc.double({ min: -2, max: 2, noNaN: true }),
      turn: fc.double({ min: 0, max: Math.PI, noNaN: true }),
      thick: fc.double({ min: 0.06, max: 0.5, noNaN: true }),
    });
    const floor = box('Floor', [-4, -0.2, -3], [4, 0, 3]);
    fc.assert(
      fc.property(fc.array(wall, { minLength: 1, maxLength: 4 }), (walls) => {
        const bodies = walls.map(({ x, z, turn, thick }) =>
          box('Wall', [x - thick / 2, 0, z - 2], [x + thick / 2, 2.6, z + 2], turn),
        );
        const { part } = cut(floor, ...bodies);
        const p = part.positions;
        const keyOf = (v: number) => [0, 1, 2].map((k) => Math.round(p[3 * v + k]! * 5000)).join();
        /** How often an edge is gone along, one way less the other: nothing but closed bodies sum up to none. */
        const edges = new Map<string, number>();
        let area = 0;
        for (const one of onTop(part, 0)) area += one.area;
        for (let t = 0; t < part.indices.length; t += 3)
          for (let c = 0; c < 3; c += 1) {
            const [a, b] = [keyOf(part.indices[t + c]!), keyOf(part.indices[t + ((c + 1) % 3)]!)];
            const [key, way] = a < b ? [`${a} ${b}`, 1] : [`${b} ${a}`, -1];
            if (a !== b) edges.set(key, (edges.get(key) ?? 0) + way);
          }
        expect(area).toBeCloseTo(48, 3);
        expect([...edges.values()].filter((sum) => sum !== 0)).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });
});

test('light ends at a wall: the floor of a dark room beside a bright one is dark to its foot', () => {
  // A long box, open to the sky at one end, and a wall across it.
  const model = modelOf(
    box('Floor', [0, -0.2, 0], [8, 0, 4]),
    box('Ceiling', [0, 2.6, 0], [8, 2.8, 4]),
    box('Side', [0, 0, -0.2], [8, 2.6, 0]),
    box('Other side', [0, 0, 4], [8, 2.6, 4.2]),
    box('End', [7.9, 0, 0], [8.1, 2.6, 4]),
    box('Wall', [2.3, 0, 0], [2.4, 2.6, 4]),
  );
  const lit = bakeLight(model);
  /** Light of a surface between its vertices, as it is drawn. */
  const lightAt = (name: string, y: number, x: number, z: number): number => {
    const { positions: p, indices, light } = lit.parts.find((part) => part.name === name)!;
    for (let t = 0; t < indices.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => indices[t + k]!) as [number, number, number];
      if ([a, b, c].some((v) => Math.abs(p[3 * v + 1]! - y) > 1e-4)) continue;
      const at = (v: number) => [p[3 * v]! - x, p[3 * v + 2]! - z] as const;
      const turn = (u: readonly [number, number], v: readonly [number, number]) => u[0] * v[1] - u[1] * v[0];
      const shares = [turn(at(b), at(c)), turn(at(c), at(a)), turn(at(a), at(b))] as const;
      const whole = shares[0] + shares[1] + shares[2];
      if (Math.abs(whole) < 1e-9 || shares.some((share) => share / whole < -1e-6)) continue;
      return [a, b, c].reduce((sum, v, k) => sum + (light!.ambient[3 * v + 1]! * shares[k]!) / whole, 0);
    }
    throw new Error('There is no surface.');
  };
  const across = Array.from({ length: 18 }, (_, i) => 0.3 + 0.2 * i);
  for (const [name, y] of [
    ['Floor', 0],
    ['Ceiling', 2.6],
  ] as const) {
    const bright = Math.min(...across.map((z) => lightAt(name, y, 2.1, z)));
    const dark = Math.max(...across.map((z) => lightAt(name, y, 2.44, z)));
    expect(bright).toBeGreaterThan(4 * dark);
  }
});
