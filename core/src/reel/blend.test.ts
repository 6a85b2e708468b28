import { describe, expect, test } from '@jest/globals';
import { Quaternion as Turn } from 'three';
import { DEFAULT_LENS, type ShotBody } from '../document/index.ts';
import { standing, type CameraSample } from '../move/index.ts';
import { cutOutSize, throughLens, usedSensor, Projection, cutOutView } from '../optics/index.ts';
import { blendSamples, CompiledReel, planReel } from './index.ts';
import { bentMove, moveShot, straightMove } from './reel.fixture.ts';

const rate = { num: 25, den: 1 };
const making = { whole: 16 / 9, ratio: 16 / 9, alike: () => true };
const cameras = { a: straightMove(1.2), b: bentMove() };

/** A blend of two seconds between them. */
function blended(second = cameras.b, from = 1) {
  const shots = [
    { id: 'a', body: moveShot({}, { from: 0, to: 6 }), camera: cameras.a },
    { id: 'b', body: moveShot({ join: { kind: 'blend', seconds: 2 } }, { from, to: from + 5 }), camera: second },
  ];
  const plan = planReel(shots, rate, () => ({ duration: 10, loops: false }));
  return new CompiledReel(plan, shots, making);
}

const cameraAt = (reel: CompiledReel, frame: number): CameraSample => {
  const { layers } = reel.frameAt(frame);
  expect(layers).toHaveLength(1);
  return layers[0]!.sample!;
};
/** Of a second order: what a value, its rate and the rate of that are just before and just after a frame. */
function jumps(of: (frame: number) => readonly number[], at: number): number[] {
  const h = 0.02;
  const side = (s: number) => [0, 1, 2].map((k) => of(at + s * (k * h + 1e-6)));
  const [left, right] = [side(-1), side(1)];
  const size = (a: readonly number[]) => Math.hypot(...a);
  const minus = (a: readonly number[], b: readonly number[]) => a.map((value, k) => value - b[k]!);
  const place = size(minus(left[0]!, right[0]!));
  const speed = size(minus(minus(left[0]!, left[1]!), minus(right[1]!, right[0]!))) / h;
  return [place, speed];
}

describe('a blend', () => {
  test('position, direction and turn rate go on without a jolt where it begins and ends', () => {
    const reel = blended();
    const [start] = [reel.plan.shots[1]!.start];
    const end = reel.plan.shots[0]!.start + reel.plan.shots[0]!.frames;
    expect(end - start).toBe(50);
    for (const at of [start, end]) {
      const [place, speed] = jumps((frame) => cameraAt(reel, frame).position, at);
      expect(place).toBeLessThan(1e-5);
      expect(speed).toBeLessThan(0.02 * 0.1);
      const [turned, rateOff] = jumps((frame) => cameraAt(reel, frame).orientation, at);
      expect(turned).toBeLessThan(1e-5);
      expect(rateOff).toBeLessThan(0.02 * 0.1);
    }
  });

  test('continuity is no matter of luck: a plain mixture has a jolt that this test sees', () => {
    const reel = blended();
    const { start } = reel.plan.shots[1]!;
    const plain = (frame: number) => {
      const part = Math.min(1, Math.max(0, (frame - start) / 50));
      const [a, b] = reel.plan.shots.map((shot) => reel.cameraOf(shot, frame)!.position);
      return a!.map((value, k) => value + (b![k]! - value) * part);
    };
    expect(jumps(plain, start)[1]!).toBeGreaterThan(0.02);
  });

  test('of a move with itself is that move', () => {
    // The second shot goes on in the same move where the overlap begins.
    const reel = blended(cameras.a, 4);
    for (let frame = 0; frame < reel.plan.frames; frame += 1) {
      const sample = cameraAt(reel, frame);
      const own = cameras.a.kind === 'move' ? cameras.a.move.sampleAt(frame / 25) : null;
      expect(Math.hypot(...sample.position.map((value, k) => value - own!.position[k]!))).toBeLessThan(1e-9);
      expect(Math.abs(sample.orientation.reduce((sum, value, k) => sum + value * own!.orientation[k]!, 0))).toBeCloseTo(
        1,
        12,
      );
      expect(sample.siteTime).toBeCloseTo(own!.siteTime, 9);
    }
  });

  test('turns as three.js turns, and goes between lenses by their ratio', () => {
    const a = standing(
      { position: [0, 0, 0], orientation: [0, 0, 0, 1] },
      { ...DEFAULT_LENS, focalLengthMm: 20, focus: 1, fNumber: 2 },
    );
    const turn = new Turn(0.3, 0.5, -0.2, 0.7).normalize();
    const b = standing(
      { position: [4, 2, 0], orientation: [turn.x, turn.y, turn.z, turn.w] },
      { ...DEFAULT_LENS, focalLengthMm: 80, focus: 4, fNumber: 8 },
    );
    const half = blendSamples(a, b, 0.5);
    const theirs = new Turn().slerp(turn, 0.5);
    expect(half.position).toEqual([2, 1, 0]);
    expect(new Turn(...half.orientation).angleTo(theirs)).toBeLessThan(1e-7);
    expect(half.view).toMatchObject({
      kind: 'lens',
      focalLengthMm: expect.closeTo(40, 9),
      focus: expect.closeTo(1.6, 9),
      fNumber: expect.closeTo(4, 9),
    });
    expect(blendSamples(a, b, 0)).toMatchObject({ position: a.position, view: { focalLengthMm: 20, focus: 1 } });
    expect(() => blendSamples(a, { ...b, view: throughLens({ ...DEFAULT_LENS, parallel: 3 }) }, 0.5)).toThrow(
      RangeError,
    );
  });

  test('in two lights is one camera in either; cameras that cannot become one are pictures over each other', () => {
    const shots = [
      { id: 'a', body: moveShot({}, { to: 4 }), camera: cameras.a },
      { id: 'b', body: moveShot({ join: { kind: 'blend', seconds: 1 } }, { to: 4 }), camera: cameras.b },
    ];
    const plan = planReel(shots, rate, () => ({ duration: 10, loops: false }));
    const apart = new CompiledReel(plan, shots, { ...making, alike: () => false }).frameAt(plan.shots[1]!.start + 12);
    expect(apart.layers).toHaveLength(2);
    expect(apart.layers[0]!.sample!.position).toEqual(apart.layers[1]!.sample!.position);
    expect(apart.layers[1]!.part).toBeCloseTo(0.48, 9);
    const parallel = {
      kind: 'view' as const,
      view: {
        pose: {
          position: [0, 0, 0] as [number, number, number],
          orientation: [0, 0, 0, 1] as [number, number, number, number],
        },
        lens: { ...DEFAULT_LENS, parallel: 4 },
      },
    };
    const mixed = new CompiledReel(plan, [shots[0]!, { ...shots[1]!, camera: parallel }], making);
    const { layers } = mixed.frameAt(plan.shots[1]!.start + 12);
    expect(layers.map(({ sample }) => sample!.view.kind)).toEqual(['lens', 'parallel']);
  });
});

describe('a cut-out of another ratio', () => {
  test('shows to the point what that part of the whole picture shows', () => {
    const lens = { ...DEFAULT_LENS, focalLengthMm: 24, shift: [0.1, -0.2] as [number, number] };
    const whole = new Projection(throughLens(lens), 16 / 9);
    for (const [ratio, aside] of [
      [9 / 16, 0.7],
      [1, -1],
      [4 / 5, 0],
      [2.39, 0.4],
    ] as const) {
      const { view } = cutOutView(throughLens(lens), 16 / 9, ratio, aside);
      const part = new Projection(view, ratio);
      const width = Math.min(1, ratio / (16 / 9));
      const height = Math.min(1, 16 / 9 / ratio);
      for (const point of [
        [0.3, 0.2, -2],
        [-1, 0.5, -4],
        [0, 0, -1],
      ] as const) {
        const [a, b] = [whole.project([...point]), part.project([...point])];
        expect(b.x).toBeCloseTo((a.x - aside * (1 - width)) / width, 9);
        expect(b.y).toBeCloseTo(a.y / height, 9);
      }
    }
    expect(usedSensor(DEFAULT_LENS.sensor, 16 / 9).heightMm).toBeCloseTo(20.25, 9);
  });

  test('follows what is looked at, softly and inside the picture, and says when it leaves', () => {
    const look = {
      from: 0,
      to: 8,
      reach: 0.5,
      at: (time: number) => [-6 + 1.5 * time, 1.6, -8] as [number, number, number],
    };
    const still = standing({ position: [0, 1.6, 0], orientation: [0, 0, 0, 1] }, DEFAULT_LENS);
    const camera = {
      kind: 'move' as const,
      move: { duration: 8, loops: false, looks: [look], sampleAt: (time: number) => ({ ...still, moveTime: time }) },
    };
    const shots = [{ id: 'a', body: moveShot(), camera }];
    const plan = planReel(shots, rate, () => ({ duration: 8, loops: false }));
    const reel = new CompiledReel(plan, shots, { ...making, ratio: 9 / 16 });
    const track = reel.cutOf(plan.shots[0]!);
    const asides = Array.from({ length: 161 }, (_, i) => track.at(i / 20));
    expect(Math.min(...asides)).toBeGreaterThanOrEqual(-1);
    expect(Math.max(...asides)).toBeLessThanOrEqual(1);
    expect(asides[0]).toBeLessThan(-0.8);
    expect(asides[160]).toBeGreaterThan(0.8);
    const steps = asides.slice(1).map((value, i) => value - asides[i]!);
    expect(Math.max(...steps.slice(1).map((value, i) => Math.abs(value - steps[i]!)))).toBeLessThan(0.01);
    // What is looked at is near the middle of the cut-out while it can be.
    const { sample } = reel.frameAt(100).layers[0]!;
    const seen = new Projection(sample!.view, 9 / 16, sample!.position, sample!.orientation).project(look.at(4));
    expect(Math.abs(seen.x)).toBeLessThan(0.2);
    const quick = { ...look, at: (time: number) => [-30 + 8 * time, 1.6, -8] as [number, number, number] };
    const fast = new CompiledReel(
      plan,
      [{ ...shots[0]!, camera: { ...camera, move: { ...camera.move, looks: [quick] } } }],
      { ...making, ratio: 9 / 16 },
    );
    expect(fast.outsideOf(plan.shots[0]!).length).toBeGreaterThan(0);
    expect(track.outside).toEqual([]);
  });

  test('says when what is looked at leaves one that was put somewhere, or a flatter one', () => {
    const look = { from: 0, to: 8, reach: 0.5, at: (time: number) => [-4 + time, 1.6, -8] as [number, number, number] };
    const still = standing({ position: [0, 1.6, 0], orientation: [0, 0, 0, 1] }, DEFAULT_LENS);
    const reelOf = (ratio: number, body: Partial<ShotBody>, at = look.at) => {
      const move = { duration: 8, loops: false, looks: [{ ...look, at }], sampleAt: () => still };
      const shots = [{ id: 'a', body: moveShot(body), camera: { kind: 'move' as const, move } }];
      const plan = planReel(shots, rate, () => ({ duration: 8, loops: false }));
      return { reel: new CompiledReel(plan, shots, { ...making, ratio }), shot: plan.shots[0]! };
    };
    // At its left edge it shows from −1 to −1 + 2 · width: by the optics, the point is there until x reaches that.
    const { reel, shot } = reelOf(9 / 16, { aside: -1 });
    const { width } = cutOutSize(16 / 9, 9 / 16);
    const halfAcross = 8 * (DEFAULT_LENS.sensor.widthMm / 2 / DEFAULT_LENS.focalLengthMm);
    const leaves = 4 + (-1 + 2 * width) * halfAcross;
    const [[from, to]] = reel.outsideOf(shot) as [[number, number]];
    expect(from).toBeGreaterThanOrEqual(leaves - 1e-9);
    expect(from).toBeLessThan(leaves + 0.21);
    expect(to).toBeCloseTo(8, 6);
    // A flatter picture loses what is high up.
    const high = reelOf(2.39, {}, () => [0, 4.5, -8]);
    expect(high.reel.outsideOf(high.shot)).toHaveLength(1);
    const level = reelOf(2.39, {}, () => [0, 1.7, -8]);
    expect(level.reel.outsideOf(level.shot)).toEqual([]);
  });
});
