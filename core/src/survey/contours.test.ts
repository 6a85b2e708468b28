import { describe, expect, test } from '@jest/globals';
import { readModel, triangleSoup } from '../format/index.ts';
import { VOLCANO, volcanoAsciiGrid } from '../format/heights.fixture.ts';
import { contoursOf } from './contours.ts';

describe('contour lines', () => {
  // A cone of slope 1 and height 30: the line at height h is a circle of radius 30 − h, by formula.
  test('of a cone are circles of the right size, at the interval of a map, every fifth one stronger', () => {
    const sides = 720;
    const at = (i: number) => (2 * Math.PI * (i % sides)) / sides;
    const soup = Float32Array.from({ length: sides }, (_, i) => i).reduce<number[]>((all, i) => {
      const [a, b] = [at(i), at(i + 1)];
      all.push(0, 30, 0, 30 * Math.cos(b), 0, 30 * Math.sin(b), 30 * Math.cos(a), 0, 30 * Math.sin(a));
      return all;
    }, []);
    const contours = contoursOf(Float32Array.from(soup));
    expect(contours.map(({ height }) => height).slice(0, 4)).toEqual([0, 2, 4, 6]);
    expect(contours.filter(({ index }) => index).map(({ height }) => height)).toEqual([0, 10, 20]);
    for (const { height, lines } of contours) {
      let length = 0;
      for (let i = 0; i < lines.length; i += 4) {
        length += Math.hypot(lines[i + 2]! - lines[i]!, lines[i + 3]! - lines[i + 1]!);
        expect(Math.hypot(lines[i]!, lines[i + 1]!)).toBeCloseTo(30 - height, 1);
      }
      expect(Math.abs(length - 2 * Math.PI * (30 - height))).toBeLessThan(0.1);
    }
  });

  // Outside check: Maunga Whau of the R manual; at any height the land inside the lines is what is higher in the data.
  test('of a measured hill part what is higher from what is lower', async () => {
    const model = await readModel(volcanoAsciiGrid(), 'volcano.asc');
    const { soup } = triangleSoup(model);
    const contours = contoursOf(soup);
    expect(contours.map(({ height }) => height)).toEqual(Array.from({ length: 20 }, (_, i) => 95 + 5 * i));
    const cell = 10;
    const { lines, height } = contours.find((one) => one.height === 150)!;
    for (let r = 3; r < VOLCANO.height - 3; r += 7) {
      // Along a row of the grid every crossing of the line is a change from lower to higher or back.
      const z = (r - (VOLCANO.height - 1) / 2) * cell + 0.001;
      let crossings = 0;
      for (let i = 0; i < lines.length; i += 4) if (lines[i + 1]! > z !== lines[i + 3]! > z) crossings += 1;
      let changes = 0;
      for (let c = 1; c < VOLCANO.width; c += 1) {
        const high = (k: number) => VOLCANO.values[r * VOLCANO.width + k]! > height;
        if (high(c) !== high(c - 1)) changes += 1;
      }
      expect(crossings).toBe(changes);
    }
  });

  test('level ground has none', () => {
    expect(contoursOf(Float32Array.of(0, 1, 0, 0, 1, 9, 9, 1, 0))).toEqual([]);
  });
});
