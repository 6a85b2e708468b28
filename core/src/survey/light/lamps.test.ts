import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry, SphereGeometry, type BufferGeometry } from 'three';
import { PLAIN_MATERIAL, type SceneModel } from '../../format/index.ts';
import { modelOf, soupOf } from '../soup.fixture.ts';
import { findGlow } from './lamps.ts';

const glowing = (geometries: BufferGeometry[], emissive: [number, number, number] = [1, 0.9, 0.8]): SceneModel => ({
  ...modelOf(Float32Array.from(geometries.flatMap((geometry) => [...soupOf(geometry)]))),
  materials: [{ ...PLAIN_MATERIAL, emissive }],
});
const lampsOf = (model: SceneModel) => findGlow(model).lamps;
const totalOf = (model: SceneModel) => lampsOf(model).reduce((sum, { color }) => sum + color[0], 0);

describe('lamps', () => {
  test('a bulb is one lamp in its middle, wherever it stands on the grid and however finely it was modelled', () => {
    for (const [x, detail] of [
      [0, 6],
      [0.19, 24],
      [0.2, 12],
      [7.003, 48],
    ] as const) {
      const lamps = lampsOf(glowing([new SphereGeometry(0.06, detail, detail).translate(x, 2, -3)]));
      expect(lamps).toHaveLength(1);
      expect(lamps[0]!.position).toEqual([x, 2, -3].map((value) => expect.closeTo(value, 2)));
      expect(lamps[0]!.color[0]).toBeCloseTo(1.1, 6);
      expect(lamps[0]!.color[2]).toBeCloseTo(0.88, 6);
    }
  });

  test('two bulbs are two; a strip gives as its length does', () => {
    const bulb = (x: number) => new SphereGeometry(0.05).translate(x, 2, 0);
    expect(lampsOf(glowing([bulb(0), bulb(2)]))).toHaveLength(2);
    const strip = (length: number) => totalOf(glowing([new BoxGeometry(length, 0.02, 0.02, Math.round(length * 10))]));
    expect(strip(0.3)).toBeCloseTo(1.1, 6);
    expect(strip(12) / strip(6)).toBeGreaterThan(1.8);
    expect(strip(12)).toBeLessThan(12);
  });

  test('what is lit of a fixture gives its share, whatever else of it is: lights of switches add up', () => {
    const bulb = glowing([new SphereGeometry(0.05, 12, 8).translate(0, 2, 0)]).parts[0]!;
    const ring = glowing([new SphereGeometry(0.12, 12, 8).translate(0.1, 2, 0)]).parts[0]!;
    const panel = glowing([new PlaneGeometry(2, 2, 10, 10).rotateX(Math.PI / 2).translate(0.8, 2.2, 0)]).parts[0]!;
    const total = (parts: (typeof bulb)[], ...lit: (typeof bulb)[]) =>
      findGlow({ ...glowing([]), parts }, (part) => lit.includes(part)).lamps.reduce(
        (sum, { color }) => sum + color[0],
        0,
      );
    const lamp = [bulb, ring];
    expect(total(lamp, bulb)).toBeGreaterThan(0);
    expect(total(lamp, bulb) + total(lamp, ring)).toBeCloseTo(total(lamp, bulb, ring), 6);
    expect(total(lamp)).toBe(0);
    // A bulb beside a luminous panel is part of it, also while the panel is off.
    expect(total([bulb, panel], bulb)).toBe(total([bulb, panel], bulb, panel));
  });

  test('a luminous ceiling is a surface that shines, not a bulb for every tile', () => {
    const { lamps, isSurface } = findGlow(
      glowing([
        new PlaneGeometry(8, 8, 40, 40).rotateX(Math.PI / 2),
        new BoxGeometry(0.1, 0.1, 0.1).translate(0, -2, 0),
      ]),
    );
    expect(isSurface(1.9, 0, -3.3)).toBe(true);
    expect(isSurface(0, -2, 0)).toBe(false);
    expect(lamps).toHaveLength(1);
  });

  test('are never more than a bake can bear, and together as bright as before', () => {
    const many = Array.from({ length: 900 }, (_, i) =>
      new BoxGeometry(0.1, 0.1, 0.1).translate(1.5 * (i % 30), 3, 1.5 * Math.floor(i / 30)),
    );
    expect(lampsOf(glowing(many)).length).toBeLessThanOrEqual(128);
    expect(totalOf(glowing(many))).toBeCloseTo(900 * 1.1, 3);
  });

  test('a file’s wildest numbers light no room to white; what does not glow is none', () => {
    const wild = glowing([new SphereGeometry(0.06)], [5000, 2500, 0]);
    expect(lampsOf(wild)[0]!.color).toEqual([4.4, 2.2, 0].map((value) => expect.closeTo(value, 6)));
    expect(lampsOf(glowing([new SphereGeometry(0.06)], [0, 0, 0]))).toEqual([]);
  });
});
