import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FormatError, readGlb } from '../index.ts';
import { boxGlb } from './box-glb.fixture.ts';
import { floats, rawGlb, triangle } from './raw-glb.fixture.ts';

describe('broken files', () => {
  const with_ = (change: object) => ({ ...triangle, ...change });
  const cases: [string, () => Uint8Array | Promise<Uint8Array>, FormatError['code'], RegExp][] = [
    ['empty', () => new Uint8Array(0), 'empty', /empty/],
    ['eight bytes', () => new Uint8Array(8), 'wrong-type', /not a GLB/],
    ['text', () => new TextEncoder().encode('solid cube\n facet normal 0 0 1'), 'wrong-type', /not a GLB/],
    [
      'version 1',
      () => {
        const g = rawGlb(triangle);
        new DataView(g.buffer).setUint32(4, 1, true);
        return g;
      },
      'unsupported',
      /version 1/,
    ],
    ['cut off', async () => (await boxGlb()).subarray(0, 300), 'truncated', /ends after 300/],
    [
      'a claim of 2 GB',
      () => {
        const g = rawGlb(triangle);
        new DataView(g.buffer).setUint32(8, 2 ** 31, true);
        return g;
      },
      'truncated',
      /2147483648/,
    ],
    [
      'a chunk longer than the file',
      () => {
        const g = rawGlb(triangle);
        new DataView(g.buffer).setUint32(12, 2 ** 30, true);
        return g;
      },
      'damaged',
      /chunk at byte 12/,
    ],
    [
      'a description that is not JSON',
      () => {
        const g = rawGlb(triangle);
        g.fill(0x7b, 20, 40);
        return g;
      },
      'damaged',
      /not valid JSON/,
    ],
    ['a description that is a list', () => rawGlb([]), 'damaged', /scene description/],
    [
      'a node inside itself',
      () => rawGlb(with_({ nodes: [{ children: [1] }, { children: [0] }] })),
      'damaged',
      /contains itself/,
    ],
    [
      'a node with two parents',
      () => rawGlb(with_({ nodes: [{ children: [2] }, { children: [2] }, { mesh: 0 }] })),
      'damaged',
      /two parents/,
    ],
    ['a mesh that does not exist', () => rawGlb(with_({ nodes: [{ mesh: 7 }] })), 'damaged', /number 7/],
    [
      'an accessor outside its view',
      () => rawGlb(with_({ accessors: [{ bufferView: 0, componentType: 5126, count: 30, type: 'VEC3' }] })),
      'damaged',
      /accessor 0/,
    ],
    [
      'a view outside its buffer',
      () => rawGlb(with_({ bufferViews: [{ buffer: 0, byteOffset: 60, byteLength: 36 }] })),
      'damaged',
      /buffer view 0/,
    ],
    [
      'a buffer larger than the file',
      () => rawGlb(with_({ buffers: [{ byteLength: 2_000_000_000 }] })),
      'damaged',
      /claims 2000000000/,
    ],
    [
      'a buffer in another file',
      () => rawGlb(with_({ buffers: [{ byteLength: 64, uri: '../../etc/passwd' }] })),
      'unsupported',
      /another file/,
    ],
    [
      'coordinates that are no numbers',
      () => rawGlb(triangle, floats(0, 0, 0, Number.NaN, 0, 0, 0, 1, 0)),
      'damaged',
      /vertex 1/,
    ],
    [
      'coordinates beyond the earth',
      () => rawGlb(triangle, floats(0, 0, 0, 1e30, 0, 0, 0, 1, 0)),
      'damaged',
      /vertex 1/,
    ],
    [
      'an unknown required extension',
      () => rawGlb(with_({ extensionsRequired: ['EXT_of_nobody'] })),
      'unsupported',
      /EXT_of_nobody/,
    ],
    ['no triangles', () => rawGlb(with_({ nodes: [{}], meshes: undefined })), 'no-geometry', /no triangles/],
    [
      'lines only',
      () => rawGlb(with_({ meshes: [{ primitives: [{ attributes: { POSITION: 0 }, mode: 1 }] }] })),
      'no-geometry',
      /no triangles/,
    ],
    [
      'a count of minus one',
      () => rawGlb(with_({ accessors: [{ bufferView: 0, componentType: 5126, count: -1, type: 'VEC3' }] })),
      'damaged',
      /accessors\.0\.count/,
    ],
  ];
  test.each(cases)('%s: a message with the file, the place and what to do', async (_, make, code, says) => {
    const error = await readGlb(await make(), 'model.glb').then(
      () => null,
      (reason: unknown) => reason,
    );
    expect(error).toBeInstanceOf(FormatError);
    expect((error as FormatError).code).toBe(code);
    expect((error as FormatError).message).toMatch(says);
    expect((error as FormatError).message).toMatch(/^model\.glb: .*\. .*\.$/);
  });

  test('a triangle that names a vertex which is not there', async () => {
    const json = {
      ...triangle,
      meshes: [{ primitives: [{ attributes: { POSITION: 0 }, indices: 1 }] }],
      accessors: [...triangle.accessors, { bufferView: 1, componentType: 5121, count: 3, type: 'SCALAR' }],
      bufferViews: [...triangle.bufferViews, { buffer: 0, byteOffset: 40, byteLength: 3 }],
    };
    const bytes = floats(0, 0, 0, 1, 0, 0, 0, 1, 0);
    bytes.set([0, 1, 200], 40);
    await expect(readGlb(rawGlb(json, bytes), 'model.glb')).rejects.toThrow(/names vertex 200/);
  });

  test('random damage is refused or read, never anything else', async () => {
    const whole = await boxGlb();
    await fc.assert(
      fc.asyncProperty(fc.nat(whole.length - 1), fc.nat(255), async (at, value) => {
        const damaged = whole.slice();
        damaged[at] = value;
        try {
          await readGlb(damaged, 'model.glb');
        } catch (error) {
          expect(error).toBeInstanceOf(FormatError);
        }
      }),
      { numRuns: 300 },
    );
  });
});
