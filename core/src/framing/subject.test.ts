import { describe, expect, test } from '@jest/globals';
import { Matrix4, OrthographicCamera, Vector3 } from 'three';
import { DEFAULT_LENS, type Bounds, type Lens, type Vec3 } from '../document/index.ts';
import { cornersOf, anglesOf, toDegrees, toRadians } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { drawnFrom, type Drawn } from './drawn.ts';
import { fitted, fromSide, held, heldBeside, lookingAt, SIDES } from './subject.ts';

const ASPECT = 16 / 9;
const box: Bounds = { min: [2, 0, -7], max: [5, 2.2, -6] };

describe('framing a subject', () => {
  const lenses: Lens[] = [
    DEFAULT_LENS,
    { ...DEFAULT_LENS, focalLengthMm: 135 },
    { ...DEFAULT_LENS, shift: [0.1, 0.25] },
    { ...DEFAULT_LENS, parallel: 3 },
  ];
  test.each(lenses)('fills the wanted part of the frame, in its middle, from every side: %j', (lens) => {
    for (const side of SIDES)
      for (const down of [-20, 0, 15, 60, 90]) {
        const orientation = fromSide(toRadians(side), toRadians(down), 0.3);
        const made = fitted(box, orientation, { lens, aspect: ASPECT, fill: 0.7 });
        const projection = new Projection(throughLens(made.lens), ASPECT, made.pose.position, orientation);
        const seen = cornersOf(box).map((corner) => projection.project(corner));
        const [x0, x1] = [Math.min(...seen.map(({ x }) => x)), Math.max(...seen.map(({ x }) => x))];
        const [y0, y1] = [Math.min(...seen.map(({ y }) => y)), Math.max(...seen.map(({ y }) => y))];
        expect(Math.min(...seen.map(({ depth }) => depth))).toBeGreaterThan(0);
        // Filled is what is filled first; of the other direction it is in the middle.
        expect(Math.max(x1 - x0, y1 - y0)).toBeCloseTo(1.4, 9);
        expect(Math.abs(x0 + x1)).toBeLessThan(lens.parallel || x1 - x0 > 1.3999 ? 1e-9 : 0.2);
        expect(Math.abs(y0 + y1)).toBeLessThan(lens.parallel || y1 - y0 > 1.3999 ? 1e-9 : 0.2);
      }
  });

  test('a camera on the east side stands east of it, and the project’s north turns the sides', () => {
    const at = (north: number) =>
      fitted(box, fromSide(Math.PI / 2, 0, north), { lens: DEFAULT_LENS, aspect: ASPECT, fill: 0.7 }).pose.position;
    expect(at(0)[0]).toBeGreaterThan(5);
    // North along +X: east is +Z.
    expect(at(Math.PI / 2)[2]).toBeGreaterThan(-6);
  });

  test('a thing of 3 cm and a region of 20 km are framed alike', () => {
    for (const size of [0.03, 20_000]) {
      const { pose } = fitted({ min: [0, 0, 0], max: [size, size, size] }, fromSide(0, 0, 0), {
        lens: DEFAULT_LENS,
        aspect: 1,
        fill: 0.5,
      });
      // The nearer face, size wide, at (size / 0.5) · f / 24 mm.
      expect(-pose.position[2] / size).toBeCloseTo((1 / 0.5) * (24 / 24), 9);
    }
  });
});

test('an eye that looks at a place has it in the middle of its picture', () => {
  const rnd = randomFrom(5);
  for (let i = 0; i < 200; i += 1) {
    const vec = (): Vec3 => [rnd() * 20 - 10, rnd() * 6, rnd() * 20 - 10];
    const [position, at] = [vec(), vec()];
    const pose = lookingAt({ position, orientation: [0, 0, 0, 1] }, at);
    const { x, y } = new Projection(throughLens(DEFAULT_LENS), ASPECT, position, pose.orientation).project(at);
    expect(Math.hypot(x, y)).toBeLessThan(1e-9);
  }
  const down = lookingAt({ position: [1, 5, 1], orientation: [0, 0, 0, 1] }, [1, 0, 1], 0.4);
  expect(anglesOf(down.orientation)).toEqual({ pan: expect.closeTo(0.4, 9), tilt: -Math.PI / 2, roll: 0 });
});

describe('holding the subject while the lens changes', () => {
  const camera = {
    pose: lookingAt({ position: [1, 1.6, 4], orientation: [0, 0, 0, 1] }, [2, 1.2, -3]),
    lens: DEFAULT_LENS,
  };
  const seenAt = ({ pose, lens }: typeof camera, point: Vec3) =>
    new Projection(throughLens(lens), ASPECT, pose.position, pose.orientation).project(point);

  test('it keeps its place and size, off the axis and through a shifted lens too; what is behind it does not', () => {
    const subject: Vec3 = [3, 0.5, -2.5];
    for (const shift of [
      [0, 0],
      [0.1, 0.3],
    ] as Lens['shift'][]) {
      const wide = { ...camera, lens: { ...camera.lens, shift } };
      const before = seenAt(wide, subject);
      const long = held(wide, 85, before.depth)!;
      const after = seenAt(long, subject);
      expect(after.depth / before.depth).toBeCloseTo(85 / 24, 9);
      // A shift is so many millimetres of the sensor: the place on the sensor is what stays.
      expect(after.x).toBeCloseTo(before.x, 9);
      expect(after.y).toBeCloseTo(before.y, 9);
      const far: Vec3 = [3, 0.5, -30];
      expect(Math.abs(seenAt(long, far).x - seenAt(wide, far).x)).toBeGreaterThan(0.02);
    }
  });

  test('what was sharp stays sharp', () => {
    const sharp = { ...camera, lens: { ...camera.lens, focus: 5, fNumber: 2 } };
    const long = held(sharp, 48, 5)!;
    expect(long.lens.focus).toBeCloseTo(10, 9);
  });

  test('wide and long beside each other: half and double the lens from half and double the distance, within its limits', () => {
    const box: Bounds = { min: [2.5, 0, -3], max: [3.5, 1, -2] };
    const middle: Vec3 = [3, 0.5, -2.5];
    const all = heldBeside(box, camera, ASPECT, [8, 600]);
    expect(all.map(({ lens }) => lens.focalLengthMm)).toEqual([12, 24, 48]);
    const [wide, now, long] = all.map((one) => seenAt(one as typeof camera, middle));
    expect(wide!.depth / now!.depth).toBeCloseTo(0.5, 9);
    expect(long!.depth / now!.depth).toBeCloseTo(2, 9);
    for (const one of [wide!, long!]) expect([one.x, one.y]).toEqual([now!.x, now!.y].map((v) => expect.closeTo(v, 9)));
    expect(heldBeside(box, camera, ASPECT, [18, 40]).map(({ lens }) => lens.focalLengthMm)).toEqual([18, 24, 40]);
    expect(heldBeside({ min: [0, 0, 40], max: [1, 1, 41] }, camera, ASPECT, [8, 600])).toEqual([]);
  });

  test('nothing is held that is behind the eye, or seen without perspective', () => {
    expect(held(camera, 50, -1)).toBeNull();
    expect(held({ ...camera, lens: { ...camera.lens, parallel: 5 } }, 50, 3)).toBeNull();
  });
});

describe('pictures without perspective', () => {
  /** Where the three axes of a building point in the picture, and how long a metre of them is there. */
  const axes = (drawn: Drawn) => {
    const projection = new Projection({ kind: 'parallel', height: 2 }, 1, [0, 0, 0], drawnFrom(drawn));
    return (
      [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, -1],
      ] as Vec3[]
    ).map((axis) => {
      const { x, y } = projection.project(axis);
      return { length: Math.hypot(x, y), angle: toDegrees(Math.atan2(y, x)) };
    });
  };

  test('isometric: axes at 120°, all shortened by √(2/3) (ISO 5456-3, from memory)', () => {
    const [x, y, z] = axes('isometric');
    for (const { length } of [x!, y!, z!]) expect(length).toBeCloseTo(Math.sqrt(2 / 3), 9);
    expect(x!.angle).toBeCloseTo(-30, 6);
    expect(y!.angle).toBeCloseTo(90, 6);
    expect(z!.angle).toBeCloseTo(30, 6);
  });

  test('dimetric: width and height alike, depth half of them; axes at 7° and 42° to the level (ISO 5456-3, from memory)', () => {
    const [x, y, z] = axes('dimetric');
    expect(x!.length).toBeCloseTo(y!.length, 4);
    expect(z!.length).toBeCloseTo(x!.length / 2, 3);
    expect(Math.abs(x!.angle)).toBeCloseTo(7.18, 1);
    expect(z!.angle).toBeCloseTo(41.41, 1);
  });

  test('a plan has the plan’s upper edge above; an elevation is level', () => {
    const [x, y, z] = axes('plan');
    expect(x).toEqual({ length: expect.closeTo(1, 9), angle: expect.closeTo(0, 9) });
    expect(y!.length).toBeLessThan(1e-9);
    expect(z).toEqual({ length: expect.closeTo(1, 9), angle: expect.closeTo(90, 9) });
    expect(axes('south')[0]).toEqual({ length: expect.closeTo(1, 9), angle: expect.closeTo(0, 9) });
    expect(Math.abs(axes('north')[0]!.angle)).toBeCloseTo(180, 9);
    expect(axes('east')[2]).toEqual({ length: expect.closeTo(1, 9), angle: expect.closeTo(0, 9) });
  });

  test('scale and clip agree with three’s orthographic camera', () => {
    const orientation = drawnFrom('isometric');
    const camera = new OrthographicCamera(-8, 8, 4.5, -4.5, 1, 100);
    camera.quaternion.fromArray(orientation);
    camera.position.set(20, 22, 24);
    camera.updateMatrixWorld();
    camera.updateProjectionMatrix();
    const projection = new Projection({ kind: 'parallel', height: 9 }, ASPECT, [20, 22, 24], orientation);
    const rnd = randomFrom(9);
    for (let i = 0; i < 100; i += 1) {
      const point: Vec3 = [rnd() * 9, rnd() * 9, rnd() * 9];
      const theirs = new Vector3(...point).project(camera);
      const ours = projection.project(point);
      expect(ours.x).toBeCloseTo(theirs.x, 9);
      expect(ours.y).toBeCloseTo(theirs.y, 9);
    }
    const clip = new Matrix4().fromArray(projection.matrix(1, 100));
    camera.projectionMatrix.elements.forEach((value, k) => expect(clip.elements[k]).toBeCloseTo(value, 12));
  });
});
