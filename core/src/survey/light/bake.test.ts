import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry } from 'three';
import {
  cameWith,
  countTriangles,
  packModel,
  unpackModel,
  type SceneMaterial,
  type SceneModel,
  type ScenePart,
} from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { ALL_LIT, type SiteLight } from '../../document/index.ts';
import { bakeLight, daylight, LightBake, unlitLight } from './index.ts';
import { withBacks } from './sheets.ts';
import { AFTERNOON, clearSky } from './site-light.ts';

const plain: SceneMaterial = {
  name: 'plain',
  color: [0.8, 0.8, 0.8],
  opacity: 1,
  roughness: 1,
  metalness: 0,
  emissive: [0, 0, 0],
  doubleSided: true,
  texture: null,
};

const model = (parts: ScenePart[], materials = [plain]): SceneModel => ({ parts, materials, textures: [] });

/** Brightness of the vertex of a part that is nearest to a point. */
function lightAt(lit: ScenePart, x: number, y: number, z: number): number {
  let best = Infinity;
  let light = 0;
  for (let v = 0; v < lit.positions.length; v += 3) {
    const distance = Math.hypot(lit.positions[v]! - x, lit.positions[v + 1]! - y, lit.positions[v + 2]! - z);
    if (distance < best) {
      best = distance;
      const { ambient, sun } = lit.light!;
      light = ambient[v]! + ambient[v + 1]! + ambient[v + 2]! + 3.5 * sun[v / 3]!;
    }
  }
  return light;
}

const heavy = (triangles: number): SceneModel => model([{ ...ground(), indices: new Uint32Array(3 * triangles) }]);
const ground = () => partOf(new PlaneGeometry(10, 10).rotateX(-Math.PI / 2));

describe('light bake', () => {
  test('the open ground is bright; under a roof it is darker; a corner is darker still', () => {
    const overhead = [0, 1, 0] as const;
    const open = bakeLight(model([ground()]), clearSky(overhead)).parts[0]!;
    const roof = partOf(new BoxGeometry(6, 0.1, 6).translate(0, 2.5, 0));
    const wall = partOf(new BoxGeometry(6, 2.5, 0.1).translate(0, 1.25, -1));
    const under = bakeLight(model([ground(), roof, wall]), clearSky(overhead)).parts[0]!;
    expect(lightAt(under, 0, 0, 1)).toBeLessThan(0.7 * lightAt(open, 0, 0, 1));
    expect(lightAt(under, 0, 0, -0.8)).toBeLessThan(lightAt(under, 0, 0, 2));
  });

  test('the side to the sun is brighter than the side away from it', () => {
    const cube = bakeLight(model([partOf(new BoxGeometry(1, 1, 1))]), clearSky([1, 0, 0])).parts[0]!;
    expect(lightAt(cube, 0.5, 0, 0)).toBeGreaterThan(lightAt(cube, -0.5, 0, 0) + 0.5);
  });

  test('a rough light is there with a fraction of the rays, and is about the whole one', () => {
    const wall = partOf(new BoxGeometry(6, 2.5, 0.1).translate(0, 1.25, -1));
    const roof = partOf(new BoxGeometry(6, 0.1, 6).translate(0, 2.55, 1.9));
    const scene = model([ground(), wall, roof]);
    const bakes = [false, true].map((rough) => {
      const bake = new LightBake(scene, [AFTERNOON], rough);
      const block = bake.gather(0, bake.count);
      return { lit: bake.finish([block]), rays: block.rays.reduce((sum, count) => sum + count, 0) };
    });
    const [whole, rough] = bakes as [(typeof bakes)[0], (typeof bakes)[0]];
    expect(rough.rays).toBeLessThan(0.2 * whole.rays);
    const mean = ({ lit }: typeof whole, part: number) => {
      const { ambient } = lit.parts[part]!.light!;
      return ambient.reduce((sum, value) => sum + value, 0) / ambient.length;
    };
    for (const part of [0, 1]) expect(Math.abs(mean(rough, part) / mean(whole, part) - 1)).toBeLessThan(0.25);
    // No point is left without: those that were not asked have their neighbours'. Dark is only what is so in both.
    const dark = ({ lit }: typeof whole) => {
      const all = lit.parts.flatMap(({ light }) => [...light!.ambient]);
      return all.filter((value) => value < 0.01).length / all.length;
    };
    expect(dark(rough)).toBeLessThan(dark(whole) + 0.03);
    expect([LightBake.hasRough(scene), LightBake.hasRough(heavy(140_000))]).toEqual([true, false]);
  });

  test('what is unlit shows as it is, however dark it is there, and gives light to what is lit beside it', () => {
    // A scanned room: a closed box seen from inside, with a lit cube in it.
    const room = partOf(new BoxGeometry(4, 3, 4).translate(0, 1.5, 0).scale(-1, 1, 1), 1);
    const cube = partOf(new BoxGeometry(0.5, 0.5, 0.5).translate(0, 1, 0));
    const scan = (unlit: boolean): SceneMaterial => ({ ...plain, color: [0.8, 0.4, 0.2], unlit });
    const lit = bakeLight(model([cube, room], [plain, scan(false)]), AFTERNOON);
    const unlit = bakeLight(model([cube, room], [plain, scan(true)]), AFTERNOON);
    const shown = unlit.parts[1]!;
    expect(new Set(shown.light!.ambient)).toEqual(new Set([Math.fround(unlitLight(AFTERNOON))]));
    expect(Math.max(...shown.light!.sun)).toBe(0);
    expect(countTriangles({ ...unlit, parts: [shown] })).toBe(12);
    expect(lightAt(lit.parts[0]!, 0, 1, 0)).toBeLessThan(0.1);
    // All around it has the same radiance: on the cube falls as much (a closed furnace, by the radiosity equation), the
    // room's back wall excepted that the cube itself hides.
    const { ambient } = unlit.parts[0]!.light!;
    [0.8, 0.4, 0.2].forEach((color, k) => expect(ambient[k]! / unlitLight(AFTERNOON)).toBeCloseTo(color, 2));
    // By night the outdoors of a scan is as dark as what is built there.
    expect(unlitLight({ sun: [0.9, -0.4, 0], sky: 'clear' })).toBeLessThan(0.05 * unlitLight(AFTERNOON));
  });

  test('however much is unlit around it, a house is lit as finely as alone', () => {
    const house = [ground(), partOf(new BoxGeometry(6, 2.5, 0.1).translate(0, 1.25, -1))];
    const around = { ...partOf(new PlaneGeometry(1, 1), 1), indices: new Uint32Array(3 * 400_000) };
    const materials = [plain, { ...plain, unlit: true }];
    const [alone, together] = [model(house, materials), model([...house, around], materials)].map(
      (scene) => new LightBake(scene, [AFTERNOON]),
    );
    expect(together!.count - alone!.count).toBe(4);
    expect(LightBake.hasRough(model([...house, around], materials))).toBe(true);
  });

  test('several lights gathered together are what each of them is alone', () => {
    const glow: SceneMaterial = { ...plain, emissive: [1, 0.9, 0.7] };
    const lamp = { ...partOf(new BoxGeometry(0.08, 0.08, 0.08).translate(0, 1.5, 0), 1), model: 'm', name: 'Lamp' };
    const wall = partOf(new BoxGeometry(6, 2.5, 0.1).translate(0, 1.25, -1));
    const shining = { ...partOf(new BoxGeometry(2, 2, 0.02).translate(3, 1, 1), 1), model: 'm', name: 'Panel' };
    const scene = model([ground(), wall, lamp, shining], [plain, glow]);
    const off = (name: string) => ({ lit: true, except: [{ model: 'm', name }] });
    const lights: SiteLight[] = [
      AFTERNOON,
      { ...clearSky([0.98, -0.1, 0]), lamps: off('Lamp') },
      { sun: [0, 0.9, 0.43], sky: 'overcast', lamps: off('Panel') },
      { sun: [0, -0.1, 0.99], sky: 'overcast', lamps: { lit: false, except: [] } },
    ];
    const bake = new LightBake(scene, lights);
    const blocks = [bake.gather(0, 700), bake.gather(700, bake.count)];
    const means = lights.map((light, i) => {
      const [together, alone] = [bake.finish(blocks, i), bakeLight(scene, light)];
      for (const [p, part] of together.parts.entries()) expect(part.light).toEqual(alone.parts[p]!.light);
      return lightAt(together.parts[0]!, 0, 0, 0);
    });
    // And they are four different ones: the last has neither sun nor lamps.
    expect(new Set(means).size).toBe(4);
    expect(Math.min(...means)).toBe(means[3]);
    expect(Math.max(...bake.finish(blocks, 2).parts[0]!.light!.sun)).toBe(0);
  });

  test('open ground under a cover of cloud gets what the sky of the CIE gives: 7/9 of its zenith', () => {
    // Moon & Spencer 1942; CIE S 011: horizontal illuminance of the standard overcast sky is 7π/9 of its zenith.
    const light: SiteLight = { sun: [0, 0.6, 0.8], sky: 'overcast', lamps: ALL_LIT };
    const { zenith } = daylight(light);
    const flat = partOf(new PlaneGeometry(4, 4).rotateX(-Math.PI / 2));
    const { ambient } = bakeLight(model([flat]), light).parts[0]!.light!;
    for (let k = 0; k < 3; k += 1) expect(ambient[k]! / ((7 / 9) * zenith[k]!)).toBeCloseTo(1, 1);
    expect(Math.abs(ambient[1]! / ((7 / 9) * zenith[1]) - 1)).toBeLessThan(0.01);
  });

  test('a lamp lights what is under it, and its shade keeps the light from above', () => {
    const glow: SceneMaterial = { ...plain, emissive: [1, 0.9, 0.7] };
    const lamp = partOf(new BoxGeometry(0.08, 0.08, 0.08).translate(0, 1.5, 0), 1);
    const dark = bakeLight(model([ground()])).parts[0]!;
    const lit = bakeLight(model([ground(), lamp], [plain, glow])).parts[0]!;
    expect(lightAt(lit, 0, 0, 0)).toBeGreaterThan(lightAt(dark, 0, 0, 0) + 0.2);
  });

  test('two that share the work come to the same light as one', () => {
    const scene = model([ground(), partOf(new BoxGeometry(1, 1, 1).translate(0, 0.5, 0))]);
    const whole = bakeLight(scene);
    const [one, other] = [new LightBake(scene), new LightBake(scene)];
    const blocks = [];
    for (let from = 0, turn = 0; from < one.count; from += 37, turn += 1)
      blocks.push((turn % 2 ? one : other).gather(from, Math.min(one.count, from + 37)));
    // In whatever order they come.
    const shared = one.finish(blocks.reverse());
    shared.parts.forEach(({ light }, i) => expect(light).toEqual(whole.parts[i]!.light));
  });

  test('a wall drawn as a single face has the sun outside and the room inside, whichever way it was drawn', () => {
    // Five sheets without thickness: a room with its roof, its faces looking out or in.
    const sheet = (geometry: PlaneGeometry, out: boolean) => {
      const one = partOf(geometry);
      if (!out) one.indices = Uint32Array.from(one.indices).reverse();
      if (!out) one.normals = one.normals.map((value) => -value);
      return one;
    };
    const room = (out: boolean) => [
      ground(),
      sheet(new PlaneGeometry(4, 3).translate(0, 1.5, 2), out),
      sheet(new PlaneGeometry(4, 3).rotateY(Math.PI).translate(0, 1.5, -2), out),
      sheet(new PlaneGeometry(4, 3).rotateY(Math.PI / 2).translate(2, 1.5, 0), out),
      sheet(new PlaneGeometry(4, 3).rotateY(-Math.PI / 2).translate(-2, 1.5, 0), out),
      sheet(new PlaneGeometry(4, 4).rotateX(-Math.PI / 2).translate(0, 3, 0), out),
    ];
    for (const out of [true, false]) {
      const lit = bakeLight(model(room(out)), clearSky([0, 0.3, 0.95]));
      const south = lit.parts[1]!;
      const { material, normals, light } = south;
      expect(lit.materials[material]!.doubleSided).toBe(false);
      const sideOf = (sign: number) => {
        const suns: number[] = [];
        for (let v = 0; v < normals.length; v += 3) if (normals[v + 2]! * sign > 0.9) suns.push(light!.sun[v / 3]!);
        return suns;
      };
      expect(Math.min(...sideOf(1))).toBeGreaterThan(0.6);
      expect(sideOf(-1).length).toBe(sideOf(1).length);
      expect(Math.max(...sideOf(-1))).toBe(0);
    }
  });

  test('a closed body and a sheet that was drawn twice get no backs', () => {
    const twice = partOf(new PlaneGeometry(2, 2));
    const double = { ...twice, indices: Uint32Array.from([...twice.indices, ...[...twice.indices].reverse()]) };
    const scene = model([partOf(new BoxGeometry(1, 1, 1)), double]);
    expect(withBacks(scene)).toBe(scene);
    const glass = model([twice], [{ ...plain, opacity: 0.3 }]);
    expect(withBacks(glass)).toBe(glass);
    expect(withBacks(model([twice])).parts[0]!.indices).toHaveLength(12);
  });

  test('at night no sun falls anywhere, and the sky is dim', () => {
    const night = bakeLight(model([ground()]), clearSky([0, -0.5, 0.86])).parts[0]!;
    expect(Math.max(...night.light!.sun)).toBe(0);
    expect(lightAt(night, 0, 0, 0)).toBeLessThan(0.1 * lightAt(bakeLight(model([ground()])).parts[0]!, 0, 0, 0));
  });

  test('keeps the shape: the same area in more triangles', () => {
    const before = model([ground()], [{ ...plain, doubleSided: false }]);
    const after = bakeLight(before);
    const area = ({ positions: p, indices }: ScenePart) => {
      let sum = 0;
      for (let k = 0; k < indices.length; k += 3) {
        const [a, b, c] = [indices[k]! * 3, indices[k + 1]! * 3, indices[k + 2]! * 3];
        sum += Math.abs((p[b]! - p[a]!) * (p[c + 2]! - p[a + 2]!) - (p[c]! - p[a]!) * (p[b + 2]! - p[a + 2]!)) / 2;
      }
      return sum;
    };
    expect(area(after.parts[0]!)).toBeCloseTo(100, 3);
    expect(countTriangles(after)).toBeGreaterThan(countTriangles(before));
    expect(Math.min(...after.parts[0]!.light!.ambient)).toBeGreaterThanOrEqual(0);
  });

  test('a part that was cut finer and given a back still knows what it came with, packed as well', () => {
    const sheet = partOf(new PlaneGeometry(6, 6));
    const lit = bakeLight(model([sheet]));
    expect(lit.parts[0]!.indices.length).toBeGreaterThan(4 * sheet.indices.length);
    expect(cameWith(lit.parts[0]!)).toBe(2);
    expect(cameWith(unpackModel(packModel(lit)).parts[0]!)).toBe(2);
    expect(cameWith(sheet)).toBe(2);
  });
});
