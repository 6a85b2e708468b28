import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS, moveBodySchema, type MoveBody, type Orbit } from '../document/index.ts';
import { compileMove, VARIATIONS, varied } from './index.ts';
import { glideOf, idOf, poseOf, siteOf, travelOf } from './kinds.fixture.ts';

const site = siteOf();
const key = (n: number, time: number, value: number) => ({
  id: idOf(n),
  anchor: { by: 'time' as const, time },
  value,
  ease: 'smooth' as const,
});
const ORBIT: Orbit = {
  kind: 'orbit',
  pivot: { kind: 'point', point: [1, 2, 3] },
  start: 0.3,
  sweep: 2,
  inclination: 0.2,
  distance: { by: 'radius', radius: 4 },
  duration: 8,
  shape: 'ease both',
  lens: DEFAULT_LENS,
  tracks: { focalLength: [key(1, 0, 50), key(2, 8, 100)] },
};
const BODIES: Record<string, MoveBody> = {
  orbit: ORBIT,
  travel: travelOf([poseOf(1, 0, [0, 1, 0]), poseOf(2, 3, [4, 2, 0]), poseOf(3, 5, [4, 2, 6])]),
  glide: glideOf([
    [0, 3, 0],
    [10, 5, 2],
    [14, 4, 12],
  ]),
};
const made = (body: MoveBody) => compileMove(body, site)!;

describe.each(Object.keys(BODIES))('copies of a %s', (name) => {
  const body = BODIES[name]!;
  test('are moves that may be kept, and the given one stays as it was', () => {
    const before = JSON.stringify(body);
    for (const variation of VARIATIONS) {
      const other = varied(body, variation);
      if (other) expect(moveBodySchema.safeParse(other).success).toBe(true);
      expect(other === null).toBe(variation === 'lower eye');
    }
    expect(JSON.stringify(body)).toBe(before);
  });

  test('slower is where it was, a quarter later; quicker a fifth sooner', () => {
    for (const [variation, factor] of [
      ['slower', 1.25],
      ['quicker', 0.8],
    ] as const) {
      const [one, other] = [made(body), made(varied(body, variation)!)];
      expect(other.duration / one.duration).toBeCloseTo(factor, 2);
      for (const part of [0, 0.3, 0.5, 0.8, 1]) {
        const [a, b] = [one.sampleAt(part * one.duration), other.sampleAt(part * other.duration)];
        a.position.forEach((value, k) => expect(Math.abs(b.position[k]! - value)).toBeLessThan(0.15));
        if (a.view.kind === 'lens' && b.view.kind === 'lens')
          expect(b.view.focalLengthMm).toBeCloseTo(a.view.focalLengthMm, 6);
      }
    }
  });

  test('the other way begins where it ended, and twice the other way is the way it was', () => {
    const other = varied(body, 'the other way')!;
    const [one, back, again] = [body, other, varied(other, 'the other way')!].map(made);
    const ends = (move: typeof one) => [0, move!.duration].map((time) => move!.sampleAt(time).position);
    const [from, to] = ends(one);
    if (name !== 'orbit') {
      ends(back).forEach((position, i) =>
        position.forEach((value, k) => expect(value).toBeCloseTo((i === 0 ? to : from)![k]!, 6)),
      );
    }
    ends(again).forEach((position, i) =>
      position.forEach((value, k) => expect(value).toBeCloseTo([from, to][i]![k]!, 6)),
    );
  });

  test('another lens is another lens all the way', () => {
    const focal = (move: MoveBody, part: number) => {
      const compiled = made(move);
      const { view } = compiled.sampleAt(part * compiled.duration);
      return view.kind === 'lens' ? view.focalLengthMm : 0;
    };
    for (const part of [0, 0.5, 1]) {
      expect(focal(varied(body, 'wider lens')!, part) / focal(body, part)).toBeCloseTo(1 / 1.3, 1);
      expect(focal(varied(body, 'longer lens')!, part) / focal(body, part)).toBeCloseTo(1.3, 1);
    }
  });
});

test('an orbit the other way goes round the other way from the same place', () => {
  const [one, back] = [made(ORBIT), made(varied(ORBIT, 'the other way')!)];
  one.sampleAt(0).position.forEach((value, k) => expect(back.sampleAt(0).position[k]).toBeCloseTo(value, 9));
  expect(back.sampleAt(4).position[0]).not.toBeCloseTo(one.sampleAt(4).position[0], 1);
});

test('what would leave the limits of a move is not offered', () => {
  expect(varied({ ...ORBIT, duration: 3599 }, 'slower')).toBeNull();
  expect(varied({ ...ORBIT, duration: 0.11 }, 'quicker')).toBeNull();
  expect(varied(travelOf([]), 'slower')).toBeNull();
});
