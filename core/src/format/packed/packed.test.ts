import { describe, expect, test } from '@jest/globals';
import { boxGlb } from '../gltf/box-glb.fixture.ts';
import { FormatError, packModel, readGlb, unpackModel } from '../index.ts';

describe('the packed model', () => {
  test('gives back what was put in', async () => {
    const model = await readGlb(await boxGlb({ opacity: 0.3 }), 'box.glb');
    const { length } = model.parts[0]!.positions;
    model.parts[0]!.light = {
      ambient: Float32Array.from({ length }, (_, i) => (i % 7) / 3),
      sun: Float32Array.from({ length: length / 3 }, (_, i) => (i % 5) / 4),
    };
    const back = unpackModel(packModel(model));
    expect(back.materials).toEqual(model.materials);
    expect(back.parts[0]!.positions).toEqual(model.parts[0]!.positions);
    expect(back.parts[0]!.indices).toEqual(model.parts[0]!.indices);
    back.parts[0]!.normals.forEach((n, i) => expect(n).toBeCloseTo(model.parts[0]!.normals[i]!, 2));
    for (const channel of ['ambient', 'sun'] as const)
      back.parts[0]!.light![channel].forEach((l, i) => expect(l).toBeCloseTo(model.parts[0]!.light![channel][i]!, 2));
  });

  test('refuses what is none, is cut off or is of another version', async () => {
    const packed = packModel(await readGlb(await boxGlb(), 'box.glb'));
    expect(() => unpackModel(new Uint8Array(4))).toThrow(FormatError);
    expect(() => unpackModel(packed.subarray(0, packed.length - 8))).toThrow(/ends early/);
    const later = packed.slice();
    new DataView(later.buffer).setUint32(4, 99, true);
    expect(() => unpackModel(later)).toThrow(/version 99/);
  });
});
