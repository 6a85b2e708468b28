import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, Vector3 } from 'three';
import { randomFrom } from '../random.fixture.ts';
import { cornersOf, distanceToPlanBox, hullOf, planBoxOf } from './index.ts';

describe('the upright box about points, turned as they are', () => {
  test('is that of any box which was turned in plan, wherever it stands', () => {
    const random = randomFrom(3);
    for (let n = 0; n < 200; n += 1) {
      const [long, high, short] = [1 + 3 * random(), 0.2 + 3 * random(), 0.03 + 0.8 * random()];
      const angle = 2 * Math.PI * random();
      const middle = new Vector3(100 * random(), 10 * random(), -100 * random());
      const { array } = new BoxGeometry(long, high, short)
        .rotateY(angle)
        .translate(...middle.toArray())
        .getAttribute('position');
      const box = planBoxOf(array);
      [long, high, short].forEach((value, k) => expect(box.size[k]).toBeCloseTo(value, 3));
      expect(middle.distanceTo(new Vector3(...box.middle))).toBeLessThan(1e-3);
      // Along its longer side, whichever way: rotateY takes +x to (cos, −sin) in plan.
      expect(Math.abs(box.axis[0] * Math.sin(angle) + box.axis[1] * Math.cos(angle))).toBeLessThan(0.02);
      expect(Math.max(...box.axis.map(Math.abs))).toBe(Math.max(...box.axis));
    }
  });

  test('how far a place is from it: against the nearest of many places in it', () => {
    const random = randomFrom(5);
    const { array } = new BoxGeometry(2, 1, 0.5).rotateY(0.6).getAttribute('position');
    const box = planBoxOf(array);
    const grid = [-1, -0.5, 0, 0.5, 1];
    for (let n = 0; n < 50; n += 1) {
      const at = new Vector3(random() * 6 - 3, random() * 4 - 2, random() * 6 - 3);
      const local = at.clone().applyAxisAngle(new Vector3(0, 1, 0), -0.6);
      const nearest = local.clone().clamp(new Vector3(-1, -0.5, -0.25), new Vector3(1, 0.5, 0.25));
      expect(distanceToPlanBox(box, at.toArray())).toBeCloseTo(local.distanceTo(nearest), 5);
    }
    for (const a of grid)
      expect(
        distanceToPlanBox(box, new Vector3(a, a / 2, a / 4).applyAxisAngle(new Vector3(0, 1, 0), 0.6).toArray()),
      ).toBeLessThan(1e-6);
  });

  test('a point and a line are boxes without a size', () => {
    expect(planBoxOf([1, 2, 3]).middle).toEqual([1, 2, 3]);
    expect(planBoxOf([0, 0, 0, 3, 0, 4]).size.map((value) => Number(value.toFixed(9)))).toEqual([5, 0, 0]);
    expect(hullOf([[0, 0]])).toHaveLength(0);
    expect(cornersOf({ min: [0, 0, 0], max: [1, 2, 3] }).flat()).toHaveLength(24);
  });
});
