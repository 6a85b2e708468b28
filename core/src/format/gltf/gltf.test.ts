import { Document, NodeIO } from '@gltf-transform/core';
import { KHRMeshQuantization } from '@gltf-transform/extensions';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { BoxGeometry } from 'three';
import { countTriangles, FormatError, packModel, readGlb, triangleSoup, unpackModel } from '../index.ts';
import { rawGlb } from './raw-glb.fixture.ts';

interface BoxOptions {
  scale?: [number, number, number];
  translation?: [number, number, number];
  normals?: boolean;
  opacity?: number;
  nested?: boolean;
}

/** A unit box written by an independent library. */
async function boxGlb(options: BoxOptions = {}): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const geometry = new BoxGeometry(1, 1, 1);
  const vec3 = (name: string) =>
    document
      .createAccessor()
      .setBuffer(buffer)
      .setType('VEC3')
      .setArray(Float32Array.from(geometry.getAttribute(name).array));
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', vec3('position'))
    .setIndices(document.createAccessor().setBuffer(buffer).setArray(Uint16Array.from(geometry.index!.array)))
    .setMaterial(
      document
        .createMaterial('Paint')
        .setBaseColorFactor([0.2, 0.4, 0.6, options.opacity ?? 1])
        .setAlphaMode(options.opacity === undefined ? 'OPAQUE' : 'BLEND'),
    );
  if (options.normals !== false) primitive.setAttribute('NORMAL', vec3('normal'));
  const node = document.createNode('Box').setMesh(document.createMesh('Box mesh').addPrimitive(primitive));
  if (options.scale) node.setScale(options.scale);
  if (options.translation) node.setTranslation(options.translation);
  const scene = document.createScene();
  scene.addChild(options.nested ? document.createNode('House').setTranslation([10, 0, 0]).addChild(node) : node);
  return new NodeIO().writeBinary(document);
}

const triangle = {
  asset: { version: '2.0' },
  scenes: [{ nodes: [0] }],
  nodes: [{ mesh: 0 }],
  meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
  accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' }],
  bufferViews: [{ buffer: 0, byteLength: 36 }],
  buffers: [{ byteLength: 64 }],
};
const floats = (...values: number[]) => {
  const bytes = new Uint8Array(64);
  new Float32Array(bytes.buffer).set(values);
  return bytes;
};

describe('reading GLB', () => {
  test('puts everything into world space and keeps names and materials', async () => {
    const model = await readGlb(await boxGlb({ scale: [2, 3, 4], translation: [0, 1.5, 0], nested: true }), 'box.glb');
    expect(countTriangles(model)).toBe(12);
    expect(model.parts[0]!.name).toBe('House / Box');
    expect(model.materials[0]).toMatchObject({ name: 'Paint', opacity: 1 });
    expect(model.materials[0]!.color[2]).toBeCloseTo(0.6, 6);
    const { soup } = triangleSoup(model);
    const axis = (k: number) => soup.filter((_, i) => i % 3 === k);
    expect([Math.min(...axis(0)), Math.max(...axis(0))]).toEqual([9, 11]);
    expect([Math.min(...axis(1)), Math.max(...axis(1))]).toEqual([0, 3]);
    expect([Math.min(...axis(2)), Math.max(...axis(2))]).toEqual([-2, 2]);
  });

  test('makes normals where the file has none, and turns mirrored triangles the right way round', async () => {
    for (const options of [{ normals: false }, { scale: [-1, 1, 1] as [number, number, number] }]) {
      const [part] = (await readGlb(await boxGlb(options), 'box.glb')).parts;
      const { positions: p, normals: n, indices } = part!;
      for (let k = 0; k < indices.length; k += 3) {
        const [a, b, c] = [indices[k]! * 3, indices[k + 1]! * 3, indices[k + 2]! * 3];
        const u = [0, 1, 2].map((i) => p[b + i]! - p[a + i]!);
        const v = [0, 1, 2].map((i) => p[c + i]! - p[a + i]!);
        const face = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
        const middle = [0, 1, 2].map((i) => p[a + i]! + p[b + i]! + p[c + i]!);
        const outward = face[0]! * middle[0]! + face[1]! * middle[1]! + face[2]! * middle[2]!;
        expect(outward).toBeGreaterThan(0);
        expect(n[a]! * middle[0]! + n[a + 1]! * middle[1]! + n[a + 2]! * middle[2]!).toBeGreaterThan(0);
      }
    }
  });

  test('knows glass', async () => {
    const model = await readGlb(await boxGlb({ opacity: 0.2 }), 'glass.glb');
    expect([...triangleSoup(model).seeThrough]).toEqual(Array(12).fill(1));
  });

  test('quantized coordinates are as large as they were', async () => {
    const document = new Document();
    document.createExtension(KHRMeshQuantization).setRequired(true);
    const position = document
      .createAccessor()
      .setBuffer(document.createBuffer())
      .setType('VEC3')
      .setNormalized(true)
      .setArray(Int16Array.of(-32767, 0, 0, 32767, 0, 0, 0, 32767, 0));
    const mesh = document.createMesh().addPrimitive(document.createPrimitive().setAttribute('POSITION', position));
    document.createScene().addChild(document.createNode('Sail').setMesh(mesh).setScale([4, 4, 4]));
    const bytes = await new NodeIO().registerExtensions([KHRMeshQuantization]).writeBinary(document);
    const { soup } = triangleSoup(await readGlb(bytes, 'sail.glb'));
    expect([...soup]).toEqual([-4, 0, 0, 4, 0, 0, 0, 4, 0].map((value) => expect.closeTo(value, 5)));
  });

  test('a single triangle without indices or material is a model', async () => {
    const model = await readGlb(rawGlb(triangle, floats(0, 0, 0, 1, 0, 0, 0, 1, 0)), 'one.glb');
    expect(countTriangles(model)).toBe(1);
  });
});

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
