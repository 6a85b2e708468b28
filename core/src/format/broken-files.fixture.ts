import { strToU8, zipSync } from 'fflate';
import { hutGlb, plainObj, ply, stl, zippedGltf } from './files.fixture.ts';
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
    file('a PLY cut off', 'cut.ply', cut(ply(true), 0.4), /ends after/),
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
    file('a GeoTIFF cut off', 'cut.tif', cut(tiff, 0.3), /cannot be read|ends|fewer/i),
  ];
}
