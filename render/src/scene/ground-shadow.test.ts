import { PLAIN_MATERIAL, type SceneModel } from '@eskovan/core/format';
import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, Matrix4, type MeshBasicMaterial } from 'three';
import { castShadow } from './cast-shadow.ts';
import { GroundShadow } from './ground-shadow.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';

const boxModel = (size: [number, number, number], opacity = 1): SceneModel => ({
  parts: [partOf(new BoxGeometry(...size).translate(0, size[1] / 2, 0))],
  materials: [{ ...PLAIN_MATERIAL, opacity }],
  textures: [],
});

/** Hangs over the ground, which a crumb beside it lies on. */
const lifted = (size: [number, number, number], gap: number): SceneModel => ({
  ...boxModel(size),
  parts: [
    partOf(new BoxGeometry(...size).translate(0, gap + size[1] / 2, 0)),
    partOf(new BoxGeometry(0.001, 0.001, 0.001).translate(0.49, 0.0005, 0.49)),
  ],
});

/** Darkness at a place in plan, 0…1. */
const at = ({ values, x0, z0, size }: NonNullable<ReturnType<typeof castShadow>>, x: number, z: number) => {
  const side = Math.sqrt(values.length);
  return values[Math.floor(((z - z0) / size) * side) * side + Math.floor(((x - x0) / size) * side)]! / 255;
};

describe('the shadow on level ground', () => {
  test('falls away from the sun, as long as the sun is low, and is soft at its edge', () => {
    // The sun in the west at 45°: a box of two metres throws a shadow of two metres to the east.
    const cast = castShadow(boxModel([2, 2, 2]), [-Math.SQRT1_2, Math.SQRT1_2, 0])!;
    expect(cast.y).toBeCloseTo(0, 6);
    const [shade, sunlit] = [at(cast, 2.7, 0), at(cast, 3.5, 0)];
    expect(shade).toBeGreaterThan(0.4);
    expect(sunlit).toBeLessThan(0.02);
    const edge = at(cast, 3, 0);
    expect(edge).toBeGreaterThan(0.2 * shade);
    expect(edge).toBeLessThan(0.8 * shade);
  });

  test('is darkest where something stands, lighter beside it, and lighter under what hangs higher', () => {
    const plate = (gap: number) => castShadow(lifted([1, 0.02, 1], gap), null)!;
    // All of the sky is covered just over the ground; a plate as high as it is wide covers about a quarter of it
    // (parallel squares, form factor 0.20 between them, 0.24 at the middle; Howell, catalogue C-11, from memory).
    const [low, high] = [plate(0.01), plate(1)];
    expect(at(low, 0, 0)).toBeGreaterThan(0.44);
    expect(at(high, 0, 0) / at(low, 0, 0)).toBeGreaterThan(0.15);
    expect(at(high, 0, 0) / at(low, 0, 0)).toBeLessThan(0.5);
    // At the foot of a block half of the sky is gone, a few heights away hardly any.
    const block = castShadow(boxModel([4, 1, 4]), null)!;
    expect(at(block, 2.05, 0) / at(block, 0, 0)).toBeGreaterThan(0.3);
    expect(at(block, 2.05, 0) / at(block, 0, 0)).toBeLessThan(0.75);
    expect(at(block, 2.9, 0)).toBeLessThan(0.03);
    // Where it ends nothing is left: no edge shows on the ground.
    for (const cast of [low, high, block]) expect(Math.max(...cast.values.subarray(0, 256))).toBe(0);
  });

  test('is none of glass, and none where there is a landscape', () => {
    const glass = castShadow(boxModel([2, 2, 2], 0.3), [0, 1, 0])!;
    expect(Math.max(...glass.values)).toBe(0);
    expect(castShadow(boxModel([80, 0.01, 80]), [0, 1, 0])).toBeNull();
  });

  test('turns with what turns, and has room for it; what has gone away casts none', () => {
    const model = boxModel([4, 1, 0.5]);
    const sun = [0, 1, 0] as const;
    const turned = castShadow(model, sun, () => new Matrix4().makeRotationY(Math.PI / 2))!;
    expect(at(turned, 0, 1.7)).toBeGreaterThan(0.4);
    expect(at(turned, 1.7, 0)).toBeLessThan(0.02);
    const rest = castShadow(model, sun, () => null)!;
    expect(at(rest, 1.7, 0)).toBeGreaterThan(0.4);
    expect(rest.size).toBe(turned.size);
    expect(Math.max(...castShadow(model, sun, () => new Matrix4().makeTranslation(50, 0, 0))!.values)).toBe(0);
  });

  test('is cast anew only when something has moved', () => {
    const model = boxModel([4, 1, 0.5]);
    const shadow = GroundShadow.of(model, { sun: [0, 1, 0], sky: 'clear' }, () => 0)!;
    const { alphaMap } = shadow.mesh.material as MeshBasicMaterial;
    const drawn = () => alphaMap!.version;
    shadow.follow(() => new Matrix4());
    const before = drawn();
    shadow.follow(() => new Matrix4().makeRotationY(1));
    expect(drawn()).toBe(before + 1);
    shadow.follow(() => new Matrix4().makeRotationY(1));
    expect(drawn()).toBe(before + 1);
    // Where nothing moves it stays as it is.
    const still = GroundShadow.of(model, { sun: [0, 1, 0], sky: 'clear' })!;
    still.follow(() => new Matrix4().makeRotationY(1));
    expect((still.mesh.material as MeshBasicMaterial).alphaMap!.version).toBe(1);
  });
});
