import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Matrix4, PerspectiveCamera, Quaternion, Vector3 } from 'three';
import { SiteMotion, type SiteAction } from '../action/index.ts';
import { checkMove } from '../check/index.ts';
import { DEFAULT_LENS, FIRST_LIMITS, type Follow, type Gaze, type Ride, type Vec3 } from '../document/index.ts';
import { middle, orientationOf } from '../geometry/index.ts';
import { glideOf, MODEL, nowhere, siteOf } from './kinds.fixture.ts';
import { compileMove, findCarrier, headingOf, seatAt, SEATS, SoftFollow } from './index.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** A car of 2 × 1 × 4 m at the beginning of a winding rail that rises. */
const car = { model: MODEL, name: 'Train / Car', bounds: { min: [-1, 0, -2] as Vec3, max: [1, 1, 2] as Vec3 } };
const post = { model: MODEL, name: 'Post', bounds: { min: [20, 0, 0] as Vec3, max: [21, 3, 1] as Vec3 } };
const parts = [car, post];
const rail: Vec3[] = [
  [0, 0.5, 0],
  [0, 0.5, -12],
  [8, 1.5, -22],
  [20, 3, -20],
  [26, 3, -34],
];
const along = (change: Partial<Extract<SiteAction, { kind: 'along' }>> = {}): SiteAction => ({
  kind: 'along',
  model: MODEL,
  part: 'Train / Car',
  path: glideOf(rail).path,
  faces: true,
  start: 0,
  seconds: 12,
  shape: 'ease both',
  repeat: 'once',
  ...change,
});
const motionOf = (...actions: SiteAction[]) => new SiteMotion({ parts, joints: [], movements: [] }, actions);
const site = (motion = motionOf(along())) => siteOf({ parts, motion });
const carrier = { model: MODEL, name: car.name, centre: middle(car.bounds) };
const rideOf = (change: Partial<Ride> = {}): Ride => ({
  kind: 'ride',
  carrier,
  seat: [0.4, 1.2, 0.5],
  facing: orientationOf({ pan: 0.2, tilt: -0.1, roll: 0 }),
  softness: 0,
  horizon: 'with it',
  duration: 12,
  gaze: { kind: 'kept' },
  lens: DEFAULT_LENS,
  ...change,
});
const matrixAt = (motion: SiteMotion, time: number) => {
  const places = motion.places();
  motion.place(time, places);
  return places[motion.groupOf(car)]!;
};

describe('a ride', () => {
  test('keeps its seat on a winding rail to 10⁻⁹', () => {
    const motion = motionOf(along());
    const move = compileMove(rideOf(), site(motion))!;
    const seat = new Vector3(0.4, 1.7, 0.5);
    const facing = new Quaternion(...rideOf().facing);
    for (let time = 0; time <= 12; time += 0.11) {
      const { position, orientation } = move.sampleAt(time);
      const matrix = matrixAt(motion, time);
      // Seen from the carrier it has not moved.
      const back = new Vector3(...position).applyMatrix4(new Matrix4().copy(matrix).invert());
      expect(back.distanceTo(seat)).toBeLessThan(1e-9);
      const turn = new Quaternion().setFromRotationMatrix(matrix).multiply(facing);
      expect(turn.angleTo(new Quaternion(...orientation))).toBeLessThan(1e-7);
    }
  });

  test('with a level horizon does not lean', () => {
    const move = compileMove(
      rideOf({ horizon: 'level', facing: orientationOf({ pan: 1, tilt: 0.2, roll: 0.3 }) }),
      site(),
    )!;
    for (let time = 0; time <= 12; time += 0.3) {
      const right = new Vector3(1, 0, 0).applyQuaternion(new Quaternion(...move.sampleAt(time).orientation));
      expect(Math.abs(right.y)).toBeLessThan(1e-9);
    }
  });

  test('softly is what a fine integration of the spring gives, to a millimetre, whichever frame is asked first', () => {
    const motion = motionOf(along());
    const lag = 0.8;
    const soft = compileMove(rideOf({ softness: lag }), site(motion))!;
    const rigid = compileMove(rideOf(), site(motion))!;
    const asked = compileMove(rideOf({ softness: lag }), site(motion))!;
    asked.sampleAt(11);
    const omega = 2 / lag;
    for (let axis = 0; axis < 3; axis += 1) {
      const x = (time: number) => rigid.sampleAt(Math.max(0, time)).position[axis]!;
      // At rest at first: it has been following something that stood.
      let [y, v] = [x(0), 0];
      const h = 1 / 2000;
      const rate = (time: number, value: number, speed: number) =>
        omega * omega * (x(time) - value) - 2 * omega * speed;
      for (let i = 0; i < 12 * 2000; i += 1) {
        const time = i * h;
        if (i % 500 === 0) {
          expect(Math.abs(soft.sampleAt(time).position[axis]! - y)).toBeLessThan(1e-3);
          expect(asked.sampleAt(time).position[axis]).toBe(soft.sampleAt(time).position[axis]);
        }
        // Runge–Kutta of the fourth order.
        const [k1, l1] = [v, rate(time, y, v)];
        const [k2, l2] = [v + (h / 2) * l1, rate(time + h / 2, y + (h / 2) * k1, v + (h / 2) * l1)];
        const [k3, l3] = [v + (h / 2) * l2, rate(time + h / 2, y + (h / 2) * k2, v + (h / 2) * l2)];
        const [k4, l4] = [v + h * l3, rate(time + h, y + h * k3, v + h * l3)];
        y += (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4);
        v += (h / 6) * (l1 + 2 * l2 + 2 * l3 + l4);
      }
    }
  });

  test('softly stays so many seconds behind what moves evenly, from the first frame on', () => {
    const follow = new SoftFollow((time) => 3 * time, 5, 0.6);
    for (const time of [0, 0.013, 1, 4.7]) expect(follow.at(time)).toBeCloseTo(3 * (time - 0.6), 9);
  });

  test('on what does not move, or is not there, stays where it is', () => {
    const still = compileMove(rideOf({ carrier: { model: MODEL, name: 'Post', centre: [20.5, 1.5, 0.5] } }), site())!;
    expect(still.sampleAt(0).position).toEqual(still.sampleAt(9).position);
    const gone = compileMove(rideOf({ carrier: { ...carrier, name: 'Sledge' } }), site())!;
    expect(gone.sampleAt(3).position).toEqual([0.4, 1.7, 0.5]);
  });

  test('is not said to go through the car that it sits in', () => {
    const box = [-1, 0, -2, 1, 0, -2, 1, 1, -2, -1, 0, -2, 1, 1, -2, -1, 1, -2];
    const footing = Object.assign(Object.create(Object.getPrototypeOf(nowhere)), nowhere);
    expect(footing).toBeDefined();
    const walled = new (Object.getPrototypeOf(nowhere).constructor)(new Float32Array(0), Float32Array.from(box));
    const inside = compileMove(
      rideOf({ seat: [0, 0.2, 0] }),
      siteOf({ parts, motion: motionOf(along()), footing: walled }),
    )!;
    expect(checkMove(inside, walled, FIRST_LIMITS).map(({ rule }) => rule)).not.toContain('through');
  });
});

describe('seats by name', () => {
  test('are found from where the carrier first goes', () => {
    const place = findCarrier(carrier, { parts, motion: motionOf(along()) });
    const heading = headingOf(place)!;
    // The rail leads north, and soon bends a little.
    expect(heading[2]).toBeLessThan(-0.95);
    expect(Math.hypot(...heading)).toBeCloseTo(1, 9);
    for (const name of SEATS) {
      const seat = seatAt(name, car.bounds, heading, { model: MODEL, name: car.name });
      const move = compileMove(rideOf({ ...seat, horizon: 'level' }), site())!;
      const { position } = move.sampleAt(0);
      if (name === 'ahead') expect(position[2]).toBeLessThan(-2);
      if (name === 'behind and above') expect(position[2]).toBeGreaterThan(2);
      if (name === 'beside') expect(Math.abs(position[0])).toBeGreaterThan(1);
      if (name !== 'ahead' && name !== 'beside') expect(position[1]).toBeGreaterThan(1);
      // Outside of it, and the carrier is before the eye where the eye is on it.
      const camera = new PerspectiveCamera(60, 1, 0.01, 100);
      camera.position.fromArray(position);
      camera.quaternion.fromArray(move.sampleAt(0).orientation);
      camera.updateMatrixWorld();
      const seen = new Vector3(...middle(car.bounds)).project(camera);
      if (seat.gaze.kind === 'object') expect(Math.hypot(seen.x, seen.y)).toBeLessThan(1e-3);
    }
    expect(headingOf(findCarrier({ ...carrier, name: 'Post' }, { parts, motion: motionOf(along()) }))).toBeNull();
  });
});

describe('standing and following', () => {
  const object: Gaze = {
    kind: 'object',
    model: MODEL,
    name: car.name,
    point: middle(car.bounds),
    centre: middle(car.bounds),
  };
  const followOf = (gaze: Gaze, change: Partial<Follow> = {}): Follow => ({
    kind: 'follow',
    position: [12, 3, 4],
    duration: 12,
    gaze,
    lens: DEFAULT_LENS,
    ...change,
  });
  const seenAt = (move: NonNullable<ReturnType<typeof compileMove>>, time: number) => {
    const { position, orientation, view } = move.sampleAt(time);
    if (view.kind !== 'lens') throw new Error('a lens was expected');
    const camera = new PerspectiveCamera((2 * Math.atan(12 / view.focalLengthMm) * 180) / Math.PI, 16 / 9, 0.01, 500);
    camera.position.fromArray(position);
    camera.quaternion.fromArray(orientation);
    camera.updateMatrixWorld();
    const matrix = matrixAt(motionOf(along()), time);
    return { seen: new Vector3(...middle(car.bounds)).applyMatrix4(matrix).project(camera), camera, matrix };
  };

  // Reference: the projection of three.js; the picture of a 36 × 24 mm sensor at 16:9 is 36 × 20.25 mm.
  test('keeps what it looks at at its place in the frame within half a percent', () => {
    fc.assert(
      fc.property(number(-0.8, 0.8), number(-0.8, 0.8), (x, y) => {
        const move = compileMove(followOf({ ...object, place: [x, y] } as Gaze), site())!;
        for (let time = 0; time <= 12; time += 0.5) {
          const { position, orientation, view } = move.sampleAt(time);
          if (view.kind !== 'lens') throw new Error('a lens was expected');
          const half = (36 * 9) / 16 / 2;
          const camera = new PerspectiveCamera(
            (2 * Math.atan(half / view.focalLengthMm) * 180) / Math.PI,
            16 / 9,
            0.01,
            500,
          );
          camera.position.fromArray(position);
          camera.quaternion.fromArray(orientation);
          camera.updateMatrixWorld();
          const seen = new Vector3(...middle(car.bounds))
            .applyMatrix4(matrixAt(motionOf(along()), time))
            .project(camera);
          expect(Math.abs(seen.x - x)).toBeLessThan(0.01);
          expect(Math.abs(seen.y - y)).toBeLessThan(0.01);
        }
      }),
      { numRuns: 30 },
    );
  });

  test('leaves room before what crosses the frame', () => {
    const move = compileMove(followOf({ ...object, lead: 0.4 } as Gaze), site())!;
    const { seen } = seenAt(move, 6);
    const later = compileMove(followOf(object), site())!;
    const turning = new Quaternion(...later.sampleAt(5.9).orientation)
      .invert()
      .multiply(new Quaternion(...later.sampleAt(6.1).orientation));
    // Turning to the left (positive about the vertical), it is held right of the middle.
    expect(Math.sign(seen.x)).toBe(Math.sign(turning.y));
    expect(Math.abs(seen.x)).toBeGreaterThan(0.1);
  });

  test('holds its size with the lens, as far as lenses reach', () => {
    const move = compileMove(
      followOf(object, { holdSize: true, lens: { ...DEFAULT_LENS, focalLengthMm: 50 } }),
      site(),
    )!;
    const away = move.channels.find(({ id }) => id === 'away')!;
    const size = (time: number) => {
      const { view } = move.sampleAt(time);
      return view.kind === 'lens' ? view.focalLengthMm / away.at(time) : 0;
    };
    for (let time = 0; time <= 12; time += 0.25) expect(size(time) / size(0)).toBeCloseTo(1, 9);
    expect(move.channels.map(({ id }) => id)).toContain('lens');
  });
});
