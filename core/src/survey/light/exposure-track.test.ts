import { describe, expect, test } from '@jest/globals';
import type { Quaternion, Vec3 } from '../../document/index.ts';
import { ExposureTrack } from './exposure-track.ts';

const STILL: Quaternion = [0, 0, 0, 1];
/** A door: twice as long exposed on this side of it as on the other. */
const door = { gainAt: ([x]: Vec3): Vec3 => (x < 5 ? [4, 4, 4] : [1, 1, 1]) };
const walk = (loops = false) => ({
  poseAt: (time: number) => ({ position: [time, 0, 0] as Vec3, orientation: STILL }),
  duration: 10,
  loops,
});

describe('exposure along a move', () => {
  test('changes before and after a door, never at once, and comes to what is metered', () => {
    const track = new ExposureTrack(door, walk());
    expect(track.at(0)[0]).toBeCloseTo(4, 6);
    expect(track.at(10)[1]).toBeCloseTo(1, 6);
    expect(track.at(4.95)[2]).toBeCloseTo(2, 1);
    for (let t = 0; t < 10; t += 0.04)
      expect(Math.abs(Math.log2(track.at(t + 0.04)[0] / track.at(t)[0]))).toBeLessThan(2 * 0.04);
  });

  test('a loop is as light at its end as at its beginning, and as it goes over the seam', () => {
    const track = new ExposureTrack(door, walk(true));
    expect(track.at(10)).toEqual(track.at(0));
    const step = (a: number, b: number) => Math.abs(Math.log2(track.at(a)[0] / track.at(b)[0]));
    expect(step(9.9, 0)).toBeLessThan(0.2);
    // Where it does not loop its ends know nothing of each other.
    const open = new ExposureTrack(door, walk());
    expect(open.at(0)[0] / open.at(10)[0]).toBeCloseTo(4, 5);
  });

  test('a still of no length, and times before and after, are metered as they stand', () => {
    const still = new ExposureTrack(door, { ...walk(), duration: 0 });
    expect(still.at(0)[0]).toBeCloseTo(4, 9);
    expect(new ExposureTrack(door, walk()).at(-5)[0]).toBeCloseTo(4, 6);
    expect(new ExposureTrack(door, walk()).at(50)[0]).toBeCloseTo(1, 6);
  });
});
