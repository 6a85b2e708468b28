import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry } from 'three';
import { ALL_LIT, DEFAULT_LENS, type SiteLight, type Vec3 } from '../../document/index.ts';
import { PLAIN_MATERIAL, type SceneModel } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { orientationOf } from '../../geometry/index.ts';
import { Projection, throughLens } from '../../optics/index.ts';
import { randomFrom } from '../../random.fixture.ts';
import { bakeLight } from './bake.ts';
import { daylight } from './daylight.ts';
import { emptyGather, putRows, rowsOf, smoothGather, type PixelGather } from './pixel-gather.ts';
import { PixelLight } from './pixel-light.ts';

const OVERCAST: SiteLight = { sun: [0, 0.8, 0.6], sky: 'overcast', lamps: ALL_LIT };
const BOX = { half: 0.5, height: 1.2 } as const;

/** A black block on a black floor: what falls on the floor is the sky that the block leaves of it. */
function scene(): SceneModel {
  const black = { ...PLAIN_MATERIAL, color: [0, 0, 0] as [number, number, number], doubleSided: false };
  return {
    parts: [
      partOf(new PlaneGeometry(12, 12).rotateX(-Math.PI / 2)),
      partOf(new BoxGeometry(2 * BOX.half, BOX.height, 2 * BOX.half).translate(0, BOX.height / 2, 0)),
    ],
    materials: [black],
    textures: [],
  };
}

/** Light of the sky on the floor beside the block, green: plain Monte Carlo, against the block's faces as slabs. */
function skyOn([x, , z]: Vec3, rays: number): number {
  const random = randomFrom(5);
  const { zenith, horizon } = daylight(OVERCAST);
  let sum = 0;
  for (let i = 0; i < rays; i += 1) {
    const [r, a] = [Math.sqrt(random()), 2 * Math.PI * random()];
    const d = [r * Math.cos(a), Math.sqrt(1 - r * r), r * Math.sin(a)] as const;
    let [enter, leave] = [0, Infinity];
    for (const [from, way, low, high] of [
      [x, d[0], -BOX.half, BOX.half],
      [0, d[1], 0, BOX.height],
      [z, d[2], -BOX.half, BOX.half],
    ] as const) {
      const [s, t] = [(low - from) / way, (high - from) / way];
      enter = Math.max(enter, Math.min(s, t));
      leave = Math.min(leave, Math.max(s, t));
    }
    if (enter < leave) continue;
    sum += horizon[1] + (zenith[1] - horizon[1]) * d[1];
  }
  return sum / rays;
}

/** Baked light of the floor at a place, green, as it is drawn between its vertices. */
function bakedAt({ parts: [floor] }: SceneModel, [x, , z]: Vec3): number {
  const { positions: p, indices, light } = floor!;
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [indices[t]!, indices[t + 1]!, indices[t + 2]!];
    const cross = (u: number, v: number) =>
      (p[3 * u]! - x) * (p[3 * v + 2]! - z) - (p[3 * u + 2]! - z) * (p[3 * v]! - x);
    const [wa, wb, wc] = [cross(b, c), cross(c, a), cross(a, b)];
    if (Math.min(wa, wb, wc) * Math.max(wa, wb, wc) < 0) continue;
    const at = (v: number) => light!.ambient[3 * v + 1]!;
    return (wa * at(a) + wb * at(b) + wc * at(c)) / (wa + wb + wc);
  }
  throw new RangeError('not over the floor');
}

describe('light gathered once more for pixels', () => {
  const lit = bakeLight(scene(), OVERCAST);
  const projection = new Projection(
    throughLens({ ...DEFAULT_LENS, focalLengthMm: 24 }),
    1,
    [3, 2.2, 3],
    orientationOf({ pan: Math.PI / 4, tilt: -0.5, roll: 0 }),
  );
  const size = 24;
  const gather = emptyGather(size, size);
  new PixelLight(lit, OVERCAST).rows(projection, gather, 900, 0, size);
  const floor = Array.from({ length: size * size }, (_, i) => i).filter(
    (i) => gather.distances[i]! > 0 && gather.places[3 * i + 1]! < 0.001,
  );

  test('is what plain Monte Carlo finds, also where the bake has no vertex', () => {
    expect(floor.length).toBeGreaterThan(100);
    let [worstBake, worst] = [0, 0];
    for (const i of floor.filter((_, n) => n % 9 === 0)) {
      const place = [...gather.places.subarray(3 * i, 3 * i + 3)] as Vec3;
      const truth = skyOn(place, 60_000);
      const baked = bakedAt(lit, place);
      worstBake = Math.max(worstBake, Math.abs(baked / truth - 1));
      worst = Math.max(worst, Math.abs((gather.factors[3 * i + 1]! * baked) / truth - 1));
    }
    expect(worst).toBeLessThan(0.02);
    // There was something to correct, and the bake by itself is near to it: the floor is cut where the block stands on it.
    expect(worstBake).toBeGreaterThan(2 * worst);
    expect(worstBake).toBeLessThan(0.07);
  });

  test('places and normals are those of the surfaces; the sky is left alone', () => {
    for (let i = 0; i < size * size; i += 1) {
      const [x, y, z] = [0, 1, 2].map((k) => gather.places[3 * i + k]!) as Vec3;
      if (gather.distances[i] === 0) {
        expect([...gather.factors.subarray(3 * i, 3 * i + 3)]).toEqual([1, 1, 1]);
        continue;
      }
      const { x: u, y: v } = projection.project([x, y, z]);
      expect(u).toBeCloseTo((2 * ((i % size) + 0.5)) / size - 1, 4);
      expect(v).toBeCloseTo(1 - (2 * (Math.floor(i / size) + 0.5)) / size, 4);
      const onBlock = Math.max(Math.abs(x), Math.abs(z)) < BOX.half + 1e-3 && y > 1e-3;
      const [nx, ny, nz] = [0, 1, 2].map((k) => gather.normals[3 * i + k]!) as Vec3;
      if (!onBlock) expect(ny).toBeCloseTo(1, 6);
      else expect(Math.max(Math.abs(nx), Math.abs(ny), Math.abs(nz))).toBeCloseTo(1, 5);
    }
    expect(gather.distances.some((distance) => distance === 0)).toBe(true);
  });

  test('what glows is left alone, however small: a bulb that is a lamp as a shining wall; switched off, it is corrected', () => {
    const bulb = { ...partOf(new BoxGeometry(0.2, 0.2, 0.2).translate(1.5, 0.8, 1.5), 1), name: 'bulb' };
    const { parts, materials } = scene();
    const glass = { ...materials[0]!, emissive: [1, 1, 1] as [number, number, number] };
    const withBulb: SceneModel = { parts: [...parts, bulb], materials: [...materials, glass], textures: [] };
    const onBulb = (light: SiteLight) => {
      const made = emptyGather(size, size);
      new PixelLight(bakeLight(withBulb, light), light).rows(projection, made, 16, 0, size);
      return Array.from({ length: size * size }, (_, i) => i).filter((i) => {
        const [x, y, z] = [0, 1, 2].map((k) => made.places[3 * i + k]! - [1.5, 0.8, 1.5][k]!) as Vec3;
        return made.distances[i]! > 0 && Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) < 0.101;
      });
    };
    expect(onBulb({ ...OVERCAST, lamps: { ...ALL_LIT, lit: false } }).length).toBeGreaterThan(2);
    expect(onBulb(OVERCAST)).toEqual([]);
  });

  test('rows that were gathered elsewhere are put where they belong', () => {
    const joined = emptyGather(size, size);
    for (let row = 0; row < size; row += 5) putRows(joined, rowsOf(gather, row, Math.min(size, row + 5)), row);
    expect(joined).toEqual(gather);
    expect(rowsOf(gather, 20, size).height).toBe(4);
  });

  test('the filter takes noise away and leaves planes and shadows apart', () => {
    const random = randomFrom(3);
    const [width, height] = [40, 24];
    const made: PixelGather = emptyGather(width, height);
    const truth = (x: number) => (x < 20 ? (x < 10 ? 0.3 : 1) : 1.6);
    for (let i = 0; i < width * height; i += 1) {
      const x = i % width;
      made.distances[i] = 5;
      // Floor on the left, half of it in deep shade, and a wall on the right.
      made.normals.set(x < 20 ? [0, 1, 0] : [1, 0, 0], 3 * i);
      made.places.set(x < 20 ? [x / 50, 0, Math.floor(i / width) / 50] : [0.4, (x - 20) / 50, i / 5000], 3 * i);
      for (let k = 0; k < 3; k += 1) made.factors[3 * i + k] = truth(x) * (1 + 0.4 * (random() - 0.5));
    }
    // Where the edge of the shadow is, it may soften by a few pixels.
    const apart = Array.from({ length: width * height }, (_, i) => i).filter((i) => Math.abs((i % width) - 9.5) > 3);
    const error = () =>
      Math.sqrt(
        apart.reduce((sum, i) => sum + (made.factors[3 * i + 1]! / truth(i % width) - 1) ** 2, 0) / apart.length,
      );
    const before = error();
    smoothGather(made);
    expect(error()).toBeLessThan(0.4 * before);
    const column = (x: number) =>
      Array.from({ length: height }, (_, y) => made.factors[3 * (y * width + x) + 1]!).reduce((a, b) => a + b) / height;
    expect(Math.abs(column(19) - 1)).toBeLessThan(0.08);
    expect(Math.abs(column(20) - 1.6)).toBeLessThan(0.1);
    expect(Math.abs(column(6) - 0.3)).toBeLessThan(0.03);
    expect(Math.abs(column(13) - 1)).toBeLessThan(0.08);
    expect(column(8)).toBeLessThan(column(11) - 0.25);
  });
});
