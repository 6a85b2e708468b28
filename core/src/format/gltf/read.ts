import {
  WebIO,
  type Document,
  type GLTF,
  type JSONDocument,
  type Node as GltfNode,
  type Primitive,
} from '@gltf-transform/core';
import { Matrix4, Quaternion, Vector3 } from 'three';
import type { Vec3 } from '../../document/index.ts';
import { FormatError, noGeometry } from '../errors.ts';
import { withCreasedNormals } from '../crease.ts';
import { checkIndices, checkPositions, transformPart, TriangleCount } from '../mesh.ts';
import type { ReadModel, ScenePart } from '../scene-model.ts';
import type { ReaderTools } from '../tools.ts';
import { findBeside } from '../files.ts';
import { LeftOut } from '../left-out.ts';
import { Extent } from '../origin.ts';
import { placeUvs } from '../texture-place.ts';
import { readContainer } from './container.ts';
import { EXTENSIONS } from './extensions.ts';
import { instanceCount, placesOf } from './instances.ts';
import { MaterialReader } from './materials.ts';
import { MovementReader } from './movements.ts';
import { MODE, trianglesOf } from './primitives.ts';
import { checkReferences } from './references.ts';

/** Reads a GLB with everything inside it. @throws FormatError naming the file, the place and the reason */
export function readGlb(bytes: Uint8Array, fileName: string, tools: ReaderTools = {}): Promise<ReadModel> {
  return readGltf(new Map([[fileName, bytes]]), fileName, fileName, tools);
}

/**
 * Reads glTF 2.0: a GLB, or a description with the files it names beside it.
 * @param files everything that came along, by path; `path` is the GLB's or the description's own
 * @param fileName for messages only
 * @throws FormatError naming the file, the place and the reason
 */
export async function readGltf(
  files: ReadonlyMap<string, Uint8Array>,
  path: string,
  fileName: string,
  tools: ReaderTools = {},
): Promise<ReadModel> {
  const bytes = files.get(path)!;
  const { json, binary } = readContainer(bytes, fileName);
  const resources = gather(json, binary, files, path, fileName);
  checkReferences(json, (i) => resources.lengths[i], fileName);
  const io = new WebIO().registerExtensions(EXTENSIONS);
  io.registerDependencies(await decoders(json as GLTF.IGLTF, tools));
  let document: Document;
  try {
    document = await io.readJSON({ json, resources: resources.byUri } as JSONDocument);
  } catch {
    const { extensionsUsed = [] } = json as GLTF.IGLTF;
    const packed = extensionsUsed.some((name) => /draco|meshopt/i.test(name));
    throw new FormatError(
      'damaged',
      fileName,
      packed
        ? 'its compressed geometry cannot be unpacked.'
        : 'its members contradict each other, so that no scene comes out of them.',
      packed ? 'Export it without compression.' : 'Export it again, as one GLB.',
    );
  }
  return new GltfReader(document, fileName, resources.notes).read();
}

/** The decoders that this file needs; each is loaded only then. */
async function decoders(
  { extensionsUsed = [] }: GLTF.IGLTF,
  { locate }: ReaderTools,
): Promise<Record<string, unknown>> {
  const out: Record<string, unknown> = {};
  if (extensionsUsed.includes('KHR_draco_mesh_compression')) {
    const { default: draco } = await import('draco3dgltf');
    out['draco3d.decoder'] = await draco.createDecoderModule(locate ? { locateFile: locate } : {});
  }
  if (extensionsUsed.includes('EXT_meshopt_compression')) {
    const { MeshoptDecoder } = await import('meshoptimizer');
    await MeshoptDecoder.ready;
    out['meshopt.decoder'] = MeshoptDecoder;
  }
  return out;
}

/** Finds the buffers and images that a description names. A missing buffer is an error, a missing image a note. */
function gather(
  json: unknown,
  binary: Uint8Array | null,
  files: ReadonlyMap<string, Uint8Array>,
  path: string,
  fileName: string,
): { byUri: Record<string, Uint8Array>; lengths: (number | undefined)[]; notes: string[] } {
  const description = json as { buffers?: unknown; images?: unknown };
  const byUri: Record<string, Uint8Array> = {};
  const notes: string[] = [];
  if (binary) byUri['@glb.bin'] = binary;
  const listed = (what: unknown): { uri?: unknown; byteLength?: unknown; extensions?: object }[] =>
    Array.isArray(what) ? what.filter((entry) => typeof entry === 'object' && entry !== null) : [];
  const lengths = listed(description.buffers).map(({ uri, byteLength, extensions }, i): number | undefined => {
    if (uri === undefined && i > 0 && extensions && 'EXT_meshopt_compression' in extensions)
      return fallbackLength(byteLength);
    if (uri === undefined) return i === 0 ? (binary?.byteLength ?? 0) : 0;
    if (typeof uri !== 'string') return 0;
    if (uri.startsWith('data:')) return undefined;
    const found = findBeside(files, path, uri);
    if (!found)
      throw new FormatError(
        'unsupported',
        fileName,
        `its geometry is kept in another file, “${uri}”.`,
        'Zip the folder with all its files and drop the zip, or export one GLB.',
      );
    byUri[uri] = found;
    return found.byteLength;
  });
  for (const image of listed(description.images)) {
    if (typeof image.uri !== 'string' || image.uri.startsWith('data:')) continue;
    const found = findBeside(files, path, image.uri);
    if (!found) notes.push(`The picture “${image.uri}” did not come with the file: its surfaces are plain.`);
    byUri[image.uri] = found ?? new Uint8Array();
  }
  return { byUri, lengths, notes };
}

/** A meshopt file may name a second buffer that nothing fills: its content is decoded, not stored. */
const fallbackLength = (claimed: unknown) => (typeof claimed === 'number' && claimed <= MOST_DECODED ? claimed : 0);

/** More than this is no model that a browser could show, bytes. */
const MOST_DECODED = 1.5 * 1024 ** 3;

class GltfReader {
  private readonly parts: ScenePart[] = [];
  private readonly cameras: ReadModel['cameras'] = [];
  private readonly materials = new MaterialReader();
  private readonly movements: MovementReader;
  private readonly leftOut = new LeftOut();
  private readonly origin: Vec3;
  /** Takes the origin off. */
  private readonly shift: Matrix4;

  constructor(
    private readonly document: Document,
    private readonly fileName: string,
    private readonly notes: string[],
  ) {
    this.origin = extentOf(document, new TriangleCount(fileName)).origin();
    const [x, y, z] = this.origin;
    this.shift = new Matrix4().makeTranslation(-x, -y, -z);
    this.movements = new MovementReader(document, notes, this.shift);
  }

  read(): ReadModel {
    const root = this.document.getRoot();
    for (const node of sceneOf(this.document)?.listChildren() ?? []) this.visit(node, '', null);
    if (this.parts.length === 0) throw noGeometry(this.fileName);
    this.notes.push(...this.leftOut.notes(), ...this.materials.notes);
    if (root.listSkins().length > 0) this.notes.push('Bodies that bend with a skeleton stand in their rest pose.');
    return {
      parts: this.parts,
      materials: this.materials.materials,
      textures: this.materials.textures,
      cameras: this.cameras,
      ...this.movements.finish(this.parts),
      // The standard fixes both: metres, y up (glTF 2.0 §3.4).
      declares: { metresPerUnit: 1, up: 'y' },
      notes: this.notes,
      origin: this.origin,
    };
  }

  private visit(node: GltfNode, path: string, above: number | null): void {
    const own = node.getName() || node.getMesh()?.getName() || '';
    const name = (own && path ? `${path} / ${own}` : own || path).slice(0, 500);
    const matrix = new Matrix4().multiplyMatrices(this.shift, new Matrix4().fromArray(node.getWorldMatrix()));
    const joint = this.movements.enter(node, matrix, above);
    this.camera(node);
    const mesh = node.getMesh();
    if (mesh)
      for (const primitive of mesh.listPrimitives()) {
        const corners = cornersOf(primitive);
        const copies = Math.max(1, instanceCount(node));
        const mode = primitive.getMode();
        if (mode === MODE.POINTS) this.leftOut.add('points', corners * copies);
        else if (mode < MODE.TRIANGLES)
          this.leftOut.add(
            'lines',
            (mode === MODE.LINES ? Math.floor(corners / 2) : Math.max(0, corners - 1)) * copies,
          );
        if (mode < MODE.TRIANGLES) continue;
        for (const place of placesOf(node, matrix)) {
          const part = this.part(primitive, place, name || 'Unnamed part');
          if (part) this.parts.push(joint === null ? part : { ...part, joint });
        }
      }
    for (const child of node.listChildren()) this.visit(child, name, joint);
  }

  /** Cameras keep the file's own 64-bit coordinates. */
  private camera(node: GltfNode): void {
    const camera = node.getCamera();
    if (!camera) return;
    const name = node.getName() || camera.getName() || `Camera ${this.cameras.length + 1}`;
    const [position, turn] = [new Vector3(), new Quaternion()];
    new Matrix4().fromArray(node.getWorldMatrix()).decompose(position, turn, new Vector3());
    const perspective = camera.getType() === 'perspective';
    const angle = perspective ? camera.getYFov() : null;
    const usable = position.toArray().every(Number.isFinite) && turn.toArray().every(Number.isFinite);
    // glTF 2.0 §5.16: yfov must be greater than zero and should be less than π.
    if (!usable || (angle !== null && !(angle > 0.001 && angle < Math.PI - 0.001))) {
      this.notes.push(`The camera “${name}” has an impossible view angle or place and was left out.`);
      return;
    }
    const aspect = perspective ? camera.getAspectRatio() : camera.getXMag() / camera.getYMag();
    this.cameras.push({
      name,
      position: position.toArray(),
      orientation: turn.normalize().toArray() as [number, number, number, number],
      verticalAngle: angle,
      ...(!perspective && { height: 2 * Math.abs(camera.getYMag()) }),
      aspect: aspect !== null && aspect > 0 && Number.isFinite(aspect) ? aspect : null,
    });
  }

  private part(primitive: Primitive, matrix: Matrix4, name: string): ScenePart | null {
    const position = primitive.getAttribute('POSITION');
    if (!position) return null;
    const count = position.getCount();
    const positions = floats(primitive, 'POSITION', 3, count)!;
    const indices = this.indices(primitive, positions, name);
    if (indices.length === 0) return null;
    const normals = floats(primitive, 'NORMAL', 3, count);
    const { material, set, place } = this.materials.of(primitive.getMaterial());
    const bare = {
      name,
      material,
      positions,
      uvs: placeUvs(floats(primitive, `TEXCOORD_${set}`, 2, count), place),
      colors: floats(primitive, 'COLOR_0', 3, count),
      light: null,
      indices,
    };
    const part: ScenePart = normals ? { ...bare, normals } : withCreasedNormals(bare);
    transformPart(part, matrix);
    checkPositions(part.positions, name, this.fileName);
    return part;
  }

  private indices(primitive: Primitive, positions: Float32Array, name: string): Uint32Array {
    const count = positions.length / 3;
    const accessor = primitive.getIndices();
    const size = accessor ? accessor.getCount() : count;
    const own = accessor?.getArray();
    const list = own ? Uint32Array.from(own) : Uint32Array.from({ length: size }, (_, i) => i);
    const triangles = trianglesOf(list, primitive.getMode());
    checkIndices(triangles, count, name, this.fileName);
    return this.withArea(triangles, positions);
  }

  /** Leaves out the triangles that name one vertex twice, or three that are in one place or line. */
  private withArea(triangles: Uint32Array, p: Float32Array): Uint32Array {
    const kept = new Uint32Array(triangles.length);
    let to = 0;
    for (let i = 0; i < triangles.length; i += 3) {
      const [a, b, c] = [3 * triangles[i]!, 3 * triangles[i + 1]!, 3 * triangles[i + 2]!];
      const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
      const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
      if (uy * vz === uz * vy && uz * vx === ux * vz && ux * vy === uy * vx) continue;
      for (let k = 0; k < 3; k += 1) kept[to + k] = triangles[i + k]!;
      to += 3;
    }
    this.leftOut.offered(triangles.length / 3);
    this.leftOut.add('empty faces', (triangles.length - to) / 3);
    return kept.subarray(0, to);
  }
}

function floats(primitive: Primitive, semantic: string, size: number, count: number): Float32Array | null {
  const accessor = primitive.getAttribute(semantic);
  if (!accessor || accessor.getCount() < count) return null;
  const own = accessor.getArray();
  if (own instanceof Float32Array && accessor.getElementSize() === size) return own.slice(0, count * size);
  const out = new Float32Array(count * size);
  const element: number[] = [];
  for (let i = 0; i < count; i += 1) {
    accessor.getElement(i, element);
    for (let k = 0; k < size; k += 1) out[i * size + k] = element[k] ?? 0;
  }
  return out;
}

const sceneOf = (document: Document) => document.getRoot().getDefaultScene() ?? document.getRoot().listScenes()[0];

const cornersOf = (primitive: Primitive): number =>
  primitive.getIndices()?.getCount() ?? primitive.getAttribute('POSITION')?.getCount() ?? 0;

/**
 * Extent of everything in a scene, 64-bit: by the corners of the boxes of its meshes. Triangles are counted on the way:
 * a small file can ask for more copies than there is memory.
 */
function extentOf(document: Document, count: TriangleCount): Extent {
  const extent = new Extent();
  const visit = (node: GltfNode) => {
    const matrix = new Matrix4().fromArray(node.getWorldMatrix());
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const position = primitive.getAttribute('POSITION');
      if (!position || primitive.getMode() < MODE.TRIANGLES) continue;
      const triangles = primitive.getMode() === MODE.TRIANGLES ? cornersOf(primitive) / 3 : cornersOf(primitive) - 2;
      count.add(Math.max(0, triangles) * Math.max(1, instanceCount(node)));
      const [min, max] = [position.getMinNormalized([]), position.getMaxNormalized([])];
      for (const place of placesOf(node, matrix)) extent.addBox(min, max, place);
    }
    node.listChildren().forEach(visit);
  };
  sceneOf(document)?.listChildren().forEach(visit);
  return extent;
}
