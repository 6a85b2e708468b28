import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  AS_IT_CAME,
  FIRST_SUN,
  FIRST_WALKER,
  projectBodySchema,
  type Bounds,
  type ModelBody,
  type Placement,
} from '../document/index.ts';
import { PLAIN_MATERIAL, type SceneModel } from '../format/index.ts';
import { joinBounds } from '../geometry/index.ts';
import { viewAngles } from '../optics/index.ts';
import {
  assemble,
  dressModel,
  materialName,
  dropTo,
  placeBounds,
  placementMatrix,
  lightKey,
  ownLight,
  siteInput,
  siteKey,
  siteLight,
  sunDirection,
  sunPosition,
  unitName,
  viewOfCamera,
} from './index.ts';

const degrees = (radians: number) => (radians * 180) / Math.PI;
const box = (x: number, y: number, z: number): Bounds => ({ min: [0, 0, 0], max: [x, y, z] });

describe('the sun', () => {
  // Reda & Andreas 2004 (NREL/TP-560-34302), appendix A.5: Golden, Colorado. Their zenith is with refraction.
  test('stands where the worked example of the solar position algorithm has it', () => {
    const { azimuth, altitude } = sunPosition(new Date('2003-10-17T19:30:30Z'), 39.742476, -105.1786);
    expect(Math.abs(90 - degrees(altitude) - 50.11162)).toBeLessThan(0.01);
    expect(Math.abs(degrees(azimuth) - 194.34024)).toBeLessThan(0.01);
  });

  // At the equinox the sun passes the zenith of the equator; at the solstices it stands 23.44° off (the obliquity of
  // the ecliptic, Meeus 1998, chapter 22).
  test.each([
    ['2026-03-20T12:07:00Z', 0],
    ['2026-06-21T12:02:00Z', 23.44],
    ['2026-12-21T11:58:00Z', -23.44],
  ])('at noon of %s it stands over latitude %s°', (instant, latitude) => {
    expect(degrees(sunPosition(new Date(instant), latitude, 0).altitude)).toBeGreaterThan(89.4);
  });

  test('rises in the east, stands south at noon, sets in the west; north turns it', () => {
    const at = (instant: string, north = 0) =>
      sunDirection({ ...FIRST_SUN, latitude: 50, longitude: 0, instant, north });
    expect(at('2026-03-20T07:00:00Z')[0]).toBeGreaterThan(0.9);
    expect(at('2026-03-20T17:00:00Z')[0]).toBeLessThan(-0.9);
    // South is +Z on the plan.
    expect(at('2026-03-20T12:07:00Z')[2]).toBeGreaterThan(0.6);
    const turned = at('2026-03-20T12:07:00Z', Math.PI / 2);
    expect(turned[0]).toBeLessThan(-0.6);
  });

  test('is a unit vector at every time and place', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -90, max: 90, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        fc.integer({ min: 946_684_800, max: 4_102_444_800 }),
        (latitude, longitude, seconds) => {
          const instant = new Date(seconds * 1000).toISOString();
          const direction = sunDirection({ ...FIRST_SUN, latitude, longitude, instant });
          expect(Math.hypot(...direction)).toBeCloseTo(1, 9);
        },
      ),
    );
  });
});

describe('units', () => {
  test('units have names', () => {
    expect(unitName(0.0254)).toBe('inches');
    expect(unitName(0.5)).toBe('units of 0.5 m');
  });
});

describe('placing', () => {
  const place: Placement = { metresPerUnit: 0.001, up: 'z', turn: Math.PI / 2, position: [10, 2, -3] };

  test('scales, sets upright, turns, moves', () => {
    const at = (x: number, y: number, z: number) => {
      const e = placementMatrix(place).elements;
      return [0, 1, 2].map((k) => e[k]! * x + e[4 + k]! * y + e[8 + k]! * z + e[12 + k]!);
    };
    // One metre up in the file is one metre up here.
    expect(at(0, 0, 1000)).toEqual([expect.closeTo(10), expect.closeTo(3), expect.closeTo(-3)]);
    // East in the file, turned a quarter counter-clockwise seen from above, is north.
    expect(at(1000, 0, 0)).toEqual([expect.closeTo(10), expect.closeTo(2), expect.closeTo(-4)]);
  });

  test('bounds follow, and a dropped model stands on the ground', () => {
    const placed = placeBounds(box(4000, 3000, 2500), place);
    expect(placed.max.map((v, k) => v - placed.min[k]!)).toEqual([
      expect.closeTo(3),
      expect.closeTo(2.5),
      expect.closeTo(4),
    ]);
    expect(placeBounds(box(4000, 3000, 2500), dropTo(box(4000, 3000, 2500), place, 0.51)).min[1]).toBeCloseTo(0.51);
    expect(joinBounds([])).toBeNull();
    expect(joinBounds([box(1, 1, 1), { min: [-1, 0, 0], max: [0, 5, 0] }])).toEqual({
      min: [-1, 0, 0],
      max: [1, 5, 1],
    });
  });
});

const triangle = (name: string): SceneModel => ({
  parts: [
    {
      name,
      material: 0,
      positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 0, -1),
      normals: Float32Array.of(0, 1, 0, 0, 1, 0, 0, 1, 0),
      uvs: null,
      light: null,
      indices: Uint32Array.of(0, 1, 2),
    },
  ],
  materials: [{ ...PLAIN_MATERIAL, name: `${name} paint`, texture: 0 }],
  textures: [{ bytes: new Uint8Array(1), mediaType: 'image/png' }],
  rooms: [{ name: 'Room', elevation: 1, area: 4, outline: [0, 0, 2, 0, 2, 2, 0, 2] }],
  storeys: [{ name: 'Ground', elevation: 1 }],
});

describe('a site', () => {
  test('is all models in their places, each part knowing its model, materials and textures kept apart', () => {
    const site = assemble([
      { id: 'a', model: triangle('One'), placement: AS_IT_CAME },
      { id: 'b', model: triangle('Two'), placement: { ...AS_IT_CAME, position: [5, 1, 0] } },
    ]);
    expect(site.parts.map(({ name, model, material }) => [name, model, material])).toEqual([
      ['One', 'a', 0],
      ['Two', 'b', 1],
    ]);
    expect(site.materials.map(({ texture }) => texture)).toEqual([0, 1]);
    expect([...site.parts[1]!.positions.slice(0, 3)]).toEqual([5, 1, 0]);
    expect(site.rooms![1]).toMatchObject({ elevation: 2, outline: [5, 0, 7, 0, 7, 2, 5, 2] });
    expect(site.storeys!.map(({ elevation }) => elevation)).toEqual([1, 2]);
  });

  test('rooms and storeys of a file grow with it, and go where it is set upright another way', () => {
    const placed = (change: Partial<typeof AS_IT_CAME>) =>
      assemble([{ id: 'a', model: triangle('One'), placement: { ...AS_IT_CAME, ...change } }]);
    const { rooms, storeys } = placed({ metresPerUnit: 0.3048 });
    expect(rooms).toMatchObject([{ elevation: expect.closeTo(0.3048, 9), area: expect.closeTo(0.3716, 4) }]);
    expect(storeys).toMatchObject([{ elevation: expect.closeTo(0.3048, 9) }]);
    expect(placed({ up: 'z' })).toMatchObject({ rooms: [], storeys: [] });
  });

  const file = { sha256: 'a'.repeat(64), size: 1, mediaType: 'x/y' };
  const model = (change: Partial<ModelBody> = {}): ModelBody => ({
    fileName: 'a.glb',
    source: file,
    packed: { reader: 3, file },
    declares: { metresPerUnit: 1, up: 'y' },
    guess: null,
    settled: false,
    bounds: box(1, 1, 1),
    triangles: 1,
    placement: AS_IT_CAME,
    hidden: false,
    parts: {},
    materials: {},
    movements: [],
    notes: [],
    ...change,
  });
  const project = projectBodySchema.parse({});
  const keyOf = (models: { id: string; body: ModelBody }[], body = project, algorithm = 1) =>
    siteKey(siteInput(body, models, 3)!, algorithm);

  test('has another key when a model moves or the walker grows, and none when only looks or lights change', () => {
    const one = { id: '1', body: model() };
    const two = { id: '2', body: model() };
    const key = keyOf([one, two]);
    expect(key).toMatch(/^[0-9a-f]{28}$/);
    expect(keyOf([two, one])).toBe(key);
    expect(keyOf([{ ...one, body: model({ parts: { Wall: { hidden: true } } }) }, two])).toBe(key);
    expect(keyOf([one, two], { ...project, look: 'clay', client: 'Somebody' })).toBe(key);
    expect(keyOf([one, two], { ...project, sun: { ...FIRST_SUN, north: 1 }, sky: 'overcast' })).toBe(key);
    const others = [
      keyOf([one]),
      keyOf([one, { id: '2', body: model({ hidden: true }) }]),
      keyOf([one, { id: '2', body: model({ placement: { ...AS_IT_CAME, turn: 0.1 } }) }]),
      keyOf([one, two], { ...project, walker: { ...FIRST_WALKER, slope: 30 } }),
      keyOf([one, two], { ...project, storeyChanges: [{ found: 0, elevation: 0.2 }] }),
      keyOf([one, two], project, 2),
    ];
    expect(others).not.toContain(key);
  });

  test('shares its light with sites that differ only in who walks and in storeys', () => {
    const one = { id: '1', body: model() };
    const light = (body = project, moved = one) =>
      lightKey(siteInput(body, [moved], 3)!, siteLight(body, ownLight(body)), 1);
    const walker = { ...project, walker: { ...FIRST_WALKER, slope: 30 } };
    const storeys = { ...project, storeyChanges: [{ found: 0, elevation: 0.2 }] };
    expect([light(walker), light(storeys)]).toEqual([light(), light()]);
    expect(light({ ...project, sun: { ...FIRST_SUN, north: 1 } })).not.toBe(light());
    expect(light({ ...project, sky: 'overcast' })).not.toBe(light());
    expect(light({ ...project, lamps: { lit: false, except: [] } })).not.toBe(light());
    // How light its pictures are is a matter of the picture.
    expect(light({ ...project, exposure: 1 })).toBe(light());
    expect(light(project, { ...one, body: model({ placement: { ...AS_IT_CAME, turn: 0.1 } }) })).not.toBe(light());
    // What is unlit gives light to others; its colour says nothing of that, and of its place neither does.
    const unlit = { ...one, body: model({ materials: { Oak: { light: 'unlit', roughness: 0.2 } } }) };
    expect(light(project, unlit)).not.toBe(light());
    expect(light(project, { ...one, body: model({ materials: { Oak: { roughness: 0.2 } } }) })).toBe(light());
    expect(siteKey(siteInput(project, [unlit], 3)!, 1)).toBe(siteKey(siteInput(project, [one], 3)!, 1));
  });

  test('waits for models that must be read again', () => {
    expect(siteInput(project, [], 3)).toBeNull();
    expect(siteInput(project, [{ id: '1', body: model({ packed: null }) }], 3)).toBeNull();
    expect(siteInput(project, [{ id: '1', body: model() }], 4)).toBeNull();
  });
});

test('people decide what is lit, against what its file says', () => {
  const given = triangle('Hall / Wall');
  const placed = (lit: Record<string, boolean>, unlit?: boolean) =>
    assemble([
      {
        id: 'a',
        model: { ...given, materials: given.materials.map((one) => ({ ...one, ...(unlit ? { unlit } : {}) })) },
        placement: AS_IT_CAME,
        lit,
      },
    ]).materials[0]!.unlit ?? false;
  const name = materialName(given.materials[0]!);
  expect([placed({}), placed({}, true), placed({ [name]: false }), placed({ [name]: true }, true)]).toEqual([
    false,
    true,
    true,
    false,
  ]);
});

describe('dressing', () => {
  const site = assemble([{ id: 'a', model: triangle('Hall / Wall'), placement: AS_IT_CAME }]);

  test('leaves hidden parts out, and everything else when one is shown alone', () => {
    const hidden = { a: { 'Hall / Wall': { hidden: true } } };
    expect(dressModel(site, { look: 'natural', exposure: 0, parts: hidden, materials: {} }).parts).toEqual([]);
    expect(
      dressModel(site, {
        look: 'natural',
        exposure: 0,
        parts: hidden,
        materials: {},
        alone: { model: 'a', name: 'Hall' },
      }).parts,
    ).toHaveLength(1);
    expect(
      dressModel(site, { look: 'natural', exposure: 0, parts: {}, materials: {}, alone: { model: 'a', name: 'Hal' } })
        .parts,
    ).toEqual([]);
  });

  test('changes colours without touching what came with the file', () => {
    const dressed = dressModel(site, {
      look: 'natural',
      exposure: 0,
      parts: { a: { 'Hall / Wall': { color: [1, 0, 0] } } },
      materials: {},
    });
    expect(dressed.materials[dressed.parts[0]!.material]).toMatchObject({ color: [1, 0, 0], texture: null });
    expect(site.materials).toHaveLength(1);
  });

  test('a material changes wherever the model has it, but where a part has a look of its own', () => {
    const two = assemble([
      { id: 'a', model: triangle('Wall'), placement: AS_IT_CAME },
      { id: 'b', model: triangle('Wall'), placement: AS_IT_CAME },
    ]);
    const both = { ...two, parts: [...two.parts, { ...two.parts[0]!, name: 'Door' }] };
    const name = materialName(both.materials[0]!);
    const dressed = dressModel(both, {
      look: 'natural',
      exposure: 0,
      parts: { a: { Door: { color: [0, 0, 1] } } },
      materials: { a: { [name]: { color: [1, 0, 0], roughness: 0.2 } } },
    });
    const shown = dressed.parts.map((part) => {
      const { color, roughness } = dressed.materials[part.material]!;
      return { of: `${part.model} ${part.name}`, color, roughness };
    });
    const { color, roughness } = two.materials[1]!;
    expect(shown).toEqual([
      { of: 'a Wall', color: [1, 0, 0], roughness: 0.2 },
      // Another model's material of the same name is another material.
      { of: 'b Wall', color, roughness },
      { of: 'a Door', color: [0, 0, 1], roughness: 0.2 },
    ]);
    expect(materialName({ name: ' ' })).toBe('Without a name');
  });

  test('a lamp that is switched off does not glow, in any look', () => {
    const lamp = { ...site, materials: [{ ...site.materials[0]!, emissive: [1, 1, 1] as [number, number, number] }] };
    const glow = (look: 'natural' | 'clay', lit: boolean) => {
      const dressed = dressModel(lamp, { look, exposure: 0, parts: {}, materials: {}, lamps: { lit, except: [] } });
      return dressed.materials[dressed.parts[0]!.material]!.emissive;
    };
    expect([glow('natural', true), glow('natural', false), glow('clay', true), glow('clay', false)]).toEqual([
      [1, 1, 1],
      [0, 0, 0],
      [1, 1, 1],
      [0, 0, 0],
    ]);
  });

  test('clay makes solids clay, and keeps glass', () => {
    const glass = { ...site, materials: [{ ...site.materials[0]!, opacity: 0.2 }] };
    expect(dressModel(glass, { look: 'clay', exposure: 0, parts: {}, materials: {} }).parts[0]!.material).toBe(0);
    const clay = dressModel(site, { look: 'clay', exposure: 0, parts: {}, materials: {} });
    expect(clay.materials[clay.parts[0]!.material]!.name).toBe('Clay');
  });
});

describe('cameras of files', () => {
  const camera = {
    name: 'Door',
    position: [1, 2, 3] as [number, number, number],
    orientation: [0, 0, 0, 1] as [number, number, number, number],
    verticalAngle: 0.8,
    aspect: 1.5,
  };

  test('become views with the exact vertical angle in the project’s pictures', () => {
    for (const aspect of [16 / 9, 1, 9 / 16, 2.39]) {
      const view = viewOfCamera(camera, AS_IT_CAME, aspect)!;
      expect(viewAngles(view.lens, aspect).vertical).toBeCloseTo(0.8, 9);
      expect(view.pose.position).toEqual([1, 2, 3]);
    }
  });

  test('stand where their model was put', () => {
    const { pose } = viewOfCamera(camera, { metresPerUnit: 0.001, up: 'y', turn: Math.PI, position: [0, 1, 0] }, 1.5)!;
    expect(pose.position).toEqual([expect.closeTo(-0.001), expect.closeTo(1.002), expect.closeTo(-0.003)]);
    expect(Math.abs(pose.orientation[1])).toBeCloseTo(1);
  });

  test('without perspective or with angles that no lens sees are none', () => {
    expect(viewOfCamera({ ...camera, verticalAngle: null }, AS_IT_CAME, 1.5)).toBeNull();
    const parallel = { ...camera, verticalAngle: null, height: 800 };
    expect(viewOfCamera(parallel, { ...AS_IT_CAME, metresPerUnit: 0.01 }, 1.5)!.lens.parallel).toBeCloseTo(8, 9);
    expect(viewOfCamera({ ...camera, verticalAngle: 0.0001 }, AS_IT_CAME, 1.5)).toBeNull();
  });
});
