import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Quaternion } from 'three';
import { checkMove, mended } from '../check/index.ts';
import {
  FIRST_LIMITS,
  FIRST_WALKER,
  type Key,
  type Orbit,
  type Travel,
  type TravelPose,
  type Vec3,
} from '../document/index.ts';
import { anglesOf } from '../geometry/index.ts';
import { idOf, newId, orbitOf, poseOf, siteOf, travelOf } from './kinds.fixture.ts';
import {
  appendPose,
  compileMove,
  type CompiledMove,
  copyPoses,
  holdPose,
  insertPose,
  mirrorPoses,
  orbitToTravel,
  prependPose,
  removePose,
  returnToStart,
  SAMPLE_STRIDE,
  shiftPoses,
  slowerSpans,
  stretchPoses,
  travelToGlide,
} from './index.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const place = fc.tuple(number(-30, 30), number(0, 20), number(-30, 30));
const angles = fc.tuple(number(-3, 3), number(-1.4, 1.4), number(-0.5, 0.5));
const randomPoses: fc.Arbitrary<TravelPose[]> = fc
  .array(fc.tuple(number(0.4, 6), fc.oneof(fc.constant(0), number(0.1, 3)), place, angles), {
    minLength: 2,
    maxLength: 9,
  })
  .map((list) => {
    let time = 0;
    return list.map(([gap, hold, position, turn], i) => {
      if (i > 0) time += gap;
      const pose = poseOf(i + 1, time, position, turn, { hold });
      time += hold;
      return pose;
    });
  });
/** As people compose it: it goes on over the plan, and turns no faster than one can look. */
const roundTrip: fc.Arbitrary<TravelPose[]> = fc
  .array(fc.tuple(number(2, 6), fc.oneof(fc.constant(0), number(0.5, 3)), number(2, 9), number(-2, 2), number(-1, 1)), {
    minLength: 2,
    maxLength: 9,
  })
  .map((list) => {
    let [time, x, y, z, way] = [0, 0, 2, 0, 0];
    return list.map(([gap, hold, leg, rise, turn], i) => {
      if (i > 0) time += gap;
      way += turn;
      [x, y, z] = [x - leg * Math.sin(way), y + rise, z - leg * Math.cos(way)];
      const pose = poseOf(i + 1, time, [x, y, z], [0.5 * way, 0.2 * rise, 0], { hold });
      time += hold;
      return pose;
    });
  });
const turnings = fc.constantFrom('level' as const, 'free' as const);
const played = (body: Travel) => compileMove(body, siteOf())!;
const apart = (a: readonly number[], b: readonly number[]) =>
  new Quaternion().fromArray(a).angleTo(new Quaternion().fromArray(b));

describe('a travel', () => {
  test('passes every pose at its time, and stays where it is to stay (500 random sets)', () => {
    fc.assert(
      fc.property(
        randomPoses,
        turnings,
        fc.constantFrom('rest' as const, 'running' as const),
        (poses, turning, ends) => {
          const move = played(travelOf(poses, { turning, ends }));
          for (const { time, hold, position, orientation } of poses)
            for (const part of hold > 0 ? [0, 0.37, 1] : [0]) {
              const sample = move.sampleAt(time + part * hold);
              expect(Math.hypot(...sample.position.map((value, k) => value - position[k]!))).toBeLessThan(1e-9);
              expect(apart(sample.orientation, orientation)).toBeLessThan(1e-6);
            }
        },
      ),
      { numRuns: 500 },
    );
  });

  test('never goes beyond two neighbours in any axis', () => {
    fc.assert(
      fc.property(randomPoses, number(0, 1), (poses, part) => {
        const move = played(travelOf(poses, { ends: 'running' }));
        for (let i = 0; i + 1 < poses.length; i += 1) {
          const [a, b] = [poses[i]!, poses[i + 1]!];
          const from = a.time + a.hold;
          const { position } = move.sampleAt(from + part * (b.time - from));
          position.forEach((value, k) => {
            expect(value).toBeGreaterThanOrEqual(Math.min(a.position[k]!, b.position[k]!) - 1e-9);
            expect(value).toBeLessThanOrEqual(Math.max(a.position[k]!, b.position[k]!) + 1e-9);
          });
        }
      }),
      { numRuns: 500 },
    );
  });

  test('turns without a flip, and its speed and turn rate do not jump', () => {
    fc.assert(
      fc.property(randomPoses, turnings, (poses, turning) => {
        const move = played(travelOf(poses, { turning }));
        /** By how much speed and turn rate change at most from one step to the next. */
        const worstAt = (step: number): [number, number] => {
          const count = Math.floor(move.duration / step);
          const out = new Float64Array(SAMPLE_STRIDE * (count + 1));
          move.fill(
            Float64Array.from({ length: count + 1 }, (_, i) => i * step),
            out,
          );
          const at = (i: number, k: number) => out[i * SAMPLE_STRIDE + k]!;
          const worst: [number, number] = [0, 0];
          for (let i = 0; i + 2 <= count; i += 1)
            for (const [k, from, to] of [
              [0, 0, 3],
              [1, 3, 7],
            ] as const) {
              let sum = 0;
              for (let n = from; n < to; n += 1) sum += (at(i + 2, n) - 2 * at(i + 1, n) + at(i, n)) ** 2;
              worst[k] = Math.max(worst[k], Math.sqrt(sum) / step);
            }
          return worst;
        };
        // What is continuous changes by less over a shorter step; a jump, or a flip of the sign, stays as large.
        const [long, short] = [worstAt(1 / 240), worstAt(1 / 960)];
        for (const k of [0, 1] as const) expect(short[k]).toBeLessThan(0.5 * long[k] + 1e-3);
      }),
      { numRuns: 25 },
    );
  });

  test('that is level keeps its horizon level, whatever it passes', () => {
    const poses = [
      poseOf(1, 0, [0, 2, 0], [0.3, 0.5, 0]),
      poseOf(2, 2, [4, 3, 1], [2.6, -0.9, 0]),
      poseOf(3, 5, [1, 1, 1], [-2.9, 0.2, 0]),
    ];
    const move = played(travelOf(poses));
    for (let time = 0; time <= 5; time += 0.1)
      expect(Math.abs(anglesOf(move.sampleAt(time).orientation).roll)).toBeLessThan(1e-9);
  });

  test('two poses alone are joined as three.js would turn between them, in the middle', () => {
    const poses = [poseOf(1, 0, [0, 2, 0], [0.3, 0.5, 0.4]), poseOf(2, 4, [4, 3, 1], [2.1, -0.9, -0.2])];
    const move = played(travelOf(poses, { turning: 'free' }));
    const reference = new Quaternion(...poses[0]!.orientation).slerp(new Quaternion(...poses[1]!.orientation), 0.5);
    expect(apart(move.sampleAt(2).orientation, reference.toArray())).toBeLessThan(1e-9);
    expect(move.sampleAt(2).position).toEqual([2, 2.5, 0.5]);
  });

  test('goes straight where it is told to, from rest to rest', () => {
    const poses = [
      poseOf(1, 0, [0, 0, 0], undefined, { span: 'straight' }),
      poseOf(2, 2, [4, 2, -6]),
      poseOf(3, 4, [9, 1, 3]),
    ];
    const move = played(travelOf(poses, { ends: 'running' }));
    for (let time = 0; time <= 2; time += 0.1) {
      const [x, y, z] = move.sampleAt(time).position;
      expect(y).toBeCloseTo(x / 2, 9);
      expect(z).toBeCloseTo(-1.5 * x, 9);
    }
    const after = move.sampleAt(2 + 1e-4).position;
    expect(Math.hypot(...after.map((value, k) => value - [4, 2, -6][k]!))).toBeLessThan(1e-5);
  });

  test('round its subject keeps its distance between poses that are equally far', () => {
    const round = (n: number, time: number, angle: number) =>
      poseOf(n, time, [1 + 5 * Math.sin(angle), 2, 2 + 5 * Math.cos(angle)], [angle, 0, 0], { span: 'round' });
    const poses = [round(1, 0, 0), round(2, 3, 2), round(3, 5, 2.9), round(4, 8, 5)];
    const move = played(travelOf(poses, { subject: [1, 0, 2], ends: 'running' }));
    for (let time = 0; time <= 8; time += 0.05) {
      const [x, y, z] = move.sampleAt(time).position;
      expect(Math.hypot(x - 1, z - 2)).toBeCloseTo(5, 9);
      expect(y).toBe(2);
    }
  });

  test('at even speed goes at one speed from stay to stay', () => {
    const poses = [
      poseOf(1, 0, [0, 2, 0]),
      poseOf(2, 1, [1, 2, 0]),
      poseOf(3, 6, [12, 2, 3], undefined, { hold: 2 }),
      poseOf(4, 12, [14, 6, 9]),
    ];
    const move = played(travelOf(poses, { even: true, ends: 'running' }));
    const pace = move.channels.find(({ id }) => id === 'pace')!;
    expect(pace.at(7)).toBeCloseTo(0, 6);
    expect(move.sampleAt(6).position[0]).toBeCloseTo(12, 6);
    const whole = played(travelOf(poses.slice(0, 2).concat(poseOf(3, 6, [12, 2, 3])), { even: true, ends: 'running' }));
    const even = whole.channels.find(({ id }) => id === 'pace')!;
    for (const time of [1, 2, 3, 4, 5]) expect(even.at(time)).toBeCloseTo(even.at(2.5), 1);
  });

  test('of one pose stands there, and of none is nothing', () => {
    expect(played(travelOf([poseOf(1, 0, [1, 2, 3])])).sampleAt(0.5).position).toEqual([1, 2, 3]);
    expect(compileMove(travelOf([]), siteOf())).toBeNull();
  });
});

describe('poses in time', () => {
  const poses = [0, 2, 5, 9].map((time, i) => poseOf(i + 1, time, [i, 0, 0], undefined, i === 2 ? { hold: 1 } : {}));
  const times = (list: readonly TravelPose[]) => list.map(({ time }) => time);

  test('are moved with what follows, or between their neighbours', () => {
    expect(times(shiftPoses(poses, [idOf(2)], 1.5, true))).toEqual([0, 3.5, 6.5, 10.5]);
    expect(times(shiftPoses(poses, [idOf(2)], 1.5, false))).toEqual([0, 3.5, 5, 9]);
    const held = times(shiftPoses(poses, [idOf(3)], 7, false));
    expect(held[2]).toBeLessThan(8);
    expect(held[2]).toBeGreaterThan(7.9);
    expect(times(shiftPoses(poses, [idOf(2)], -9, true))[1]).toBeGreaterThan(0);
  });

  test('go back to where they were, to the last digit', () => {
    fc.assert(
      fc.property(randomPoses, number(0.05, 20), fc.nat(), (list, by, at) => {
        const id = list[at % list.length]!.id;
        const there = shiftPoses(list, [id], by, true);
        const back = shiftPoses(there, [id], -by, true);
        back.forEach((pose, i) => expect(pose.time).toBeCloseTo(list[i]!.time, 5));
        const mirrored = mirrorPoses(
          mirrorPoses(
            list,
            list.map((pose) => pose.id),
          ),
          list.map((pose) => pose.id),
        );
        mirrored.forEach((pose, i) => {
          expect(pose.id).toBe(list[i]!.id);
          expect(pose.time).toBeCloseTo(list[i]!.time, 5);
        });
      }),
    );
  });

  test('are stretched, held, copied, returned to and taken away', () => {
    expect(times(stretchPoses(poses, 2, 6, 2))).toEqual([0, 2, 8, 14 - 1]);
    expect(stretchPoses(poses, 2, 6, 2)[2]!.hold).toBe(2);
    expect(times(holdPose(poses, idOf(2), 3))).toEqual([0, 2, 8, 12]);
    expect(times(holdPose(holdPose(poses, idOf(2), 3), idOf(2), 0))).toEqual(times(poses));
    const copied = copyPoses(poses, [idOf(2), idOf(3)], 9, newId);
    expect(times(copied)).toEqual([0, 2, 5, 9, 12, 15]);
    expect(new Set(copied.map(({ id }) => id)).size).toBe(6);
    expect(returnToStart(poses, newId).at(-1)!.position).toEqual(poses[0]!.position);
    expect(times(removePose(poses, idOf(2)))).toEqual([0, 5, 9]);
  });

  test('are composed backwards: each before the rest, which comes later', () => {
    const last = poseOf(1, 0, [9, 0, 0], undefined, { hold: 2 });
    const composed = prependPose(prependPose([last], poseOf(2, 0, [5, 0, 0]), 4), poseOf(3, 0, [0, 0, 0]), 4);
    expect(times(composed)).toEqual([0, 4, 8]);
    expect(played(travelOf(composed)).duration).toBe(10);
    expect(times(appendPose(composed, poseOf(4, 0, [1, 1, 1])))).toEqual([0, 4, 8, 13]);
    expect(times(insertPose(composed, poseOf(5, 6, [7, 0, 0])))).toEqual([0, 4, 6, 8]);
    expect(insertPose(composed, poseOf(6, 4.001, [7, 1, 0]))).toHaveLength(3);
  });

  test('of a span that is too hasty get more time, and what follows comes later', () => {
    const slower = slowerSpans(travelOf(poses), 2.5, 4, 2);
    expect(times(slower.poses)).toEqual([0, 2, 8, 12]);
  });
});

describe('another kind of the same', () => {
  test('an orbit as a travel gives its pictures', () => {
    for (const change of [{}, { shape: 'ease both' as const }, { sweep: -2.5, rise: 3 }, { sweep: 0.4, widens: 0.5 }]) {
      const orbit = orbitOf(change);
      const before = compileMove(orbit, siteOf())!;
      const after = played(orbitToTravel(orbit, before, newId));
      expect(after.duration).toBeCloseTo(before.duration, 6);
      for (let time = 0.01; time < 5; time += 0.13) {
        const [a, b] = [before.sampleAt(time), after.sampleAt(time)];
        expect(Math.hypot(...a.position.map((value, k) => value - b.position[k]!))).toBeLessThan(0.03);
        expect(apart(a.orientation, b.orientation)).toBeLessThan(0.01);
      }
    }
  });

  test('a travel as a glide is where it was, and looks as it did, at every time: metres and millimetres, stays and all', () => {
    fc.assert(
      fc.property(roundTrip, fc.constantFrom(1, 0.001), (poses, scale) => {
        const small = poses.map((pose) => ({ ...pose, position: pose.position.map((value) => value * scale) as Vec3 }));
        const travel = travelOf(small, {});
        const before = played(travel);
        const glide = travelToGlide(travel, before, newId);
        fc.pre(glide !== null);
        const after = compileMove(glide, siteOf())!;
        expect(after.duration).toBeCloseTo(before.duration, 6);
        const { length } = before.path!;
        const off: number[] = [];
        const turned: number[] = [];
        for (let i = 0; i <= 200; i += 1) {
          const time = (before.duration * i) / 200;
          const [a, b] = [before.sampleAt(time), after.sampleAt(time)];
          off.push(Math.hypot(...a.position.map((value, k) => value - b.position[k]!)) / length);
          turned.push(apart(a.orientation, b.orientation));
        }
        expect(Math.max(...off)).toBeLessThan(0.004);
        expect(Math.max(...turned)).toBeLessThan(0.002);
      }),
      { numRuns: 60 },
    );
    expect(
      travelToGlide(travelOf([poseOf(1, 0, [1, 2, 3])]), played(travelOf([poseOf(1, 0, [1, 2, 3])])), newId),
    ).toBeNull();
  });
});

describe('tracks of what becomes another kind', () => {
  const at = (time: number, value: number): Key => ({
    id: newId(),
    anchor: { by: 'time', time },
    value,
    ease: 'smooth',
  });
  const tracks = {
    truck: [at(0, 0), at(4, 1.5)],
    pedestal: [at(1, 0), at(3, 0.6)],
    dolly: [at(0, 0.4), at(4, -0.8)],
    pan: [at(0, 0), at(4, 25)],
    tilt: [at(0, 0), at(2, -8)],
    roll: [at(0, 0), at(2, 12), at(4, -5)],
    focalLength: [at(0, 24), at(4, 50)],
    fNumber: [at(0, 4), at(4, 8)],
  };
  const apartAt = (before: CompiledMove, after: CompiledMove, time: number) => {
    const [a, b] = [before.sampleAt(time), after.sampleAt(time)];
    return {
      off: Math.hypot(...a.position.map((value, k) => value - b.position[k]!)),
      turned: apart(a.orientation, b.orientation),
      longer: Math.abs((a.view.focalLengthMm ?? 0) - (b.view.focalLengthMm ?? 0)),
    };
  };
  const same = (before: CompiledMove, after: CompiledMove, far: number) => {
    for (let time = 0.01; time < before.duration; time += 0.11) {
      const { off, turned, longer } = apartAt(before, after, time);
      expect(off).toBeLessThan(far);
      expect(turned).toBeLessThan(0.01);
      expect(longer).toBeLessThan(0.05);
    }
  };

  test('a travel that tracks shift, turn and lean is a glide that does all of it once', () => {
    const travel: Travel = {
      ...travelOf([
        poseOf(1, 0, [0, 2, 0], [0, 0, 0.1]),
        poseOf(2, 2, [3, 2, -2], [0.3, 0.1, -0.05], { hold: 1 }),
        poseOf(3, 5, [6, 3, -2], [0.8, 0, 0]),
      ]),
      tracks,
    };
    const before = played(travel);
    const glide = travelToGlide(travel, before, newId)!;
    same(before, compileMove(glide, siteOf())!, 0.03);
    expect(Object.keys(glide.tracks!).sort()).toEqual(['fNumber', 'focalLength', 'roll']);
    expect(glide.tracks!.roll!.length).toBeLessThan(80);
  });

  test('what only its tracks move goes a way, too', () => {
    const travel: Travel = {
      ...travelOf([poseOf(1, 0, [0, 2, 0]), poseOf(2, 4, [0, 2, 0])]),
      tracks: { truck: tracks.truck },
    };
    const before = played(travel);
    same(before, compileMove(travelToGlide(travel, before, newId)!, siteOf())!, 0.01);
  });

  test.each([
    ['once round, as does its lens', {}],
    ['part of it, its lens by the clock', { sweep: 2, widens: 1.4 }],
    [
      'part of it, its lens as it gets on',
      { sweep: 2, widens: 1.4, shape: 'ease both' as const, together: true as const },
    ],
  ])('an orbit that goes %s is a travel that does', (_, change) => {
    const orbit: Orbit = { ...orbitOf(change), tracks };
    const before = compileMove(orbit, siteOf())!;
    same(before, played(orbitToTravel(orbit, before, newId)), 0.05);
  });
});

describe('what the checks say of a travel', () => {
  test('a turn that is too hasty between two poses gets more time there, and what follows comes later', () => {
    const body = travelOf([
      poseOf(1, 0, [0, 2, 0]),
      poseOf(2, 4, [4, 2, 0], [0.2, 0, 0]),
      poseOf(3, 5, [5, 2, 0], [2.4, 0, 0]),
      poseOf(4, 9, [9, 2, 0], [2.6, 0, 0]),
    ]);
    const move = played(body);
    const footing = siteOf().footing;
    const [turn] = checkMove(move, footing, FIRST_LIMITS).filter(({ rule }) => rule === 'turn');
    expect(turn!.fix).toMatchObject({ kind: 'more time' });
    const site = { move, footing, walker: FIRST_WALKER, limits: FIRST_LIMITS, newId };
    const better = mended(body, turn!.fix!, site) as Travel;
    expect(better.poses[3]!.time).toBeGreaterThan(11);
    expect(better.poses[1]!.time).toBeLessThan(better.poses[2]!.time - 2);
    expect(checkMove(played(better), footing, FIRST_LIMITS).filter(({ rule }) => rule === 'turn')).toEqual([]);
  });
});
