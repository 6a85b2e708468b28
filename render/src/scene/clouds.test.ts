import { describe, expect, test } from '@jest/globals';
import { cloudField } from './clouds.ts';

const SIDE = 256;
const field = cloudField([1, 0], SIDE);
const cover = (x: number, y: number) => field[2 * (((y + SIDE) % SIDE) * SIDE + ((x + SIDE) % SIDE))]!;
const lit = (x: number, y: number) => field[2 * (((y + SIDE) % SIDE) * SIDE + ((x + SIDE) % SIDE)) + 1]!;

describe('the field of clouds', () => {
  test('is fair weather: blue sky, with clouds in it', () => {
    let covered = 0;
    for (let i = 0; i < field.length; i += 2) covered += field[i]! / 255;
    const share = covered / (SIDE * SIDE);
    expect(share).toBeGreaterThan(0.1);
    expect(share).toBeLessThan(0.5);
  });

  test('has no seam: across its edges it changes as little as anywhere else', () => {
    const step = (a: readonly [number, number], b: readonly [number, number]) => Math.abs(cover(...a) - cover(...b));
    let [seam, inside] = [0, 0];
    for (let k = 0; k < SIDE; k += 1) {
      seam = Math.max(seam, step([SIDE - 1, k], [0, k]), step([k, SIDE - 1], [k, 0]));
      inside = Math.max(inside, step([99, k], [100, k]), step([k, 99], [k, 100]));
    }
    expect(seam).toBeLessThanOrEqual(1.6 * inside);
  });

  test('is brighter on the side of the sun', () => {
    let [towards, away] = [0, 0];
    for (let y = 0; y < SIDE; y += 1)
      for (let x = 0; x < SIDE; x += 1) {
        const rising = cover(x + 4, y) - cover(x - 4, y);
        // The sun stands at +x: where cover falls that way is the rim that it meets.
        if (rising < -30) towards += lit(x, y) - 128;
        if (rising > 30) away += lit(x, y) - 128;
      }
    expect(towards).toBeGreaterThan(away);
  });

  test('is the same every time', () => {
    expect(cloudField([1, 0], 64)).toEqual(cloudField([1, 0], 64));
    expect(cloudField([1, 0], 64)).not.toEqual(cloudField([-1, 0], 64));
  });
});
