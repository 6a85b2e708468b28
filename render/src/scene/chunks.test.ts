import { describe, expect, test } from '@jest/globals';
import { PLAIN_MATERIAL, type ScenePart } from '@eskovan/core/format';
import { daylight } from '@eskovan/core/survey';
import { BoxGeometry, BufferGeometry, DataUtils, PlaneGeometry } from 'three';
import { addPart, cellFor, detailOf, lookOf, type Chunk } from './chunks.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';
import { sheen } from './sheen.ts';

const part = partOf;
const day = daylight({ sun: [0, 1, 0], sky: 'clear' });
const chunksOf = (parts: ScenePart[], material = PLAIN_MATERIAL, finish = false) => {
  const chunks = new Map<string, Chunk>();
  for (const one of parts)
    addPart(
      one,
      material,
      { day, flat: false, finish, cell: 8, group: -1, held: false, dimmers: 0, dimmer: -1 },
      chunks,
    );
  return [...chunks.values()];
};
const cellsOf = (chunks: Chunk[]) => chunks.flatMap(({ cells }) => [...cells.values()]);
const triangles = (chunks: Chunk[]) => cellsOf(chunks).reduce((sum, { indices }) => sum + indices.length / 3, 0);

describe('merging for drawing', () => {
  test('keeps every triangle, whatever cells it falls into', () => {
    const floor = part(new PlaneGeometry(40, 40, 20, 20).rotateX(-Math.PI / 2));
    const chunks = chunksOf([floor, part(new BoxGeometry(1, 1, 1))]);
    expect(triangles(chunks)).toBe(800 + 12);
    expect(cellsOf(chunks).length).toBeGreaterThan(20);
    // In one mesh, with every vertex once.
    expect(chunks).toHaveLength(1);
    expect(chunks[0]!.positions.length / 3).toBe(21 * 21 + 24);
    for (const { indices } of cellsOf(chunks))
      for (const index of indices.done()) expect(index).toBeLessThan(21 * 21 + 24);
  });

  test('puts what looks alike and lies together into one', () => {
    const both = [part(new BoxGeometry(2, 2, 2).translate(4, 1, 4)), part(new BoxGeometry(2, 2, 2).translate(3, 1, 3))];
    expect(cellsOf(chunksOf(both))).toHaveLength(1);
  });

  test('keeps what lies in another storey in a cell of its own: it is seldom seen together', () => {
    const floors = [0, 9, 18].map((y) => part(new PlaneGeometry(2, 2).rotateX(-Math.PI / 2).translate(4, y, 4)));
    expect(cellsOf(chunksOf(floors))).toHaveLength(3);
  });

  test('what lies on others in one plane is drawn apart from them, in front', () => {
    const floor = part(new PlaneGeometry(2, 2).rotateX(-Math.PI / 2).translate(4, 0, 4));
    expect(chunksOf([floor, { ...floor, layer: 1 }, { ...floor, layer: 0 }])).toHaveLength(2);
    expect(lookOf(PLAIN_MATERIAL, -1, false, 2)).not.toBe(lookOf(PLAIN_MATERIAL, -1, false, 1));
    expect(lookOf(PLAIN_MATERIAL, -1, false, 0)).toBe(lookOf(PLAIN_MATERIAL));
  });

  test('small things have a short reach, large ones none', () => {
    expect(detailOf(0.05).reach).toBeLessThan(detailOf(0.3).reach);
    expect(detailOf(2).reach).toBe(Infinity);
  });

  test('a site of a million triangles gets fewer, larger cells', () => {
    const wide = part(new PlaneGeometry(400, 400).rotateX(-Math.PI / 2));
    expect(cellFor([wide], 1_000)).toBe(8);
    expect(cellFor([wide], 1_000_000)).toBeGreaterThan(20);
  });

  test('baked light, sun and vertex colours make the colour', () => {
    const geometry = new PlaneGeometry(2, 2).rotateX(-Math.PI / 2);
    const lit = (sun: number, colors: Float32Array | null) =>
      chunksOf([
        part(geometry, {
          light: { ambient: new Float32Array(12).fill(0.4), sun: new Float32Array(4).fill(sun) },
          colors,
        }),
      ])[0]!.colors.done()[0]!;
    expect(lit(1, null)).toBeGreaterThan(lit(0, null));
    expect(lit(1, new Float32Array(12).fill(0.2))).toBeLessThan(lit(1, null));
    const dark = { light: { ambient: new Float32Array(12).fill(0.1), sun: new Float32Array(4) } };
    // By hand: the material's colour times the light, as half floats keep it: to a thousandth.
    const half = chunksOf([part(geometry, dark)])[0]!.colors.done()[0]!;
    expect(DataUtils.fromHalfFloat(half) / (0.1 * PLAIN_MATERIAL.color[0])).toBeCloseTo(1, 3);
    const [finished] = chunksOf(
      [part(geometry, { light: { ambient: new Float32Array(12).fill(0.4), sun: new Float32Array(4).fill(1) } })],
      PLAIN_MATERIAL,
      true,
    );
    expect(finished!.finish).not.toBeNull();
  });

  test('a finished picture takes a surface for what the working view does: colour times picture, glow by its own picture', () => {
    const lit = part(new PlaneGeometry(2, 2).rotateX(-Math.PI / 2), {
      light: { ambient: new Float32Array(12).fill(0.4), sun: new Float32Array(4) },
      uvs: new Float32Array(8),
    });
    const emissive: [number, number, number] = [0, 0, 2];
    const of = (change: Partial<typeof PLAIN_MATERIAL>) => {
      const material = { ...PLAIN_MATERIAL, color: [0.5, 0.3, 0.1] as [number, number, number], ...change };
      const [chunk] = chunksOf([lit], material, true);
      const geometry = new BufferGeometry();
      chunk!.finish!.addTo(geometry);
      const read = (array: ArrayLike<number>) => [0, 1, 2].map((k) => DataUtils.fromHalfFloat(array[k]!));
      return { working: read(chunk!.colors.done()), finished: read(geometry.getAttribute('ambient').array) };
    };
    for (const change of [{}, { texture: 0 }, { emissive }, { emissive, emissiveTexture: 1 }]) {
      const { working, finished } = of(change);
      for (let k = 0; k < 3; k += 1) expect(finished[k]).toBeCloseTo(working[k]!, 2);
    }
    // And the two that glow are told apart.
    expect(of({ emissive }).finished[2]).toBeGreaterThan(1);
    expect(of({ emissive, emissiveTexture: 1 }).finished[2]).toBeLessThan(0.1);
  });

  test('a look tells glass, sides and textures apart', () => {
    expect(lookOf(PLAIN_MATERIAL)).toBe('solid|double|plain|||||');
    expect(lookOf({ ...PLAIN_MATERIAL, opacity: 0.2, doubleSided: false })).toBe('glass:20|single|plain|||||');
    expect(lookOf({ ...PLAIN_MATERIAL, texture: 3 })).toBe('solid|double|texture:3,|||||');
  });

  test('metal is bright where it faces the light of the room, dark aside; plaster is not', () => {
    const normals = Float32Array.of(0.45, 0.76, 0.47, 1, 0, -0.2);
    expect(sheen(0.9, normals, 0)).toBeGreaterThan(1.5);
    expect(sheen(0.9, normals, 1)).toBeLessThan(1);
    expect(sheen(0, normals, 0)).toBe(1);
  });
});
