import { describe, expect, test } from '@jest/globals';
import { countTriangles, packModel, readModel, unpackModel, type ReadModel } from './index.ts';
import { HUT, HUT_TRIANGLES, hutGlb, plainObj, ply, stl, zippedGltf, zippedObj } from './files.fixture.ts';
import { VOLCANO, VOLCANO_CELL, volcanoAsciiGrid, volcanoGeoTiff } from './heights.fixture.ts';

/** Size of everything together, in the file's own unit. */
function sizeOf({ parts }: ReadModel): [number, number, number] {
  const size = [0, 1, 2].map((axis) => {
    let [low, high] = [Infinity, -Infinity];
    for (const { positions } of parts)
      for (let k = axis; k < positions.length; k += 3) {
        low = Math.min(low, positions[k]!);
        high = Math.max(high, positions[k]!);
      }
    return high - low;
  });
  return size as [number, number, number];
}

const HUT_SIZE = [4.4, 2.8, 3.4];
const close = (values: readonly number[], digits = 4) => values.map((value) => expect.closeTo(value, digits));

// Outside check: every file here is written by a library that is not ours.
describe('formats that come in', () => {
  test.each([
    ['a GLB', () => hutGlb(), 'hut.glb'],
    ['a GLB with Draco compression', () => hutGlb({ compression: 'draco' }), 'hut.glb'],
    ['a GLB with meshopt compression', () => hutGlb({ compression: 'meshopt' }), 'hut.glb'],
    ['a zipped glTF', () => zippedGltf(), 'hut.zip'],
    ['an OBJ', () => Promise.resolve(plainObj()), 'hut.obj'],
    ['a zipped OBJ', () => Promise.resolve(zippedObj()), 'hut.zip'],
  ])('%s keeps size, triangles and names', async (_, make, name) => {
    const model = await readModel(await make(), name);
    expect(sizeOf(model)).toEqual(close(HUT_SIZE, 2));
    expect(countTriangles(model)).toBe(HUT_TRIANGLES);
    expect(model.parts.map((part) => part.name).sort()).toEqual(HUT.map((part) => part.name).sort());
  });

  test('glTF declares metres and Y up; OBJ, STL and PLY declare nothing', async () => {
    expect((await readModel(await hutGlb(), 'a.glb')).declares).toEqual({ metresPerUnit: 1, up: 'y' });
    for (const [bytes, name] of [
      [plainObj(), 'a.obj'],
      [stl(true), 'a.stl'],
      [ply(true), 'a.ply'],
    ] as const)
      expect((await readModel(bytes, name)).declares).toEqual({ metresPerUnit: null, up: null });
  });

  test('an OBJ finds its materials and textures in the zip, and says when they did not come', async () => {
    const zipped = await readModel(zippedObj(), 'hut.zip');
    const roof = zipped.parts.find(({ name }) => name === 'Roof')!;
    expect(zipped.materials[roof.material]).toMatchObject({ name: 'Slate', texture: null });
    const wall = zipped.parts.find(({ name }) => name === 'West wall')!;
    expect(zipped.materials[wall.material]!.texture).toBe(0);
    expect(zipped.textures[0]!.mediaType).toBe('image/png');
    expect(zipped.notes).toEqual([]);
    const text = new TextEncoder().encode(`mtllib gone.mtl\n${new TextDecoder().decode(plainObj())}`);
    expect((await readModel(text, 'hut.obj')).notes.join()).toMatch(/gone\.mtl/);
  });

  test.each([true, false])('STL, binary %s: the shape in its own millimetres', async (binary) => {
    const model = await readModel(stl(binary), 'hut.stl');
    expect(sizeOf(model)).toEqual(
      close(
        HUT_SIZE.map((value) => value * 1000),
        1,
      ),
    );
    expect(countTriangles(model)).toBe(HUT_TRIANGLES);
  });

  test.each([true, false])('PLY, binary %s: a sphere of 0.8 m', async (binary) => {
    const model = await readModel(ply(binary), 'lens.ply');
    expect(sizeOf(model)).toEqual(close([0.8, 0.8, 0.8], 2));
    // A sphere of 24 × 16 has 2 · 24 · 15 triangles.
    expect(countTriangles(model)).toBe(720);
  });

  test('cameras keep their names, places and exact angles; movements are told', async () => {
    const model = await readModel(
      await hutGlb({
        cameras: [
          { name: 'From the door', yfov: 0.8, at: [0, 1.6, 4] },
          { name: 'Wide', yfov: 1.4, at: [1, 2, 3] },
        ],
        animation: true,
      }),
      'hut.glb',
    );
    expect(model.cameras).toEqual([
      expect.objectContaining({
        name: 'From the door',
        verticalAngle: expect.closeTo(0.8, 6),
        position: [0, expect.closeTo(1.6, 6), 4],
      }),
      expect.objectContaining({ name: 'Wide', verticalAngle: expect.closeTo(1.4, 6) }),
    ]);
    expect(model.movements).toMatchObject([{ name: 'Lift the roof', duration: 2, targets: ['Roof'] }]);
    const back = unpackModel(packModel(model));
    expect(back.cameras).toEqual(model.cameras);
    expect(back.movements).toEqual(model.movements);
    expect(back.joints).toEqual(model.joints);
  });
});

// Outside check: heights of Maunga Whau; see the fixture for their source.
describe('terrain from heights', () => {
  test.each([
    ['ESRI ASCII grid', () => Promise.resolve(volcanoAsciiGrid()), 'volcano.asc'],
    ['GeoTIFF', () => volcanoGeoTiff(), 'volcano.tif'],
  ])('%s comes at true scale', async (_, make, name) => {
    const model = await readModel(await make(), name);
    const [width, height, depth] = sizeOf(model);
    expect(width).toBeCloseTo((VOLCANO.width - 1) * VOLCANO_CELL, 3);
    expect(depth).toBeCloseTo((VOLCANO.height - 1) * VOLCANO_CELL, 3);
    // 94 m and 195 m are the lowest and the highest place that the R manual's data set has.
    expect(height).toBeCloseTo(195 - 94, 3);
    expect(countTriangles(model)).toBe(2 * (VOLCANO.width - 1) * (VOLCANO.height - 1));
    // Every height is where it was measured, row by row from the north-west.
    const heightAt = new Map<string, number>();
    for (const { positions: p } of model.parts)
      for (let k = 0; k < p.length; k += 3) heightAt.set(`${Math.round(p[k]!)},${Math.round(p[k + 2]!)}`, p[k + 1]!);
    for (let r = 0; r < VOLCANO.height; r += 1)
      for (let c = 0; c < VOLCANO.width; c += 1) {
        const x = (c - (VOLCANO.width - 1) / 2) * VOLCANO_CELL;
        const z = (r - (VOLCANO.height - 1) / 2) * VOLCANO_CELL;
        expect(heightAt.get(`${Math.round(x)},${Math.round(z)}`)).toBeCloseTo(
          VOLCANO.values[r * VOLCANO.width + c]!,
          3,
        );
      }
  });
});
