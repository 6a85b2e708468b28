import { describe, expect, test } from '@jest/globals';
import {
  BoxGeometry,
  CylinderGeometry,
  Matrix4,
  PlaneGeometry,
  SphericalHarmonics3,
  SphereGeometry,
  Vector3,
} from 'three';
import { ALL_LIT, type SiteLight } from '../../document/index.ts';
import { PLAIN_MATERIAL, type SceneMaterial, type SceneModel, type ScenePart } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { boundsOf } from '../../geometry/index.ts';
import { randomFrom } from '../../random.fixture.ts';
import { bakeLight } from './bake.ts';
import { FIELD, harmonics, soften } from './harmonics.ts';
import { MOVED, MovedLight, type MovedVertices } from './moved-light.ts';
import { cellSide, MovedField } from './moved-field.ts';
import { PlaceLight } from './place-light.ts';
import { SelfShade } from './self-shade.ts';

const evening: SiteLight = { sun: [0.3, -0.2, 0.93], sky: 'clear', lamps: ALL_LIT };
const material = (color: [number, number, number], emissive: [number, number, number] = [0, 0, 0]): SceneMaterial => ({
  ...PLAIN_MATERIAL,
  color,
  emissive,
});

/** A room that is open to one side, with a red wall, a lamp in a corner, and a thing with fins on its floor. */
function room(moved: Matrix4): SceneModel {
  const named = (name: string, geometry: Parameters<typeof partOf>[0], of = 0): ScenePart => ({
    ...partOf(geometry, of),
    model: 'm',
    name,
  });
  const thing = [
    new CylinderGeometry(0.25, 0.3, 1, 20, 4).translate(0.4, 0.75, -0.3),
    new BoxGeometry(0.9, 0.5, 0.06, 6, 3, 1).translate(0.4, 0.8, -0.3),
    new SphereGeometry(0.22, 16, 10).translate(0.4, 1.45, -0.3),
  ];
  return {
    materials: [material([0.75, 0.72, 0.65]), material([0.7, 0.15, 0.1]), material([1, 1, 1], [1, 0.8, 0.5])],
    textures: [],
    parts: [
      named('Floor', new BoxGeometry(5, 0.2, 4).translate(0, -0.1, 0)),
      named('Ceiling', new BoxGeometry(5, 0.2, 4).translate(0, 2.7, 0)),
      named('Back', new BoxGeometry(5, 2.6, 0.2).translate(0, 1.3, -2.1)),
      named('Red', new BoxGeometry(0.2, 2.6, 4).translate(-2.6, 1.3, 0), 1),
      named('Lamp', new SphereGeometry(0.06, 8, 6).translate(1.9, 1.6, -0.4), 2),
      ...thing.map((geometry, i) => named(`Thing / ${i}`, geometry.applyMatrix4(moved))),
    ],
  };
}
const isThing = ({ name }: { name: string }) => name.startsWith('Thing');
const about = (angle: number) =>
  new Matrix4()
    .makeTranslation(0.4, 0, -0.3)
    .multiply(new Matrix4().makeRotationY(angle))
    .multiply(new Matrix4().makeTranslation(-0.4, 0, 0.3));

/** The mean difference of the light on the thing, of its mean light. */
function off(light: (part: number, v: number, k: number) => number, truth: SceneModel): number {
  let [wrong, whole] = [0, 0];
  truth.parts.forEach((part, i) => {
    if (!isThing(part)) return;
    for (let n = 0; n < part.light!.ambient.length; n += 1) {
      const wanted = part.light!.ambient[n]!;
      wrong += Math.abs(light(i, Math.floor(n / 3), n % 3) - wanted);
      whole += wanted;
    }
  });
  return wrong / whole;
}

const movedLight = (place: PlaceLight, vertices: MovedVertices, shade: SelfShade | null = null) =>
  new MovedLight(new MovedField(place, boundsOf(vertices.positions)), vertices, shade);

describe('light of what moves', () => {
  const rest = bakeLight(room(new Matrix4()), evening);
  const place = new PlaceLight(rest, evening, (part) => !isThing(part));
  const movedBy = (matrix: Matrix4) =>
    rest.parts.map((part) => {
      if (!isThing(part)) return null;
      const out = new Float32Array((MOVED * part.positions.length) / 3);
      expect(movedLight(place, { ...part, ambient: part.light!.ambient }).at(matrix.elements, out)).toBe(true);
      return out;
    });

  // The truth is the same room with the thing turned or put elsewhere, baked from nothing: with what the thing itself
  // takes from the light of the room, which is not asked anew here.
  test.each([
    ['turned by 50°', about(0.87), 0.12],
    ['turned half', about(Math.PI), 0.22],
    ['by the red wall', new Matrix4().makeTranslation(-2, 0, 0.4), 0.16],
    ['turned, before the opening', new Matrix4().makeTranslation(0.3, 0, 1.6).multiply(about(2)), 0.16],
  ])('%s it is nearly what a bake of it there gives', (_, matrix, most) => {
    const truth = bakeLight(room(matrix), evening);
    const moved = movedBy(matrix);
    const baked = (i: number, v: number, k: number) => rest.parts[i]!.light!.ambient[3 * v + k]!;
    const found = off((i, v, k) => Math.max(0, baked(i, v, k) + moved[i]![MOVED * v + k]!), truth);
    const asItWas = off(baked, truth);
    expect(found).toBeLessThan(most);
    // Light that goes along is off by far more: the check can fail.
    expect(asItWas).toBeGreaterThan(4 * found);
  });

  test('where it rests nothing changes', () => {
    for (const factors of movedBy(new Matrix4()))
      if (factors) for (let n = 0; n < factors.length; n += 1) if (n % MOVED < 3) expect(factors[n]).toBeCloseTo(0, 5);
  });
});

test('cells are as large as things ask for, in few sizes, so that things share what was looked at', () => {
  const sizes = Array.from({ length: 200 }, (_, i) => 0.03 * 1.04 ** i);
  const sides = sizes.map(cellSide);
  expect(new Set(sides).size).toBe(8);
  for (const [i, size] of sizes.entries())
    if (size > 0.1 && size < 10) expect(Math.abs(Math.log2(sides[i]! / (0.4 * size)))).toBeLessThanOrEqual(0.5);
});

describe('the sun on what moves', () => {
  const noon: SiteLight = { sun: [0.6, 0.8, 0], sky: 'clear', lamps: ALL_LIT };
  const slab = (name: string, geometry: Parameters<typeof partOf>[0]): ScenePart => ({ ...partOf(geometry), name });
  const yard = bakeLight(
    {
      materials: [PLAIN_MATERIAL],
      textures: [],
      parts: [
        slab('Ground', new BoxGeometry(40, 0.4, 40).translate(0, -0.2, 0)),
        slab('Roof', new BoxGeometry(6, 0.2, 6).translate(12, 4, 0)),
        slab('Thing', new BoxGeometry(1, 1, 1).translate(0, 1, 0)),
      ],
    },
    noon,
  );
  const thing = yard.parts[2]!;
  const place = new PlaceLight(yard, noon, ({ name }) => name !== 'Thing');
  const sunBy = (matrix: Matrix4, shade: SelfShade | null = null) => {
    const out = new Float32Array((MOVED * thing.positions.length) / 3);
    expect(movedLight(place, { ...thing, ambient: thing.light!.ambient }, shade).at(matrix.elements, out)).toBe(true);
    return (facing: Vector3) => {
      const suns = Array.from({ length: out.length / MOVED }, (_, v) => v)
        .filter((v) => new Vector3().fromArray(thing.normals, 3 * v).dot(facing) > 0.99)
        .map((v) => out[MOVED * v + 3]!);
      return { least: Math.min(...suns), most: Math.max(...suns) };
    };
  };
  const [east, up] = [new Vector3(1, 0, 0), new Vector3(0, 1, 0)];

  test('stands while the thing turns, is away under a roof, and is shaded by the thing itself', () => {
    // Upon a turn by 60° to the north the side that faced east has the sun at cos 60° of what it had.
    const turned = sunBy(new Matrix4().makeRotationY(Math.PI / 3));
    expect(turned(east).least).toBeCloseTo(0.6 * Math.cos(Math.PI / 3), 4);
    expect(turned(up).least).toBeCloseTo(0.8, 4);
    expect(sunBy(new Matrix4().makeTranslation(9, 0, 0))(up).most).toBeCloseTo(0, 4);
    // 5 cm beside a shadow its top is in the sun, as far as a field can say that changes evenly along three axes (below a
    // corner it is dark); 5 cm within it is not. The edge lies where the roof’s upper one throws it.
    const edge = 9 - 0.75 * (4.1 - 1.5);
    const topBy = (x: number) => sunBy(new Matrix4().makeTranslation(x, 0, 0))(up);
    expect(topBy(edge - 0.55).least).toBeGreaterThan(0.59);
    expect(topBy(edge - 0.55).most).toBeCloseTo(0.8, 4);
    expect(topBy(edge + 0.55).most).toBeLessThan(0.01);
    // A sheet that goes along above it leaves its top in the shade, wherever both are.
    const over = new PlaneGeometry(2, 2)
      .rotateX(Math.PI / 2)
      .translate(0.5, 2, 0)
      .toNonIndexed();
    const shade = new SelfShade(Float32Array.from(over.getAttribute('position').array));
    expect(sunBy(new Matrix4().makeTranslation(1, 0, 0), shade)(up).most).toBe(0);
    expect(sunBy(new Matrix4().makeTranslation(1, 0, 0), shade)(east).most).toBeGreaterThan(0.5);
  });
});

describe('fields of light', () => {
  // three.js has the same functions, written by others; it leaves π in.
  test('fall on surfaces as three’s do', () => {
    const random = randomFrom(3);
    for (let round = 0; round < 20; round += 1) {
      const theirs = new SphericalHarmonics3();
      const field = new Float64Array(FIELD);
      for (let i = 0; i < 9; i += 1)
        for (let k = 0; k < 3; k += 1) {
          field[3 * i + k] = random() - 0.5;
          theirs.coefficients[i]!.setComponent(k, field[3 * i + k]!);
        }
      soften(field);
      const normal = new Vector3(random() - 0.5, random() - 0.5, random() - 0.5).normalize();
      const basis = new Float64Array(9);
      harmonics(normal.x, normal.y, normal.z, basis);
      const wanted = theirs.getIrradianceAt(normal, new Vector3()).toArray();
      for (let k = 0; k < 3; k += 1) {
        const ours = basis.reduce((sum, value, i) => sum + value * field[3 * i + k]!, 0);
        expect(Math.PI * ours).toBeCloseTo(wanted[k]!, 4);
      }
    }
  });
});
