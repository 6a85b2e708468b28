import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { BoxGeometry, Matrix4, PlaneGeometry, Quaternion, Vector3, type BufferGeometry } from 'three';
import { PLAIN_MATERIAL, type SceneMaterial, type ScenePart } from '../format/index.ts';
import { partOf } from '../format/part.fixture.ts';
import { layersOf, MOST_LAYERS } from './layers.ts';

const single: SceneMaterial = { ...PLAIN_MATERIAL, doubleSided: false };
const materials = Array.from({ length: 9 }, (_, i) => ({ ...single, name: `Material ${i}` }));

const part = (geometry: BufferGeometry, material: number, more: Partial<ScenePart> = {}): ScenePart => ({
  ...partOf(geometry, material),
  ...more,
});
const flat = (w: number, d: number, y = 0, x = 0, z = 0) =>
  new PlaneGeometry(w, d).rotateX(-Math.PI / 2).translate(x, y, z);
const layers = (parts: ScenePart[], of = materials) => [...layersOf({ parts, materials: of })];

describe('what lies on what', () => {
  test('the smaller lies on the larger, whatever comes first: a floor, a carpet, a mat on it', () => {
    const floor = part(flat(8, 6), 0);
    const carpet = part(flat(3, 2, 0, 1), 1);
    const mat = part(flat(0.6, 0.4, 0, 1.2), 2);
    expect(layers([floor, carpet, mat])).toEqual([0, 1, 2]);
    expect(layers([mat, floor, carpet])).toEqual([2, 0, 1]);
    // The mat lies beside the carpet: only the floor is below it.
    expect(layers([floor, carpet, part(flat(0.6, 0.4, 0, -2), 2)])).toEqual([0, 1, 1]);
  });

  test('nothing lies on what it only touches, goes through or stands on', () => {
    const floor = part(flat(8, 6), 0);
    expect(layers([floor, part(flat(8, 6, 0, 8), 1)])).toEqual([0, 0]);
    expect(layers([floor, part(new BoxGeometry(1, 1, 1).translate(0, 0.2, 0), 1)])).toEqual([0, 0]);
    // The underside of what stands on a floor faces the other way.
    expect(layers([floor, part(new BoxGeometry(1, 1, 1).translate(0, 0.5, 0), 1)])).toEqual([0, 0]);
    expect(layers([floor, part(flat(1, 1, 0.01), 1)])).toEqual([0, 0]);
  });

  test('a sheet that is seen from both sides lies on a floor whichever way it was drawn', () => {
    const turned = new PlaneGeometry(1, 1).rotateX(Math.PI / 2);
    const both = materials.map((material, i) => (i === 1 ? { ...material, doubleSided: true } : material));
    expect(layers([part(flat(8, 6), 0), part(turned, 1)], both)).toEqual([0, 1]);
    expect(layers([part(flat(8, 6), 0), part(turned, 1)])).toEqual([0, 0]);
  });

  test('what is meant to be behind stays behind: a beam in a wall, half a millimetre under its plaster', () => {
    const plaster = part(flat(4, 3), 0);
    const beam = (y: number) => part(new BoxGeometry(0.2, 0.2, 3.4).translate(0, y - 0.1, 0), 1);
    expect(layers([plaster, beam(-0.0005)])).toEqual([0, 0]);
    expect(layers([plaster, beam(0.0005)])).toEqual([0, 1]);
    expect(layers([plaster, beam(0)])).toEqual([0, 1]);
  });

  test('what looks alike needs no order; pictures and colours of their own do', () => {
    const [floor, patch] = [flat(8, 6), flat(1, 1)];
    expect(layers([part(floor, 0), part(patch, 0)])).toEqual([0, 0]);
    const pictured = materials.map((material) => ({ ...material, texture: 0 }));
    expect(layers([part(floor, 0), part(patch, 0)], pictured)).toEqual([0, 1]);
    expect(layers([part(floor, 0), part(patch, 0, { colors: new Float32Array(12) })])).toEqual([0, 1]);
  });

  test('what moves lies on nothing, and no pile is higher than can be drawn', () => {
    expect(layers([part(flat(8, 6), 0), part(flat(1, 1), 1, { joint: 0 })])).toEqual([0, 0]);
    const pile = Array.from({ length: 9 }, (_, i) => part(flat(9 - i, 9 - i), i));
    expect(layers(pile)).toEqual([0, 1, 2, 3, 4, 5, MOST_LAYERS, MOST_LAYERS, MOST_LAYERS]);
  });

  // Brute force beside it: every pair of rectangles of one plane, in any direction and far out.
  test('of rectangles on a plane of any direction just those that overlap are put in order', () => {
    const size = fc.double({ min: 0.2, max: 4, noNaN: true });
    const place = fc.double({ min: -4, max: 4, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(size, size, place, place), { minLength: 2, maxLength: 6 }),
        fc.tuple(place, place, place, fc.double({ min: -3, max: 3, noNaN: true })),
        fc.double({ min: -100, max: 100, noNaN: true }),
        (sheets, [x, y, z, angle], far) => {
          const axis = new Vector3(x, y, z + 5).normalize();
          const turn = new Matrix4().compose(
            new Vector3(far, -far / 3, far / 2),
            new Quaternion().setFromAxisAngle(axis, angle),
            new Vector3(1, 1, 1),
          );
          const parts = sheets.map(([w, d, u, v], i) => part(flat(w, d, 0, u, v).applyMatrix4(turn), i));
          const overlap = (i: number, j: number) => {
            const [[w, d, u, v], [W, D, U, V]] = [sheets[i]!, sheets[j]!];
            const gap = Math.max(Math.abs(u - U) - (w + W) / 2, Math.abs(v - V) - (d + D) / 2);
            return Math.abs(gap) < 0.002 ? null : gap < 0;
          };
          const pairs = sheets.flatMap((_, i) => sheets.slice(0, i).map((__, j) => overlap(i, j)));
          fc.pre(pairs.every((known) => known !== null));
          const area = (i: number) => sheets[i]![0] * sheets[i]![1];
          const order = sheets.map((_, i) => i).sort((i, j) => area(j) - area(i));
          fc.pre(order.slice(1).every((i, k) => area(order[k]!) - area(i) > 1e-3));
          const expected: number[] = sheets.map(() => 0);
          order.forEach((i, at) => {
            for (const j of order.slice(0, at))
              if (overlap(i, j)) expected[i] = Math.max(expected[i]!, expected[j]! + 1);
          });
          expect(layers(parts)).toEqual(expected);
        },
      ),
      { numRuns: 200 },
    );
  });
});
