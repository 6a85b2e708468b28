import { expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry } from 'three';
import { PLAIN_MATERIAL, type SceneModel, type ScenePart } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { randomFrom } from '../../random.fixture.ts';
import { orientationOf } from '../../geometry/index.ts';
import { AFTERNOON, LightMeter } from './index.ts';
import { daylight } from './daylight.ts';
import { meterPoints, MOST_POINTS, POINT_NUMBERS } from './meter-points.ts';

const outdoors = daylight(AFTERNOON);
const site = (parts: ScenePart[]): SceneModel => ({ parts, materials: [PLAIN_MATERIAL], textures: [] });

/** One part out of many boxes, lit the more the higher. */
function boxes(count: number): ScenePart {
  const random = randomFrom(7);
  const all = Array.from({ length: count }, () =>
    partOf(new BoxGeometry(0.1, 0.1, 0.1).translate(20 * random(), 3 * random(), 20 * random())),
  );
  const positions = Float32Array.from(all.flatMap((part) => [...part.positions]));
  const ambient = Float32Array.from(positions, (_, i) => 0.2 + 0.1 * positions[i - (i % 3) + 1]!);
  return {
    ...all[0]!,
    positions,
    normals: Float32Array.from(all.flatMap((part) => [...part.normals])),
    uvs: null,
    indices: Uint32Array.from(all.flatMap((part, n) => [...part.indices].map((index) => index + 24 * n))),
    light: { ambient, sun: new Float32Array(positions.length / 3) },
  };
}

test('a site is metered by few points, however many small things are in it, and by all of its surface', () => {
  const many = boxes(6000);
  const floor = { ...partOf(new PlaneGeometry(20, 20).rotateX(-Math.PI / 2)), light: null };
  const points = meterPoints(site([many, floor]), outdoors);
  const count = points.length / POINT_NUMBERS;
  expect(count).toBeGreaterThan(0.3 * MOST_POINTS);
  expect(count).toBeLessThan(1.5 * MOST_POINTS);
  let area = 0;
  for (let o = 0; o < points.length; o += POINT_NUMBERS) area += points[o + 9]!;
  expect(area / (6000 * 6 * 0.01)).toBeCloseTo(1, 4);
});

test('nothing hangs on how vertices are numbered, or on where the site is', () => {
  const part = boxes(2000);
  const count = part.positions.length / 3;
  const gain = ({ part: one, x }: { part: ScenePart; x: number }) =>
    new LightMeter(site([one]), AFTERNOON).gainAt([10 + x, 1.6, 10], orientationOf({ pan: 1, tilt: 0, roll: 0 }))[1];
  const turned = (values: Float32Array, stride: number) =>
    Float32Array.from(values, (_, i) => values[stride * (count - 1 - Math.floor(i / stride)) + (i % stride)]!);
  const backwards: ScenePart = {
    ...part,
    positions: turned(part.positions, 3),
    normals: turned(part.normals, 3),
    indices: part.indices.map((index) => count - 1 - index),
    light: { ambient: turned(part.light!.ambient, 3), sun: turned(part.light!.sun, 1) },
  };
  const away = { ...part, positions: part.positions.map((value, i) => value + (i % 3 === 0 ? 512 : 0)) };
  const here = gain({ part, x: 0 });
  expect(gain({ part: backwards, x: 0 }) / here).toBeCloseTo(1, 1);
  expect(gain({ part: away, x: 512 }) / here).toBeCloseTo(1, 1);
});
