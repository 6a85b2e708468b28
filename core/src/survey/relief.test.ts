import { describe, expect, test } from '@jest/globals';
import { readModel, triangleSoup } from '../format/index.ts';
import { VOLCANO, volcanoAsciiGrid } from '../format/heights.fixture.ts';
import { reliefOf, shadesOf, slopesOf, usualSlope, type Relief } from './relief.ts';

/** A plane that rises by so much along x and z. */
const plane = (dx: number, dz: number): Relief => ({
  x0: 0,
  z0: 0,
  cell: 2,
  columns: 9,
  rows: 7,
  heights: Array.from({ length: 63 }, (_, i) => dx * 2 * (i % 9) + dz * 2 * Math.floor(i / 9)),
});

// Outside check: slope and shade of a plane, by formula (Lambert's law, towards the light by its angles).
describe('relief', () => {
  test.each([
    [0, 0],
    [0.1, 0],
    [0, -0.3],
    [0.4, 0.4],
    [-0.4, -0.4],
  ])('of a plane that rises by %d and %d', (dx, dz) => {
    const [normal, light] = [
      [-dx, 1, -dz].map((v) => v / Math.sqrt(dx * dx + 1 + dz * dz)),
      [-Math.SQRT1_2 * Math.cos(Math.PI / 4), Math.sin(Math.PI / 4), -Math.SQRT1_2 * Math.cos(Math.PI / 4)],
    ] as [number[], number[]];
    const shade = normal.reduce((sum, value, k) => sum + value * light[k]!, 0) / Math.sin(Math.PI / 4);
    for (const value of slopesOf(plane(dx, dz))) expect(value).toBeCloseTo(Math.hypot(dx, dz), 5);
    expect(usualSlope(plane(dx, dz))).toBeCloseTo(Math.hypot(dx, dz), 5);
    for (const value of shadesOf(plane(dx, dz))) expect(value).toBeCloseTo(Math.max(0, shade), 5);
  });

  test('a place without height is a hole, and so is what would lean on it', () => {
    const relief = plane(0.1, 0);
    relief.heights[31] = null;
    expect([...shadesOf(relief)].filter(Number.isNaN)).toHaveLength(9);
    expect([...slopesOf(relief)].filter(Number.isNaN)).toHaveLength(9);
  });

  // Outside check: a measured hill of the R manual, 10 m a cell; heights between its points are of its own triangles.
  test('of a measured hill has its heights', async () => {
    const { soup } = triangleSoup(await readModel(volcanoAsciiGrid(), 'hill.asc'));
    const relief = reliefOf(soup)!;
    const known = relief.heights.filter((height) => height !== null);
    expect(known.length / relief.heights.length).toBeGreaterThan(0.97);
    expect(Math.max(...known)).toBeGreaterThan(Math.max(...VOLCANO.values) - 2);
    expect(Math.min(...known)).toBeLessThan(Math.min(...VOLCANO.values) + 1);
    const steepest = slopesOf(relief).reduce((most, value) => (value > most ? value : most), 0);
    expect(steepest).toBeGreaterThan(0.5);
    expect(steepest).toBeLessThan(1.5);
    expect(usualSlope(relief)).toBeGreaterThan(0.1);
    expect(usualSlope(relief)).toBeLessThan(steepest);
    expect(reliefOf(new Float32Array(0))).toBeNull();
  });
});
