import { Document, NodeIO, type Transform } from '@gltf-transform/core';
import { ALL_EXTENSIONS, KHRDracoMeshCompression, EXTMeshoptCompression } from '@gltf-transform/extensions';
import draco3d from 'draco3dgltf';
import { zipSync, strToU8 } from 'fflate';
import { MeshoptEncoder } from 'meshoptimizer';
import { BoxGeometry, Group, Mesh, MeshStandardMaterial, SphereGeometry } from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { PLYExporter } from 'three/examples/jsm/exporters/PLYExporter.js';
import { STLExporter } from 'three/examples/jsm/exporters/STLExporter.js';

/** Model files written by libraries that are not ours: what people will drop. */

export interface BoxPart {
  name: string;
  size: [number, number, number];
  at: [number, number, number];
  /** It gives off light. */
  glows?: true;
}

/** A hut of four metres by three, with one doorway. Metres, y up. */
export const HUT: readonly BoxPart[] = [
  { name: 'Floor', size: [4, 0.2, 3], at: [0, -0.1, 0] },
  { name: 'Roof', size: [4.4, 0.2, 3.4], at: [0, 2.5, 0] },
  { name: 'North wall', size: [4, 2.4, 0.2], at: [0, 1.2, -1.4] },
  { name: 'West wall', size: [0.2, 2.4, 2.6], at: [-1.9, 1.2, 0] },
  { name: 'East wall', size: [0.2, 2.4, 2.6], at: [1.9, 1.2, 0] },
  { name: 'South wall, left', size: [1.5, 2.4, 0.2], at: [-1.25, 1.2, 1.4] },
  { name: 'South wall, right', size: [1.5, 2.4, 0.2], at: [1.25, 1.2, 1.4] },
];
export const HUT_TRIANGLES = HUT.length * 12;

/** The hut for three's exporters; `scale` makes it come in another unit. */
function hutGroup(scale = 1): Group {
  const group = new Group();
  for (const { name, size, at } of HUT) {
    const material = new MeshStandardMaterial({ name: name === 'Roof' ? 'Slate' : 'Plaster' });
    const mesh = new Mesh(new BoxGeometry(...size).translate(...at).scale(scale, scale, scale), material);
    mesh.name = name;
    group.add(mesh);
  }
  group.updateMatrixWorld(true);
  return group;
}

export interface GlbOptions {
  compression?: 'draco' | 'meshopt';
  /** Vertical view angles of cameras to put in, radians. */
  cameras?: readonly { name: string; yfov: number; at: [number, number, number] }[];
  /** Moves the roof in two seconds. */
  animation?: boolean;
  /** What it is made of; the hut where nothing is said. */
  parts?: readonly BoxPart[];
}

/** The hut as glTF by glTF-Transform. */
async function hutDocument({ cameras = [], animation, parts = HUT }: GlbOptions): Promise<Document> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene('Hut');
  const plain = document.createMaterial('Plaster').setBaseColorFactor([0.8, 0.78, 0.74, 1]);
  const bulb = document.createMaterial('Bulb').setEmissiveFactor([1, 0.85, 0.6]);
  for (const { name, size, at, glows } of parts) {
    const geometry = new BoxGeometry(...size);
    const vectors = (attribute: string) =>
      document
        .createAccessor()
        .setBuffer(buffer)
        .setType('VEC3')
        .setArray(Float32Array.from(geometry.getAttribute(attribute).array));
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', vectors('position'))
      .setAttribute('NORMAL', vectors('normal'))
      .setIndices(document.createAccessor().setBuffer(buffer).setArray(Uint16Array.from(geometry.index!.array)))
      .setMaterial(glows ? bulb : plain);
    const node = document
      .createNode(name)
      .setMesh(document.createMesh(name).addPrimitive(primitive))
      .setTranslation(at);
    scene.addChild(node);
    if (animation && name === 'Roof') {
      const times = document.createAccessor().setBuffer(buffer).setArray(Float32Array.of(0, 2));
      const places = document
        .createAccessor()
        .setBuffer(buffer)
        .setType('VEC3')
        .setArray(Float32Array.of(...at, at[0], 4, at[2]));
      const sampler = document.createAnimationSampler().setInput(times).setOutput(places);
      const channel = document
        .createAnimationChannel()
        .setTargetNode(node)
        .setTargetPath('translation')
        .setSampler(sampler);
      document.createAnimation('Lift the roof').addSampler(sampler).addChannel(channel);
    }
  }
  for (const { name, yfov, at } of cameras)
    scene.addChild(
      document
        .createNode(name)
        .setTranslation(at)
        .setCamera(document.createCamera(name).setType('perspective').setYFov(yfov).setZNear(0.1)),
    );
  return document;
}

export async function hutGlb(options: GlbOptions = {}): Promise<Uint8Array> {
  const document = await hutDocument(options);
  const io = new NodeIO().registerExtensions(ALL_EXTENSIONS);
  if (options.compression === 'draco') {
    io.registerDependencies({ 'draco3d.encoder': await draco3d.createEncoderModule() });
    document.createExtension(KHRDracoMeshCompression).setRequired(true);
  }
  if (options.compression === 'meshopt') {
    await MeshoptEncoder.ready;
    io.registerDependencies({ 'meshopt.encoder': MeshoptEncoder });
    await document.transform(quantised);
    document.createExtension(EXTMeshoptCompression).setRequired(true);
  }
  return io.writeBinary(document);
}

/** Meshopt wants attributes whose elements are multiples of four bytes; floats are, so nothing needs to change. */
const quantised: Transform = () => {};

/** The hut as a .gltf with its binary beside it, zipped. */
export async function zippedGltf(): Promise<Uint8Array> {
  const { json, resources } = await new NodeIO().writeJSON(await hutDocument({}), { basename: 'hut' });
  return zipSync({
    'hut/hut.gltf': strToU8(JSON.stringify(json)),
    ...Object.fromEntries(Object.entries(resources).map(([name, bytes]) => [`hut/${name}`, bytes])),
  });
}

/** One grey pixel (PNG, W3C recommendation). */
// prettier-ignore
const PIXEL = Uint8Array.of(
  137, 80, 78, 71, 13, 10, 26, 10, 0, 0, 0, 13, 73, 72, 68, 82, 0, 0, 0, 1, 0, 0, 0, 1,
  8, 0, 0, 0, 0, 58, 126, 155, 85, 0, 0, 0, 10, 73, 68, 65, 84, 120, 156, 99, 152, 9, 0, 0,
  155, 0, 154, 173, 46, 72, 180, 0, 0, 0, 0, 73, 69, 78, 68, 174, 66, 96, 130,
);

/** The hut as OBJ by three's exporter, with materials and a texture, zipped. */
export function zippedObj(): Uint8Array {
  const obj = `mtllib materials/hut.mtl\n${new OBJExporter().parse(hutGroup())}`;
  const mtl =
    'newmtl Plaster\nKd 0.8 0.78 0.74\nmap_Kd ../textures/plaster.png\n\nnewmtl Slate\nKd 0.25 0.27 0.3\nNs 40\n';
  return zipSync({
    'hut.obj': strToU8(obj),
    'materials/hut.mtl': strToU8(mtl),
    'textures/plaster.png': PIXEL,
  });
}

export const plainObj = (): Uint8Array => strToU8(new OBJExporter().parse(hutGroup()));

/** By three's exporter; the hut comes in millimetres, as such files do. */
export function stl(binary: boolean): Uint8Array {
  const group = hutGroup(1000);
  return binary
    ? new Uint8Array((new STLExporter().parse(group, { binary: true }) as DataView).buffer as ArrayBuffer)
    : strToU8(new STLExporter().parse(group));
}

/** By three's exporter. */
export function ply(binary: boolean): Uint8Array {
  const mesh = new Mesh(new SphereGeometry(0.4, 24, 16).translate(0, 0.4, 0));
  const made = new PLYExporter().parse(mesh, undefined as never, { binary, littleEndian: true }) as
    string | ArrayBuffer;
  return typeof made === 'string' ? strToU8(made) : new Uint8Array(made);
}
