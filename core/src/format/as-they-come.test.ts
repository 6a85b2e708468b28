import { describe, expect, test } from '@jest/globals';
import { Document, NodeIO, type Primitive } from '@gltf-transform/core';
import { KHRTextureTransform } from '@gltf-transform/extensions';
import { strToU8 } from 'fflate';
import { BoxGeometry, Group, Mesh, Texture, Vector2, Vector3 } from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { TRIANGLE } from '../geometry/index.ts';
import { HUT, hutGlb } from './files.fixture.ts';
import { countTriangles, ownBounds, readModel, triangleSoup, type ReadModel } from './index.ts';

const obj = (...lines: string[]) => readModel(strToU8(lines.join('\n')), 'a.obj');

/** Area of all triangles, by Heron from their sides: nothing of the reader is used. */
function areaOf(model: ReadModel): number {
  const { soup } = triangleSoup(model);
  let area = 0;
  for (let o = 0; o < soup.length; o += TRIANGLE) {
    const side = (i: number, j: number) =>
      Math.hypot(...[0, 1, 2].map((k) => soup[o + 3 * i + k]! - soup[o + 3 * j + k]!));
    const [a, b, c] = [side(0, 1), side(1, 2), side(2, 0)];
    const s = (a + b + c) / 2;
    area += Math.sqrt(Math.max(0, s * (s - a) * (s - b) * (s - c)));
  }
  return area;
}

describe('polygons', () => {
  // Independent areas: the shoelace formula by hand.
  test.each([
    [
      'an L',
      [
        [0, 0],
        [4, 0],
        [4, 1],
        [1, 1],
        [1, 3],
        [0, 3],
      ],
      6,
    ],
    [
      'an arrow whose first corner is concave',
      [
        [0, 0],
        [3, 2],
        [0, 1],
        [-3, 2],
      ],
      3,
    ],
    [
      'a square with a square hole, by a cut line',
      [
        [0, 0],
        [4, 0],
        [4, 4],
        [0, 4],
        [0, 0],
        [1, 1],
        [1, 3],
        [3, 3],
        [3, 1],
        [1, 1],
      ],
      12,
    ],
    [
      'a comb',
      [
        [0, 0],
        [7, 0],
        [7, 3],
        [6, 3],
        [6, 1],
        [5, 1],
        [5, 3],
        [4, 3],
        [4, 1],
        [3, 1],
        [3, 3],
        [2, 3],
        [2, 1],
        [1, 1],
        [1, 3],
        [0, 3],
      ],
      15,
    ],
  ] as [string, number[][], number][])('%s keeps its area, in any plane, near and far', async (_, corners, area) => {
    for (const [far, place] of [
      [0, ([x, z]: number[]) => [x!, 0, -z!]],
      [0, ([x, y]: number[]) => [x!, y!, 0.5 * x!]],
      [500_000, ([x, y]: number[]) => [x!, y!, 0]],
    ] as [number, (corner: number[]) => number[]][]) {
      const model = await obj(
        ...corners.map(
          (corner) =>
            `v ${place(corner)
              .map((value, k) => value + (k === 1 ? 0 : far))
              .join(' ')}`,
        ),
        `f ${corners.map((_corner, i) => i + 1).join(' ')}`,
      );
      const stretched = place([1, 0])[2] === 0.5 ? Math.hypot(1, 0.5) : 1;
      expect(areaOf(model)).toBeCloseTo(area * stretched, 4);
    }
  });

  test('what has no area is left out, counted, and said as a share; so are lines and points', async () => {
    const model = await obj(
      'v 0 0 0',
      'v 1 0 0',
      'v 0 1 0',
      'v 2 0 0',
      'f 1 2 3',
      'f 1 2 4',
      'f 1 1 2',
      'f 1 2',
      'l 1 2 3',
      'l 2 3',
      'p 1',
    );
    expect(countTriangles(model)).toBe(1);
    expect(model.notes).toEqual([
      '3 faces have no area and are left out (75.0 % of the model’s faces).',
      '2 lines left out: only surfaces are shown.',
      '1 point left out: only surfaces are shown.',
    ]);
  });

  test('negative numbers, a line that goes on, faces before materials, and objects within groups', async () => {
    const model = await obj('o House', 'g Roof', 'v 0 0 0', 'v 1 0 0', 'v 1 1 0', 'v 0 1 0', 'f -4 -3 \\', '-2 -1');
    expect(model.parts.map(({ name }) => name)).toEqual(['House / Roof']);
    expect(countTriangles(model)).toBe(2);
  });

  test.each(['utf-16le', 'utf-16be'])('text in %s', async (encoding) => {
    const text = '\ufeffo Türme\nv 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n';
    const bytes = new Uint8Array(2 * text.length);
    const view = new DataView(bytes.buffer);
    [...text].forEach((character, i) => view.setUint16(2 * i, character.charCodeAt(0), encoding === 'utf-16le'));
    const model = await readModel(bytes, 'a.obj');
    expect(model.parts[0]!.name).toBe('Türme');
  });

  test('a PLY of one pentagon and one strip, by hand', async () => {
    const model = await readModel(
      strToU8(
        [
          'ply',
          'format ascii 1.0',
          'element vertex 9',
          'property double x',
          'property double y',
          'property double z',
          'element face 1',
          'property list uchar int vertex_indices',
          'element tristrips 1',
          'property list int int vertex_indices',
          'end_header',
          '0 0 0',
          '2 0 0',
          '2 2 0',
          '1 0.5 0',
          '0 2 0',
          '5 0 0',
          '5 1 0',
          '6 0 0',
          '6 1 0',
          '5 0 1 2 3 4',
          '4 5 6 7 8',
          '',
        ].join('\n'),
      ),
      'a.ply',
    );
    // Four less the notch of a triangle of base 2 and height 1.5; and a unit square.
    expect(areaOf(model)).toBeCloseTo(4 - 1.5 + 1, 5);
    expect(countTriangles(model)).toBe(5);
  });

  test('without normals of their own, edges are sharp and curves are smooth', async () => {
    const box = new OBJExporter()
      .parse(new Mesh(new BoxGeometry(1, 1, 1)))
      .replace(/^vn.*$/gm, '')
      .replace(/\/\d+\/\d+/g, '');
    const { parts } = await readModel(strToU8(box), 'box.obj');
    const { normals } = parts[0]!;
    for (let k = 0; k < normals.length; k += 3)
      expect(Math.max(...[0, 1, 2].map((i) => Math.abs(normals[k + i]!)))).toBeCloseTo(1, 5);
  });
});

/** A primitive of the given corners, written by an independent library. */
async function gltf(fill: (document: Document, primitive: Primitive) => void, node?: [number, number, number]) {
  const document = new Document();
  const buffer = document.createBuffer();
  const primitive = document.createPrimitive();
  fill(document, primitive);
  for (const accessor of document.getRoot().listAccessors()) accessor.setBuffer(buffer);
  const made = document.createNode('Thing').setMesh(document.createMesh().addPrimitive(primitive));
  if (node) made.setTranslation(node);
  document.createScene().addChild(made);
  return readModel(await new NodeIO().registerExtensions([KHRTextureTransform]).writeBinary(document), 'a.glb');
}
const vectors = (document: Document, type: 'VEC2' | 'VEC3', values: number[]) =>
  document.createAccessor().setType(type).setArray(Float32Array.from(values));

describe('glTF', () => {
  const ZIGZAG = [0, 0, 0, 0, 1, 0, 1, 0, 0, 1, 1, 0, 2, 0, 0];

  test.each([
    ['a strip', 5, ZIGZAG, 3, 1.5],
    ['a fan', 6, [0, 0, 0, 2, 0, 0, 2, 1, 0, 1, 2, 0, 0, 2, 0], 3, 3.5],
  ] as const)('%s is triangles that all face the same way', async (_, mode, corners, triangles, area) => {
    const model = await gltf((document, primitive) =>
      primitive.setMode(mode).setAttribute('POSITION', vectors(document, 'VEC3', [...corners])),
    );
    expect(countTriangles(model)).toBe(triangles);
    expect(areaOf(model)).toBeCloseTo(area, 5);
    const { normals } = model.parts[0]!;
    const facing = Math.sign(normals[2]!);
    for (let k = 2; k < normals.length; k += 3) expect(normals[k]! * facing).toBeCloseTo(1, 5);
  });

  test('pictures with holes, what shines by a picture, and the places of pictures', async () => {
    const png = Uint8Array.of(137, 80, 78, 71);
    const model = await gltf((document, primitive) => {
      const material = document
        .createMaterial('Leaves')
        .setAlphaMode('MASK')
        .setAlphaCutoff(0.3)
        .setBaseColorFactor([0.5, 0.4, 0.3, 1])
        .setBaseColorTexture(document.createTexture('leaf').setImage(png).setMimeType('image/png'))
        .setEmissiveFactor([1, 1, 1])
        .setEmissiveTexture(document.createTexture('glow').setImage(Uint8Array.of(1, 2)).setMimeType('image/png'));
      for (const info of [material.getBaseColorTextureInfo()!, material.getEmissiveTextureInfo()!])
        info
          .setTexCoord(1)
          .setExtension(
            'KHR_texture_transform',
            document
              .createExtension(KHRTextureTransform)
              .createTransform()
              .setOffset([0.25, 0.5])
              .setScale([3, 3])
              .setRotation(0.4),
          );
      primitive
        .setMaterial(material)
        .setAttribute('POSITION', vectors(document, 'VEC3', [0, 0, 0, 1, 0, 0, 0, 1, 0]))
        .setAttribute('TEXCOORD_0', vectors(document, 'VEC2', [9, 9, 9, 9, 9, 9]))
        .setAttribute('TEXCOORD_1', vectors(document, 'VEC2', [0, 0, 1, 0, 0.3, 0.7]));
    });
    expect(model.materials[0]).toMatchObject({
      color: [expect.closeTo(0.5, 5), expect.closeTo(0.4, 5), expect.closeTo(0.3, 5)],
      texture: 0,
      cutOut: expect.closeTo(0.3, 5),
      emissiveTexture: 1,
    });
    // Outside check: three's own matrix of a texture's place (equal scales, where its order and the standard's agree).
    const texture = new Texture();
    texture.offset.set(0.25, 0.5);
    texture.repeat.set(3, 3);
    texture.rotation = 0.4;
    texture.updateMatrix();
    const places = [
      [0, 0],
      [1, 0],
      [0.3, 0.7],
    ].flatMap(([u, v]) => new Vector2(u, v).applyMatrix3(texture.matrix).toArray());
    expect([...model.parts[0]!.uvs!]).toEqual(places.map((value) => expect.closeTo(value, 5)));
  });

  test('blended pictures are cut out, blended glass stays glass', async () => {
    const glb = (alpha: number, picture: boolean) =>
      gltf((document, primitive) => {
        const material = document.createMaterial().setAlphaMode('BLEND').setBaseColorFactor([1, 1, 1, alpha]);
        if (picture)
          material.setBaseColorTexture(document.createTexture().setImage(Uint8Array.of(1)).setMimeType('image/png'));
        primitive
          .setMaterial(material)
          .setAttribute('POSITION', vectors(document, 'VEC3', [0, 0, 0, 1, 0, 0, 0, 1, 0]));
      });
    expect((await glb(1, true)).materials[0]).toMatchObject({ opacity: 1, cutOut: 0.5 });
    const glass = (await glb(0.2, false)).materials[0]!;
    expect(glass.opacity).toBeCloseTo(0.2, 5);
    expect(glass.cutOut).toBeUndefined();
  });
});

describe('far from the origin', () => {
  const FAR = new Vector3(512_340, 41, -6_021_077);

  /** The hut with every coordinate moved, as text by three's exporter. */
  function farObj(): Uint8Array {
    const group = new Group();
    for (const { name, size, at } of HUT) {
      const mesh = new Mesh(new BoxGeometry(...size).translate(...at));
      mesh.name = name;
      group.add(mesh);
    }
    const near = new OBJExporter().parse(group);
    return strToU8(
      near.replace(
        /^v (\S+) (\S+) (\S+)$/gm,
        (_, ...xyz: string[]) =>
          `v ${[0, 1, 2].map((k) => (Number(xyz[k]) + FAR.getComponent(k)).toFixed(6)).join(' ')}`,
      ),
    );
  }

  test.each([
    ['OBJ vertices', async () => readModel(farObj(), 'far.obj')],
    [
      'a glTF node',
      async () => {
        const io = new NodeIO();
        const document = await io.readBinary(await hutGlb());
        const scene = document.getRoot().listScenes()[0]!;
        const top = document.createNode('Survey').setTranslation(FAR.toArray());
        for (const child of scene.listChildren()) top.addChild(child);
        scene.addChild(top);
        return readModel(await io.writeBinary(document), 'far.glb');
      },
    ],
  ])('%s: the same hut to a tenth of a millimetre, and its own coordinates are kept', async (_, make) => {
    const near = await readModel(await hutGlb(), 'near.glb');
    const far = await make();
    const [own, there] = [ownBounds(near)!, ownBounds(far)!];
    for (const k of [0, 1, 2] as const) {
      expect(Math.abs(there.min[k] - own.min[k] - FAR.getComponent(k))).toBeLessThan(1e-4);
      expect(Math.abs(there.max[k] - own.max[k] - FAR.getComponent(k))).toBeLessThan(1e-4);
    }
    const origin = new Vector3(...far.origin!).sub(FAR);
    const corners = (model: ReadModel, shift: Vector3) => {
      const { soup } = triangleSoup(model);
      return Array.from({ length: soup.length / 3 }, (_unused, i) =>
        new Vector3()
          .fromArray(soup, 3 * i)
          .add(shift)
          .toArray()
          .map((value) => Math.round(value * 1000))
          .join(),
      ).sort();
    };
    expect(new Set(corners(far, origin))).toEqual(new Set(corners(near, new Vector3())));
  });
});
