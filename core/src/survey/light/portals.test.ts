import { describe, expect, test } from '@jest/globals';
import { BoxGeometry } from 'three';
import { ALL_LIT, type SiteLight, type Vec3 } from '../../document/index.ts';
import { PLAIN_MATERIAL, type SceneModel } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { daylight } from './daylight.ts';
import { Gatherer, LIGHT_CHANNELS } from './gather.ts';
import { LightMesh } from './light-mesh.ts';
import { findPortals } from './portals.ts';
import { RayTree } from './ray-tree.ts';

const OVERCAST: SiteLight = { sun: [0, 0.8, 0.6], sky: 'overcast', lamps: ALL_LIT };

type Box = readonly [x0: number, y0: number, z0: number, x1: number, y1: number, z1: number];

/** Walls of 0.3 m about a room of 6 × 4.5 × 2.7 m, with an opening in the southern one. */
function room(window: readonly [x0: number, x1: number, y0: number, y1: number]): Box[] {
  const [x0, x1, y0, y1] = window;
  return [
    [-0.3, -0.3, -0.3, 6.3, 0, 4.8],
    [-0.3, 2.7, -0.3, 6.3, 3, 4.8],
    [-0.3, 0, -0.3, 6.3, 2.7, 0],
    [-0.3, 0, 0, 0, 2.7, 4.5],
    [6, 0, 0, 6.3, 2.7, 4.5],
    [-0.3, 0, 4.5, x0, 2.7, 4.8],
    [x1, 0, 4.5, 6.3, 2.7, 4.8],
    ...((y0 > 0 ? [[x0, 0, 4.5, x1, y0, 4.8]] : []) as Box[]),
    ...((y1 < 2.7 ? [[x0, y1, 4.5, x1, 2.7, 4.8]] : []) as Box[]),
  ];
}
const WINDOW = [2.2, 3.1, 1, 2.1] as const;

const modelOf = (boxes: readonly Box[], albedo = 0): SceneModel => ({
  parts: boxes.map(([x0, y0, z0, x1, y1, z1]) =>
    partOf(new BoxGeometry(x1 - x0, y1 - y0, z1 - z0).translate((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2)),
  ),
  materials: [{ ...PLAIN_MATERIAL, color: [albedo, albedo, albedo], doubleSided: false }],
  textures: [],
});
const portalsOf = (boxes: readonly Box[]) => {
  const { soup } = new LightMesh(modelOf(boxes), [OVERCAST]);
  return findPortals(soup, new RayTree(soup));
};

describe('openings', () => {
  test('a window is one, looking into its room, wherever in the wall its plane was found', () => {
    const [portal, ...others] = portalsOf(room(WINDOW));
    expect(others).toEqual([]);
    const [x0, x1, y0, y1] = WINDOW;
    expect(portal!.centre[0]).toBeCloseTo((x0 + x1) / 2, 1);
    expect(portal!.centre[1]).toBeCloseTo((y0 + y1) / 2, 1);
    // In the inner plane of the wall: its reveal is seen through it.
    expect(portal!.centre[2]).toBeCloseTo(4.5, 3);
    expect(portal!.normal[2]).toBeCloseTo(-1, 6);
    // All of the opening, and hardly more: its corners are those of faces round it.
    for (const [side, length] of [
      [portal!.u, x1 - x0],
      [portal!.v, y1 - y0],
    ] as const) {
      expect(2 * Math.hypot(...side)).toBeGreaterThan(length - 1e-4);
      expect(2 * Math.hypot(...side)).toBeLessThan(length + 0.06);
    }
  });

  test('so is a door down to the floor, and a hole in the roof', () => {
    expect(portalsOf(room([2.2, 3.1, 0, 2.1]))).toHaveLength(1);
    const shut = room([3, 3, 0, 2.7]).filter((_, i) => i !== 1);
    const [y0, y1] = [2.7, 3];
    const roof: Box[] = [
      [-0.3, y0, -0.3, 2, y1, 4.8],
      [3, y0, -0.3, 6.3, y1, 4.8],
      [2, y0, -0.3, 3, y1, 2],
      [2, y0, 3, 3, y1, 4.8],
    ];
    const [light, ...others] = portalsOf([...shut, ...roof]);
    expect(others).toEqual([]);
    expect(light!.normal[1]).toBeCloseTo(-1, 6);
  });

  test('none is what leads to another room, what is shut, or a gate between two gardens', () => {
    const inner: Box[] = [
      [3, 0, 0, 3.1, 2.7, 1.5],
      [3, 0, 2.4, 3.1, 2.7, 4.5],
      [3, 2.1, 1.5, 3.1, 2.7, 2.4],
    ];
    const rooms = portalsOf([...room([4.2, 5.1, 1, 2.1]), ...inner]);
    expect(rooms.map(({ normal }) => Math.round(normal[2]))).toEqual([-1]);
    const leaf: Box = [2.1, 0.9, 4.62, 3.2, 2.2, 4.66];
    expect(portalsOf([...room(WINDOW), leaf])).toEqual([]);
    const gate: Box[] = [
      [-10, -0.2, -10, 10, 0, 10],
      [-5, 0, 0, -0.5, 2.5, 0.3],
      [0.5, 0, 0, 5, 2.5, 0.3],
      [-0.5, 2, 0, 0.5, 2.5, 0.3],
    ];
    expect(portalsOf(gate)).toEqual([]);
  });
});

/**
 * What the sky gives a place of black walls through the window, green: a plain sum over small squares of the opening, seen
 * or not past the boxes as slabs (the form factor's integral; Siegel & Howell, from memory).
 */
function skyAt(place: Vec3, normal: Vec3, boxes: readonly Box[]): number {
  const { zenith, horizon, ground } = daylight(OVERCAST);
  const [x0, x1, y0, y1] = WINDOW;
  const squares = 48;
  const area = ((x1 - x0) * (y1 - y0)) / squares ** 2;
  let sum = 0;
  for (let i = 0; i < squares; i += 1)
    for (let j = 0; j < squares; j += 1) {
      const to = [x0 + ((i + 0.5) * (x1 - x0)) / squares, y0 + ((j + 0.5) * (y1 - y0)) / squares, 4.5];
      const way = to.map((value, k) => value - place[k]!);
      const away = Math.hypot(...way);
      const d = way.map((value) => value / away);
      const falls = d[0]! * normal[0] + d[1]! * normal[1] + d[2]! * normal[2];
      if (falls <= 0 || boxes.some((box) => isStopped(place, d, box))) continue;
      const sky = d[1]! < 0 ? ground[1] : horizon[1] + (zenith[1] - horizon[1]) * d[1]!;
      sum += (sky * falls * d[2]! * area) / (Math.PI * away * away);
    }
  return sum;
}

function isStopped(place: Vec3, d: readonly number[], box: Box): boolean {
  let [enter, leave] = [1e-6, Infinity];
  place.forEach((from, k) => {
    const [s, t] = [(box[k]! - from) / d[k]!, (box[k + 3]! - from) / d[k]!];
    enter = Math.max(enter, Math.min(s, t));
    leave = Math.min(leave, Math.max(s, t));
  });
  return enter < leave;
}

describe('light through a small window', () => {
  const boxes = room(WINDOW);
  const mesh = new LightMesh(modelOf(boxes), [OVERCAST]);
  const { direct } = new Gatherer(mesh, [OVERCAST]).block(0, mesh.count);

  /** A thousandth of an open sky. */
  const LITTLE = 0.001;

  /** What falls on an inner face of the room, where it was asked for: at vertices, moved a little into their faces. */
  const asked = (part: number, axis: number) => {
    const { fine, first, inward, start } = mesh.parts[part]!;
    const { positions: p, normals } = fine;
    return [...first.keys()]
      .filter((v) => first[v] === v && normals[3 * v + axis]! > 0.9)
      .map((v) => ({
        place: [0, 1, 2].map((k) => p[3 * v + k]! + (k === axis ? 0.012 : inward[3 * v + k]!)) as Vec3,
        light: direct[0]![LIGHT_CHANNELS * (start + v) + 1]!,
      }))
      .filter(({ place: [x, y, z] }) => x > 0 && x < 6 && y > 0 && y < 2.7 && z > 0 && z < 3.5);
  };

  // Outside check: the form factor's integral, summed here over the opening itself.
  test.each([
    ['the wall before it', 2, 2, [0, 0, 1]],
    ['a wall beside it', 3, 0, [1, 0, 0]],
    ['the floor', 0, 1, [0, 1, 0]],
  ] as const)('%s gets as much as the integral over the opening says, at every place', (_, part, axis, normal) => {
    const places = asked(part, axis);
    expect(places.length).toBeGreaterThan(20);
    const off = places.map(({ place, light }) => {
      const truth = skyAt(place, normal as unknown as Vec3, boxes);
      // Where hardly anything is seen of it, it matters little how much that is.
      return Math.abs(light - truth) / Math.max(truth, LITTLE);
    });
    // Rays everywhere alone were off by more than half at every second place.
    expect(Math.max(...off)).toBeLessThan(0.2);
    expect(Math.sqrt(off.reduce((sum, value) => sum + value * value, 0) / off.length)).toBeLessThan(0.06);
  });
});
