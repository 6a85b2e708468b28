import { expect, test } from '@jest/globals';
import { PLAIN_MATERIAL, type SceneMaterial, type ScenePart } from '../format/index.ts';
import { groundTile, TILE_MEAN, TILE_METRES } from './ground-tile.ts';
import { withLandCover } from './land-cover.ts';

const GRASSLESS: SceneMaterial = { ...PLAIN_MATERIAL, name: 'Ground', color: [0.235, 0.25, 0.115] };

/** A square of ground of 40 × 40 cells, as high as is said, with the normals of those heights. */
function ground(cell: number, heightAt: (x: number, z: number) => number, more: Partial<ScenePart> = {}): ScenePart {
  const n = 41;
  const positions = new Float32Array(3 * n * n);
  const normals = new Float32Array(3 * n * n);
  const indices: number[] = [];
  for (let r = 0; r < n; r += 1)
    for (let c = 0; c < n; c += 1) {
      const [x, z] = [cell * c, cell * r];
      const [nx, nz] = [heightAt(x - 0.1, z) - heightAt(x + 0.1, z), heightAt(x, z - 0.1) - heightAt(x, z + 0.1)];
      const length = Math.hypot(nx, 0.2, nz);
      positions.set([x, heightAt(x, z), z], 3 * (r * n + c));
      normals.set([nx / length, 0.2 / length, nz / length], 3 * (r * n + c));
      const a = r * n + c;
      if (r < n - 1 && c < n - 1) indices.push(a, a + n, a + n + 1, a, a + n + 1, a + 1);
    }
  return {
    name: 'Hill',
    material: 0,
    positions,
    normals,
    uvs: null,
    light: null,
    indices: Uint32Array.from(indices),
    ...more,
  };
}
const hills = (x: number, z: number) => 12 * Math.sin(x / 60) * Math.cos(z / 50);
const coloursOf = (part: ScenePart, material: SceneMaterial = PLAIN_MATERIAL) =>
  withLandCover({ parts: [part], materials: [material], textures: [] }).parts[0]!.colors ?? null;

test('land without a look of its own is green and brown by patches, and much the same whatever its material was', () => {
  const plain = coloursOf(ground(10, hills))!;
  const grid = coloursOf(ground(10, hills, { role: 'terrain' }), GRASSLESS)!;
  const shown = (colours: Float32Array, { color }: SceneMaterial) =>
    colours.map((value, i) => value * TILE_MEAN * color[i % 3]!);
  const [a, b] = [shown(plain, PLAIN_MATERIAL), shown(grid, GRASSLESS)];
  expect(Math.max(...a.map((value, i) => Math.abs(value - b[i]!)))).toBeLessThan(1e-5);
  const greens = Array.from({ length: a.length / 3 }, (_, v) => a[3 * v + 1]! / a[3 * v]!);
  // Grown and dry land, both of them, and nothing brighter than dry grass or darker than grass.
  expect(Math.max(...greens)).toBeGreaterThan(1.15);
  expect(Math.min(...greens)).toBeLessThan(0.95);
  expect(Math.min(...a)).toBeGreaterThan(0.08);
  expect(Math.max(...a)).toBeLessThan(0.34);
  // Made again it is the same.
  expect(coloursOf(ground(10, hills))).toEqual(plain);
});

test('where it is steep it is bare, and level ground never is', () => {
  const slope = (degrees: number) => ground(10, (x) => x * Math.tan((degrees * Math.PI) / 180), { role: 'terrain' });
  const blueOf = (degrees: number) => {
    const colours = coloursOf(slope(degrees), GRASSLESS)!;
    return Array.from(
      { length: colours.length / 3 },
      (_, v) => (colours[3 * v + 2]! * 0.115) / (colours[3 * v]! * 0.235),
    );
  };
  for (const value of blueOf(50)) expect(value).toBeCloseTo(0.235 / 0.29, 2);
  for (const value of blueOf(5)) expect(value).toBeLessThan(0.53);
});

test('plates, small things, and what has a colour, a picture or light of its own stay as they came', () => {
  const hilly = ground(10, hills);
  expect(coloursOf(ground(10, () => 0))).toBeNull();
  expect(coloursOf(ground(0.5, (x, z) => hills(20 * x, 20 * z) / 20))).toBeNull();
  expect(coloursOf(hilly, { ...PLAIN_MATERIAL, color: [0.9, 0.9, 0.95] })).toBeNull();
  expect(coloursOf(hilly, { ...PLAIN_MATERIAL, texture: 0 })).toBeNull();
  expect(coloursOf(hilly, { ...PLAIN_MATERIAL, unlit: true })).toBeNull();
  const own = new Float32Array(hilly.positions.length).fill(0.5);
  expect(coloursOf({ ...hilly, colors: own })).toBe(own);
  // What rises steeply is a building, however large.
  expect(coloursOf(ground(10, (x) => (Math.floor(x / 20) % 2) * 60))).toBeNull();
});

test('who stands on it sees grain: a tile that goes on over its edges, half way between dark and light on the whole', () => {
  const rock: ScenePart = { ...ground(10, () => 0), material: 1 };
  const materials = [PLAIN_MATERIAL, { ...PLAIN_MATERIAL, texture: 0 }];
  const textures = [{ bytes: Uint8Array.of(1), mediaType: 'image/png' }];
  const site = withLandCover({ parts: [ground(10, hills), rock], materials, textures });
  const [land, other] = site.parts;
  expect(other).toBe(rock);
  expect(site.materials[land!.material]).toEqual({ ...PLAIN_MATERIAL, texture: 1 });
  expect(land!.uvs!.slice(2, 4)).toEqual(Float32Array.of(10 / TILE_METRES, 0));
  const { bytes, mediaType } = site.textures[1]!;
  expect([mediaType, bytes[0], bytes[1]]).toEqual(['image/bmp', 0x42, 0x4d]);
  const side = new DataView(bytes.buffer).getInt32(18, true);
  const share = (x: number, y: number) => (bytes[54 + 3 * (side * y + x)]! / 255) ** 2;
  const all = Array.from({ length: side * side }, (_, i) => share(i % side, Math.floor(i / side)));
  expect(all.reduce((sum, value) => sum + value, 0) / all.length).toBeCloseTo(TILE_MEAN, 2);
  // Over an edge it changes no more than from one pixel to the next inside.
  const step = (one: number, next: number) =>
    Array.from({ length: side }, (_, y) => Math.abs(share(one, y) - share(next, y))).reduce((a, b) => a + b, 0) / side;
  expect(step(side - 1, 0)).toBeLessThan(1.4 * step(side / 2, side / 2 + 1));
  expect(groundTile().bytes).toBe(bytes);
});
