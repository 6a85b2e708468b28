import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry, type BufferGeometry } from 'three';
import { partOf } from '../../format/part.fixture.ts';
import type { SceneMaterial, SceneModel, ScenePart } from '../../format/index.ts';
import { randomFrom } from '../../random.fixture.ts';
import { bakeLight } from './index.ts';
import { clearSky } from './site-light.ts';

type Rgb = [number, number, number];

const material = (color: Rgb, emissive: Rgb = [0, 0, 0]): SceneMaterial => ({
  name: 'plain',
  color,
  opacity: 1,
  roughness: 1,
  metalness: 0,
  emissive,
  doubleSided: false,
  texture: null,
});
/** A box seen from inside. */
const room = (w: number, h: number, d: number, of: number): ScenePart => {
  const box = partOf(new BoxGeometry(w, h, d), of);
  return { ...box, normals: box.normals.map((value) => -value), indices: Uint32Array.from(box.indices).reverse() };
};
const model = (parts: ScenePart[], materials: SceneMaterial[]): SceneModel => ({ parts, materials, textures: [] });
const NIGHT = clearSky([0, -1, 0]);

/** Mean of the light over the area of a part, one channel. */
function meanLight({ positions: p, indices, light }: ScenePart, channel = 0): number {
  let [sum, whole] = [0, 0];
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
    const [ux, uy, uz] = [0, 1, 2].map((k) => p[b + k]! - p[a + k]!) as Rgb;
    const [vx, vy, vz] = [0, 1, 2].map((k) => p[c + k]! - p[a + k]!) as Rgb;
    const area = Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
    whole += area;
    sum += (area * (light!.ambient[a + channel]! + light!.ambient[b + channel]! + light!.ambient[c + channel]!)) / 3;
  }
  return sum / whole;
}

describe('light that bounces', () => {
  // White furnace: in a closed space whose walls give off E and throw back ρ, all light is E / (1 − ρ).
  test.each([0, 0.3, 0.5, 0.8])('white furnace with an albedo of %f', (albedo) => {
    const lit = bakeLight(model([room(5, 3, 4, 0)], [material([albedo, albedo, albedo], [0.4, 0.4, 0.4])]), NIGHT);
    const { ambient } = lit.parts[0]!.light!;
    const wanted = 0.4 / (1 - albedo);
    for (const value of ambient) expect(Math.abs(value / wanted - 1)).toBeLessThan(0.02);
  });

  // Source: catalogue of radiation configuration factors (Howell), C-11 and C-14, in their closed forms.
  const parallel = (x: number, y: number) =>
    (2 / (Math.PI * x * y)) *
    (Math.log(Math.sqrt(((1 + x * x) * (1 + y * y)) / (1 + x * x + y * y))) +
      x * Math.sqrt(1 + y * y) * Math.atan(x / Math.sqrt(1 + y * y)) +
      y * Math.sqrt(1 + x * x) * Math.atan(y / Math.sqrt(1 + x * x)) -
      x * Math.atan(x) -
      y * Math.atan(y));
  const perpendicular = (h: number, w: number) => {
    const [h2, w2] = [h * h, w * w];
    const both = h2 + w2;
    return (
      (1 / (Math.PI * w)) *
      (w * Math.atan(1 / w) +
        h * Math.atan(1 / h) -
        Math.sqrt(both) * Math.atan(1 / Math.sqrt(both)) +
        0.25 *
          Math.log(
            (((1 + w2) * (1 + h2)) / (1 + both)) *
              ((w2 * (1 + both)) / ((1 + w2) * both)) ** w2 *
              ((h2 * (1 + both)) / ((1 + h2) * both)) ** h2,
          ))
    );
  };
  test('the formulas are those of the tables', () => {
    // Source: the same tables; equal squares at a distance of their side, and with an edge in common.
    expect(parallel(1, 1)).toBeCloseTo(0.1998, 4);
    expect(perpendicular(1, 1)).toBeCloseTo(0.2, 4);
  });

  /** Mean light on a black plate in a black hall because of a plate that glows; a night's own is less than 1e-4. */
  const exchange = (plate: BufferGeometry, shining: BufferGeometry) => {
    const parts = [partOf(plate, 0), partOf(shining, 1), room(14, 14, 14, 0)];
    return meanLight(bakeLight(model(parts, [material([0, 0, 0]), material([0, 0, 0], [1, 1, 1])]), NIGHT).parts[0]!);
  };
  test.each([
    [4, 4, 4],
    [6, 3, 2],
    [3, 3, 6],
  ])('parallel plates of %f × %f m, %f m apart', (w, d, apart) => {
    const down = new PlaneGeometry(w, d).rotateX(Math.PI / 2).translate(0, apart, 0);
    const factor = exchange(new PlaneGeometry(w, d, 8, 8).rotateX(-Math.PI / 2), down);
    expect(Math.abs(factor / parallel(w / apart, d / apart) - 1)).toBeLessThan(0.02);
  });

  test.each([
    [4, 4, 4],
    [4, 2, 6],
  ])('perpendicular plates: a floor %f wide and %f deep, a wall %f high', (width, depth, height) => {
    // Light falls off steeply from the common edge: a mesh as fine as the gradient asks for.
    const floor = new PlaneGeometry(width, depth, width * 5, depth * 5)
      .rotateX(-Math.PI / 2)
      .translate(0, 0, depth / 2);
    const wall = new PlaneGeometry(width, height).translate(0, height / 2, 0);
    const factor = exchange(floor, wall);
    expect(Math.abs(factor / perpendicular(height / width, depth / width) - 1)).toBeLessThan(0.02);
  });

  test('a red wall reddens a white room as much as a plain path tracer says', () => {
    const [white, red, lamp] = [material([0.7, 0.7, 0.7]), material([0.7, 0.1, 0.1]), material([0, 0, 0], [3, 3, 3])];
    // A room of 4 × 3 × 4 m: five white sides, its west wall red, and a shining ceiling panel.
    const side = (w: number, h: number, turn: (g: BufferGeometry) => BufferGeometry, of: number) =>
      partOf(turn(new PlaneGeometry(w, h)), of);
    const parts = [
      side(4, 4, (g) => g.rotateX(-Math.PI / 2), 0),
      side(4, 4, (g) => g.rotateX(Math.PI / 2).translate(0, 3, 0), 0),
      side(4, 3, (g) => g.translate(0, 1.5, -2), 0),
      side(4, 3, (g) => g.rotateY(Math.PI).translate(0, 1.5, 2), 0),
      side(4, 3, (g) => g.rotateY(Math.PI / 2).translate(-2, 1.5, 0), 1),
      side(4, 3, (g) => g.rotateY(-Math.PI / 2).translate(2, 1.5, 0), 0),
      side(2, 2, (g) => g.rotateX(Math.PI / 2).translate(0, 2.95, 0), 2),
    ];
    const floor = bakeLight(model(parts, [white, red, lamp]), NIGHT).parts[0]!;
    const reference = traceFloor();
    for (const channel of [0, 1]) {
      const baked = meanLight(floor, channel);
      expect(Math.abs(baked / reference[channel]! - 1)).toBeLessThan(0.05);
    }
    expect(meanLight(floor, 0)).toBeGreaterThan(1.05 * meanLight(floor, 1));
  });

  test('what lies inside a wall takes the light of what is beside it', () => {
    // A floor that reaches into a thick wall: its edge is buried.
    const floor = partOf(new PlaneGeometry(8, 4, 16, 4).rotateX(-Math.PI / 2), 0);
    const wall = partOf(new BoxGeometry(2, 3, 6).translate(4, 0, 0), 0);
    const lit = bakeLight(model([floor, wall], [material([0.6, 0.6, 0.6])])).parts[0]!;
    const inside: number[] = [];
    const beside: number[] = [];
    for (let v = 0; v < lit.positions.length; v += 3) {
      if (lit.positions[v]! > 3.2) inside.push(lit.light!.ambient[v]!);
      else if (lit.positions[v]! > 2 && lit.positions[v]! < 3) beside.push(lit.light!.ambient[v]!);
    }
    expect(Math.min(...inside)).toBeGreaterThan(0.5 * Math.min(...beside));
  });
});

/** A path tracer for that one room: mean light on its floor, as a white surface would send it out, red and green. */
function traceFloor(): [number, number] {
  const random = randomFrom(7);
  const sum: [number, number] = [0, 0];
  const PATHS = 60_000;
  for (let i = 0; i < PATHS; i += 1) {
    let at: Rgb = [random() * 4 - 2, 0, random() * 4 - 2];
    let normal: Rgb = [0, 1, 0];
    let [red, green] = [1, 1];
    for (let bounce = 0; bounce < 60; bounce += 1) {
      const d = cosine(normal, random);
      const met = roomHit(at, d);
      if (met.glows) {
        sum[0] += red * 3;
        sum[1] += green * 3;
        break;
      }
      if (met.black) break;
      red *= 0.7;
      green *= met.red ? 0.1 : 0.7;
      if (Math.max(red, green) < 1e-4) break;
      ({ at, normal } = met);
    }
  }
  return [sum[0] / PATHS, sum[1] / PATHS];
}

function roomHit(at: Rgb, d: Rgb): { at: Rgb; normal: Rgb; red: boolean; glows: boolean; black: boolean } {
  const [low, high] = [
    [-2, 0, -2],
    [2, 3, 2],
  ] as [Rgb, Rgb];
  let [best, axis] = [Infinity, 0];
  for (let k = 0; k < 3; k += 1) {
    if (Math.abs(d[k]!) < 1e-12) continue;
    const t = ((d[k]! > 0 ? high[k]! : low[k]!) - at[k]!) / d[k]!;
    if (t > 1e-9 && t < best) [best, axis] = [t, k];
  }
  // The panel hangs 5 cm under the ceiling and shines downward; from above nothing of it is seen.
  const toPanel = d[1] !== 0 ? (2.95 - at[1]) / d[1] : -1;
  if (toPanel > 1e-9 && toPanel < best) {
    const [x, z] = [at[0] + d[0] * toPanel, at[2] + d[2] * toPanel];
    if (Math.abs(x) < 1 && Math.abs(z) < 1) return { at, normal: d, red: false, glows: d[1] > 0, black: d[1] <= 0 };
  }
  const normal: Rgb = [0, 0, 0];
  normal[axis] = d[axis]! > 0 ? -1 : 1;
  const place = at.map((value, k) => value + d[k]! * best) as Rgb;
  return { at: place, normal, red: axis === 0 && d[0] < 0, glows: false, black: false };
}

/** A direction over a wall that looks along an axis, by the cosine. */
function cosine(normal: Rgb, random: () => number): Rgb {
  const r = Math.sqrt(random());
  const a = 2 * Math.PI * random();
  const flat = [r * Math.cos(a), r * Math.sin(a)];
  const up = Math.sqrt(1 - r * r);
  let used = 0;
  return normal.map((value) => (value === 0 ? flat[used++]! : value * up)) as Rgb;
}
