import { strToU8, zipSync } from 'fflate';
import { hutGlb, plainObj, ply as plyFile, stl, zippedGltf } from './files.fixture.ts';
import { rawGlb } from './gltf/raw-glb.fixture.ts';
import { volcanoAsciiGrid, volcanoGeoTiff } from './heights.fixture.ts';
import { writeIfc } from './ifc/ifc-house.fixture.ts';

export interface BrokenFile {
  what: string;
  name: string;
  bytes: Uint8Array;
  /** What its message must say. */
  says: RegExp;
  /** Only a part of it is broken: the model comes in without that part, and a note says so. */
  partly?: boolean;
}

const text = strToU8;
const cut = (bytes: Uint8Array, part: number) => bytes.slice(0, Math.floor(bytes.length * part));

const triangle = (change: object = {}) => ({
  asset: { version: '2.0' },
  scenes: [{ nodes: [0] }],
  nodes: [{ mesh: 0, name: 'Wall' }],
  meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
  accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' }],
  bufferViews: [{ buffer: 0, byteLength: 36 }],
  buffers: [{ byteLength: 64 }],
  ...change,
});

function withUint32(bytes: Uint8Array, offset: number, value: number): Uint8Array {
  const out = bytes.slice();
  new DataView(out.buffer).setUint32(offset, value, true);
  return out;
}

/** A zip whose directory claims that its one file unpacks to `claim` bytes. */
function lyingZip(claim: number): Uint8Array {
  const zip = zipSync({ 'house.obj': plainObj() });
  const view = new DataView(zip.buffer);
  for (let k = 0; k < zip.length - 4; k += 1)
    if (view.getUint32(k, true) === 0x02014b50) view.setUint32(k + 24, claim, true);
  return zip;
}

/** Files that are broken in one way each, as they come from real copies, exports and pranks. */
export async function brokenFiles(): Promise<BrokenFile[]> {
  const [hut, zipped, tiff, ifc] = await Promise.all([
    hutGlb(),
    zippedGltf(),
    volcanoGeoTiff(),
    writeIfc([{ name: 'Ground', elevation: 0 }], [{ name: 'W', type: 'wall', from: [0, 0, 0], to: [4, 0.3, 2] }], []),
  ]);
  const corner = new Uint8Array(64);
  new Float32Array(corner.buffer).set([0, 0, 0, 1, 0, 0, 0, 1, 0]);
  const nan = new Uint8Array(64);
  new DataView(nan.buffer).setFloat32(0, Number.NaN, true);
  const asc = new TextDecoder().decode(volcanoAsciiGrid());
  const file = (what: string, name: string, bytes: Uint8Array, says: RegExp): BrokenFile => ({
    what,
    name,
    bytes,
    says,
  });
  return [
    file('nothing at all', 'empty.glb', new Uint8Array(0), /empty/i),
    file('a text file', 'notes.txt', text('Meeting at noon.'), /no model that can be read/),
    file('a picture', 'photo.png', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 0), /no model that can be read/),
    file(
      'a picture called GLB',
      'photo.glb',
      Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 0, 0, 0, 0, 0),
      /not a GLB/,
    ),
    file('a GLB cut off', 'cut.glb', cut(hut, 0.6), /ends after/),
    file('a GLB of another version', 'old.glb', withUint32(hut, 4, 1), /version 1/),
    file('a GLB that claims two gigabytes', 'claim.glb', withUint32(hut, 8, 2_147_483_648), /2147483648 bytes/),
    file('a chunk longer than its file', 'chunk.glb', withUint32(hut, 12, 99_999_999), /longer than the file/),
    file(
      'a description that is no JSON',
      'json.glb',
      hut.map((byte, i) => (i === 20 ? 0x21 : byte)),
      /not valid JSON/,
    ),
    file(
      'a scene inside itself',
      'loop.glb',
      rawGlb(triangle({ nodes: [{ children: [1] }, { children: [0], mesh: 0 }] })),
      /itself|ancestor|cycle|children/i,
    ),
    file('a node that is not there', 'node.glb', rawGlb(triangle({ scenes: [{ nodes: [7] }] })), /node/i),
    file('coordinates that are no numbers', 'nan.glb', rawGlb(triangle(), nan), /NaN/),
    file(
      'a triangle of vertices that are not there',
      'index.glb',
      rawGlb(
        triangle({
          meshes: [{ primitives: [{ attributes: { POSITION: 0 }, indices: 1 }] }],
          accessors: [
            { bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' },
            { bufferView: 1, componentType: 5123, count: 3, type: 'SCALAR' },
          ],
          bufferViews: [
            { buffer: 0, byteLength: 36 },
            { buffer: 0, byteOffset: 36, byteLength: 6 },
          ],
        }),
        new Uint8Array(64).fill(9),
      ),
      /vertex/i,
    ),
    file(
      'more values than bytes',
      'count.glb',
      rawGlb(triangle({ accessors: [{ bufferView: 0, componentType: 5126, count: 900_000, type: 'VEC3' }] })),
      /accessor 0/i,
    ),
    file(
      'billions of values without any bytes',
      'ghost.glb',
      rawGlb(triangle({ accessors: [{ componentType: 5126, count: 4_000_000_000, type: 'VEC3' }] })),
      /accessor 0|claims/i,
    ),
    file(
      'a movement of a node that is not there',
      'ghost-node.glb',
      rawGlb(
        triangle({
          animations: [
            {
              channels: [{ sampler: 0, target: { node: 9, path: 'translation' } }],
              samplers: [{ input: 0, output: 0 }],
            },
          ],
        }),
      ),
      /animation 0\.channels\.target names number 9/,
    ),
    file(
      'a movement without its keys',
      'no-keys.glb',
      rawGlb(
        triangle({
          animations: [
            {
              channels: [{ sampler: 0, target: { node: 0, path: 'translation' } }],
              samplers: [{ input: 4, output: 5 }],
            },
          ],
        }),
      ),
      /animation 0\.samplers\.input names number 4/,
    ),
    file(
      'only a camera',
      'camera.glb',
      rawGlb({
        asset: { version: '2.0' },
        scenes: [{ nodes: [0] }],
        nodes: [{ camera: 0 }],
        cameras: [{ type: 'perspective', perspective: { yfov: 0.8, znear: 0.1 } }],
      }),
      /no triangles/,
    ),
    {
      ...file(
        'a camera of 400 degrees',
        'wide.glb',
        rawGlb(
          triangle({
            nodes: [{ mesh: 0, camera: 0 }],
            cameras: [{ type: 'perspective', perspective: { yfov: 6.98, znear: 0.1 } }],
          }),
          corner,
        ),
        /camera/i,
      ),
      partly: true,
    },
    {
      ...file(
        'a movement whose keys are no times',
        'still.glb',
        rawGlb(
          triangle({
            accessors: [
              { bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' },
              { bufferView: 0, componentType: 5126, count: 2, type: 'SCALAR' },
            ],
            animations: [
              {
                name: 'Slide',
                channels: [{ sampler: 0, target: { node: 0, path: 'translation' } }],
                samplers: [{ input: 1, output: 0 }],
              },
            ],
          }),
          corner,
        ),
        /“Slide” cannot be played: the times of its keys do not rise/,
      ),
      partly: true,
    },
    file(
      'an extension nobody knows',
      'extension.glb',
      rawGlb(triangle({ extensionsRequired: ['X_secret_sauce'], extensionsUsed: ['X_secret_sauce'] })),
      /X_secret_sauce/,
    ),
    file(
      'a glTF without its binary',
      'alone.gltf',
      text(JSON.stringify(triangle({ buffers: [{ byteLength: 64, uri: 'walls.bin' }] }))),
      /walls\.bin/,
    ),
    file('a zip cut off', 'cut.zip', cut(zipped, 0.5), /cannot be unpacked/),
    file('a zip without a model', 'letters.zip', zipSync({ 'letter.txt': text('Dear all') }), /holds no model/),
    file(
      'a zip that reaches outside',
      'escape.zip',
      zipSync({ '../../etc/passwd': text('x'), 'a.obj': plainObj() }),
      /outside itself/,
    ),
    file('a zip with an absolute path', 'absolute.zip', zipSync({ '/etc/house.obj': plainObj() }), /outside itself/),
    file(
      'a zip that swells a thousandfold',
      'bomb.zip',
      zipSync({ 'house.stl': new Uint8Array(80_000_000) }, { level: 9 }),
      /unpack to/,
    ),
    file('a zip that claims four gigabytes', 'claim.zip', lyingZip(4_000_000_000), /unpack to/),
    file('an OBJ of words', 'words.obj', text('v one two three\nf 1 2 3\n'), /line 1/),
    file(
      'an OBJ face without its vertex',
      'face.obj',
      text('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n'),
      /line 4.*vertex 9/,
    ),
    file('an OBJ of points', 'points.obj', text('v 0 0 0\nv 1 0 0\nv 0 1 0\n'), /no triangles/),
    file('a binary STL cut off', 'cut.stl', cut(stl(true), 0.7), /ends after/),
    file('a text STL cut off', 'text.stl', cut(stl(false), 0.7), /facets/),
    file('a PLY cut off', 'cut.ply', cut(plyFile(true), 0.4), /ends after/),
    file(
      'a PLY without an end to its header',
      'head.ply',
      text('ply\nformat ascii 1.0\nelement vertex 3\n'),
      /header does not end/,
    ),
    file(
      'a PLY of an unknown kind',
      'kind.ply',
      text('ply\nformat morse 1.0\nelement vertex 0\nend_header\n'),
      /morse/,
    ),
    file('an IFC cut off', 'cut.ifc', cut(ifc, 0.6), /END-ISO-10303-21/),
    file(
      'a STEP file that is no IFC',
      'bolt.ifc',
      text("ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN'));\nENDSEC;\nEND-ISO-10303-21;\n"),
      /not an IFC/,
    ),
    file(
      'an IFC without anything to see',
      'bare.ifc',
      text(
        "ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\nFILE_NAME('','',(''),(''),'','','');\nFILE_SCHEMA(('IFC4'));\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;\n",
      ),
      /no triangles|cannot be read/,
    ),
    file('a grid with too few heights', 'short.asc', text(asc.slice(0, asc.length * 0.8)), /holds \d+/),
    file('a grid with a word in it', 'word.asc', text(asc.replace('103 104', '103 rock')), /rock/),
    file('a grid without a cell size', 'cell.asc', text(asc.replace(/cellsize.*\n/, '')), /cell size/),
    file(
      'a grid of a billion heights',
      'huge.asc',
      text('ncols 99999\nnrows 99999\ncellsize 1\n1 2 3\n'),
      /99999 × 99999/,
    ),
    file('a GeoTIFF cut off', 'cut.tif', cut(tiff, 0.3), /not in the file/i),
    ...brokenTexts(file, { asc, ifc }),
    ...brokenScenes(file),
  ];
}

type MakeFile = (what: string, name: string, bytes: Uint8Array, says: RegExp) => BrokenFile;

const ply = (...lines: string[]) => text(`ply\nformat ascii 1.0\n${lines.join('\n')}\n`);
const VERTICES = ['element vertex 3', 'property float x', 'property float y', 'property float z'];
const FACE = ['element face 1', 'property list uchar int vertex_indices', 'end_header'];
const CORNERS = ['0 0 0', '1 0 0', '0 1 0'];
const facet = (inside: string) =>
  text(`solid a\nfacet normal 0 0 1\nouter loop\n${inside}\nendloop\nendfacet\nendsolid a\n`);

/** Text formats, each broken at one place that its message must name. */
function brokenTexts(file: MakeFile, { asc, ifc }: { asc: string; ifc: Uint8Array }): BrokenFile[] {
  const triangleObj = (face: string) => text(`v 0 0 0\nv 1 0 0\nv 0 1 0\nvt 0 0\nvn 0 0 1\n${face}\n`);
  const ifcText = new TextDecoder().decode(ifc);
  return [
    file('an OBJ vertex of two numbers', 'short.obj', text('v 0 0 0\nv 1 0\nv 0 1 0\nf 1 2 3\n'), /line 2/),
    file('an OBJ vertex at infinity', 'infinite.obj', text('v 0 0 0\nv Infinity 0 0\nv 0 1 0\nf 1 2 3\n'), /line 2/),
    file('an OBJ face of the vertex zero', 'zero.obj', triangleObj('f 0 1 2'), /line 6 names vertex 0/),
    file('an OBJ face of half a vertex', 'half.obj', triangleObj('f 1.5 2 3'), /line 6 names vertex 1\.5/),
    file('an OBJ face from before the first vertex', 'before.obj', triangleObj('f -4 -2 -1'), /line 6 names vertex -4/),
    file(
      'an OBJ face of a texture vertex that is not there',
      'uv.obj',
      triangleObj('f 1/1 2/7 3/1'),
      /texture vertex 7/,
    ),
    file('an OBJ face of a normal that is not there', 'normal.obj', triangleObj('f 1//1 2//1 3//9'), /normal 9/),
    file('an OBJ corner of nothing', 'corner.obj', triangleObj('f /1 2 3'), /line 6 names no vertex/),
    file('an OBJ normal of one number', 'vn.obj', text('vn 1\nv 0 0 0\n'), /line 1/),
    file('an OBJ of faces without area', 'flat.obj', triangleObj('f 1 1 2'), /no triangles/),
    file(
      'an OBJ beyond all measure',
      'far.obj',
      text('v 0 0 0\nv 1e30 0 0\nv 0 1e30 0\nf 1 2 3\n'),
      /vertex 0|vertex 1/,
    ),
    file(
      'a PLY face of a vertex that is not there',
      'face.ply',
      ply(...VERTICES, ...FACE, ...CORNERS, '3 0 1 7'),
      /face 1 names vertex 7/,
    ),
    file(
      'a PLY with a word among its numbers',
      'word.ply',
      ply(...VERTICES, ...FACE, '0 0 0', '1 none 0', '0 1 0', '3 0 1 2'),
      /vertex 2 is “none”/,
    ),
    file(
      'a PLY that ends in its faces',
      'ends.ply',
      ply(...VERTICES, ...FACE, ...CORNERS, '3 0 1'),
      /ends after face 1/,
    ),
    file('a PLY of points', 'cloud.ply', ply(...VERTICES, 'end_header', ...CORNERS), /no triangles/),
    file(
      'a PLY without coordinates',
      'plain.ply',
      ply('element vertex 1', 'property float red', 'end_header', '1'),
      /vertices have no x/,
    ),
    file(
      'a PLY of a type nobody knows',
      'type.ply',
      ply('element vertex 1', 'property quaternion x', 'end_header', '1'),
      /quaternion/,
    ),
    file('a PLY property of nothing', 'orphan.ply', ply('property float x', 'end_header'), /before any element/),
    file(
      'a PLY of minus three vertices',
      'minus.ply',
      ply('element vertex -3', 'property float x', 'end_header'),
      /“-3”/,
    ),
    file(
      'a PLY of a billion vertices',
      'billion.ply',
      ply('element vertex 1000000000', 'property float x', 'property float y', 'property float z', 'end_header', '1'),
      /ends after/,
    ),
    file('a PLY face of half a vertex', 'half.ply', ply(...VERTICES, ...FACE, ...CORNERS, '3 0 1 1.5'), /vertex 1\.5/),
    file('a text STL vertex of words', 'vertex.stl', facet('vertex 0 0 0\nvertex here 0 0\nvertex 0 1 0'), /line 5/),
    file('a text STL vertex of two numbers', 'two.stl', facet('vertex 0 0 0\nvertex 1 0\nvertex 0 1 0'), /line 5/),
    file('a text STL without its end', 'open.stl', text('solid a\nfacet normal 0 0 1\nendfacet\n'), /facets/),
    file('a text STL without any area', 'line.stl', facet('vertex 0 0 0\nvertex 1 0 0\nvertex 2 0 0'), /no triangles/),
    file('a binary STL of nowhere', 'nan.stl', nanStl(), /triangle 1/),
    file(
      'a binary STL of four billion triangles',
      'many.stl',
      withUint32(stl(true), 80, 4_294_967_295),
      /4294967295 triangles/,
    ),
    file(
      'a grid of one column',
      'column.asc',
      text('ncols 1\nnrows 9\ncellsize 1\n1 2 3 4 5 6 7 8 9\n'),
      /how many columns/,
    ),
    file(
      'a grid of nothing but holes',
      'holes.asc',
      text(`ncols 2\nnrows 2\ncellsize 1\nNODATA_value -1\n-1 -1\n-1 -1\n`),
      /no heights/,
    ),
    file('a grid with too many heights', 'long.asc', text(`${asc}\n1 2 3\n`), /holds \d+/),
    file(
      'an IFC of a schema that does not exist',
      'schema.ifc',
      text(ifcText.replace(/FILE_SCHEMA\(\('IFC4'\)\)/, "FILE_SCHEMA(('IFC99'))")),
      /IFC99|no triangles/,
    ),
  ];
}

function nanStl(): Uint8Array {
  const bytes = stl(true).slice();
  new DataView(bytes.buffer, bytes.byteOffset).setFloat32(84 + 12, Number.NaN, true);
  return bytes;
}

/** Scene descriptions, each broken in one member that its message must name. */
function brokenScenes(file: MakeFile): BrokenFile[] {
  const json = (value: unknown) => text(JSON.stringify(value));
  return [
    file(
      'glTF 1, which is another format',
      'one.gltf',
      json({ asset: { version: '1.0' }, scenes: {}, nodes: {} }),
      /version 1\.0/,
    ),
    file('a glTF whose nodes are no list', 'nodes.gltf', json(triangle({ nodes: { a: 1 } })), /nodes/),
    file(
      'a glTF whose matrix has nine numbers',
      'matrix.glb',
      rawGlb(triangle({ nodes: [{ mesh: 0, matrix: [1, 0, 0, 0, 1, 0, 0, 0, 1] }] })),
      /nodes\.0\.matrix/,
    ),
    file('a glTF whose buffer is a word', 'buffer.glb', rawGlb(triangle({ buffers: ['walls'] })), /buffers\.0/),
    file(
      'a glTF primitive of a mode that does not exist',
      'mode.glb',
      rawGlb(triangle({ meshes: [{ primitives: [{ attributes: { POSITION: 0 }, mode: 9 }] }] })),
      /mode/,
    ),
    file(
      'a glTF accessor of letters',
      'letters.glb',
      rawGlb(triangle({ accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC9' }] })),
      /accessors\.0\.type/,
    ),
    file(
      'a glTF scene that stops in the middle',
      'half.gltf',
      text(JSON.stringify(triangle()).slice(0, 90)),
      /not valid JSON/,
    ),
  ];
}
