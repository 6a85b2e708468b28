import { expect, test } from '@jest/globals';
import { CONTACT_FRAGMENT, CONTACT_WAYS, contactWays } from './contact.ts';

const ways = Array.from({ length: CONTACT_WAYS }, (_, n) => [...contactWays().subarray(4 * n, 4 * n + 4)]);

test('a point is looked around from along unit vectors, never far', () => {
  for (const [x, y, z, length] of ways) {
    expect(Math.hypot(x!, y!, z!)).toBeCloseTo(1, 6);
    expect(length).toBeGreaterThan(0.03);
    expect(length).toBeLessThanOrEqual(0.4);
  }
});

test('ways are spread evenly, and no two alike', () => {
  // A surface turned anywhere: the cosines of all ways, turned to its own side, average to a half.
  for (const normal of ways) {
    const cosine = (way: number[]) => Math.abs(way[0]! * normal[0]! + way[1]! * normal[1]! + way[2]! * normal[2]!);
    expect(ways.reduce((sum, way) => sum + cosine(way), 0) / CONTACT_WAYS).toBeCloseTo(0.5, 1);
    for (const other of ways) if (other !== normal) expect(cosine(other)).toBeLessThan(0.999);
  }
});

test('the shader has room for all of them', () => {
  expect(CONTACT_FRAGMENT).toContain(`uniform vec4 ways[${CONTACT_WAYS}]`);
});
