import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry } from 'three';
import { PLAIN_MATERIAL, type SceneModel, type ScenePart } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { orientationOf } from '../../geometry/index.ts';
import { AFTERNOON, bakeLight, ExposureTrack, LightMeter, FIRST_GAIN } from './index.ts';

const white = { ...PLAIN_MATERIAL, color: [0.7, 0.7, 0.7] as [number, number, number], doubleSided: false };
const model = (parts: ScenePart[]): SceneModel => ({ parts, materials: [white], textures: [] });
const level = (pan: number) => orientationOf({ pan, tilt: 0, roll: 0 });
const luminance = ([r, g, b]: readonly number[]) => 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;

/** A room with a door in the south, on a plain: dim inside, bright outside. */
const site = () => {
  const wall = (w: number, d: number, x: number, z: number) => partOf(new BoxGeometry(w, 3, d).translate(x, 1.5, z));
  return bakeLight(
    model([
      partOf(new PlaneGeometry(40, 40, 20, 20).rotateX(-Math.PI / 2)),
      partOf(new BoxGeometry(6.4, 0.2, 6.4).translate(0, 3.1, 0)),
      wall(6.4, 0.2, 0, -3.1),
      wall(0.2, 6, -3.1, 0),
      wall(0.2, 6, 3.1, 0),
      wall(2.7, 0.2, -1.85, 3.1),
      wall(2.7, 0.2, 1.85, 3.1),
    ]),
  );
};

describe('metering', () => {
  const lit = site();
  const meter = new LightMeter(lit, AFTERNOON);

  test('a dim room is exposed for longer than what is outside it', () => {
    const inside = luminance(meter.gainAt([0, 1.6, 0], level(0)));
    const outside = luminance(meter.gainAt([0, 1.6, 12], level(Math.PI)));
    expect(inside).toBeGreaterThan(1.4 * outside);
    expect(inside).toBeLessThanOrEqual(14.1);
  });

  test('walking out of the door it changes without a jump', () => {
    const poseAt = (time: number) => ({
      position: [0, 1.6, -2 + 1.2 * time] as [number, number, number],
      orientation: level(Math.PI),
    });
    const track = new ExposureTrack(meter, { poseAt, duration: 10, loops: false });
    let before = luminance(track.at(0));
    for (let time = 0.04; time < 10; time += 0.04) {
      const now = luminance(track.at(time));
      // Less than two stops a second.
      expect(Math.abs(Math.log2(now / before))).toBeLessThan(2 * 0.04);
      before = now;
    }
    // And it does change: outside it is bright.
    expect(luminance(track.at(0)) / luminance(track.at(10))).toBeGreaterThan(1.4);
  });

  test('a dark room behind a wall makes nothing outside brighter', () => {
    const wall = (w: number, h: number, d: number, x: number, y: number, z: number) =>
      partOf(new BoxGeometry(w, h, d, 4, 4, 4).translate(x, y, z));
    const ground = partOf(new PlaneGeometry(40, 40, 20, 20).rotateX(-Math.PI / 2));
    // A closed house, and a solid block of its size.
    const house = [
      wall(6, 3, 0.2, 0, 1.5, 3),
      wall(6, 3, 0.2, 0, 1.5, -3),
      wall(0.2, 3, 6, 3, 1.5, 0),
      wall(0.2, 3, 6, -3, 1.5, 0),
      wall(6.4, 0.2, 6.4, 0, 3.1, 0),
    ];
    const gain = (parts: ScenePart[]) =>
      luminance(new LightMeter(bakeLight(model(parts)), AFTERNOON).gainAt([0, 1.6, 12], level(0)));
    const ratio = gain([ground, ...house]) / gain([ground, wall(6.4, 3.2, 6.4, 0, 1.6, 0)]);
    expect(Math.abs(Math.log2(ratio))).toBeLessThan(0.25);
  });

  test('twice the light is nearly half the exposure, and colour is partly taken out', () => {
    const bright = (by: readonly number[]): SceneModel => ({
      ...lit,
      parts: lit.parts.map((one) => ({
        ...one,
        light: { sun: one.light!.sun.map(() => 0), ambient: one.light!.ambient.map((value, i) => value * by[i % 3]!) },
      })),
    });
    const gain = (by: readonly number[]) => new LightMeter(bright(by), AFTERNOON).gainAt([0, 1.6, 12], level(Math.PI));
    const [once, twice] = [gain([1, 1, 1]), gain([2, 2, 2])];
    expect(once[1] / twice[1]).toBeCloseTo(2 ** 0.84, 2);
    const warm = gain([1.3, 1, 0.7]);
    expect(warm[0] / warm[2]).toBeLessThan(once[0] / once[2]);
    expect((1.3 * warm[0]) / (0.7 * warm[2])).toBeGreaterThan(once[0] / once[2]);
  });

  test('going round a small thing changes nothing of what is about it', () => {
    const thing = bakeLight(model([partOf(new BoxGeometry(0.3, 0.5, 0.3, 2, 2, 2).translate(0, 0.25, 0))]));
    const small = new LightMeter(thing, AFTERNOON);
    const gains = Array.from({ length: 24 }, (_, i) => {
      const pan = (i / 24) * 2 * Math.PI;
      return luminance(small.gainAt([2 * Math.sin(pan), 0.4, 2 * Math.cos(pan)], level(pan)));
    });
    // A tenth of a stop from the sunlit side to the side in shade.
    expect(Math.log2(Math.max(...gains) / Math.min(...gains))).toBeLessThan(0.1);
  });

  test('how finely a surface is cut says nothing of how bright it is', () => {
    const floor = (pieces: number, x: number, falls: number): ScenePart => {
      const made = partOf(new PlaneGeometry(4, 4, pieces, pieces).rotateX(-Math.PI / 2).translate(x, 0, 0));
      const count = made.positions.length / 3;
      return {
        ...made,
        light: { ambient: new Float32Array(3 * count).fill(falls), sun: new Float32Array(count) },
      };
    };
    const gain = (dim: number, bright: number) =>
      luminance(
        new LightMeter(model([floor(dim, -2, 0.1), floor(bright, 2, 1)]), AFTERNOON).gainAt([0, 1.6, 6], level(0)),
      );
    const even = gain(12, 12);
    expect(Math.abs(gain(48, 12) / even - 1)).toBeLessThan(0.02);
    expect(Math.abs(gain(12, 48) / even - 1)).toBeLessThan(0.02);
  });

  test('what is not lit, and nothing at all, has a plain exposure', () => {
    expect(new LightMeter(model([partOf(new BoxGeometry(1, 1, 1))]), AFTERNOON).gainAt([0, 0, 5], level(0))).toEqual(
      FIRST_GAIN,
    );
    expect(new LightMeter(model([]), AFTERNOON).gainAt([0, 0, 0], level(0))).toEqual(FIRST_GAIN);
  });
});
