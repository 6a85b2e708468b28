import type { FlatMesh, IfcAPI, IfcGeometry } from 'web-ifc';
import { Matrix4 } from 'three';
import { decodeSrgb } from '../../colour/index.ts';
import { boundsOf } from '../../geometry/index.ts';
import { FormatError, noGeometry } from '../errors.ts';
import { Extent } from '../origin.ts';
import { checkPositions, transformPart, TriangleCount } from '../mesh.ts';
import { saysGlass } from '../glass-by-name.ts';
import { PLAIN_MATERIAL, type ReadModel, type SceneMaterial, type ScenePart } from '../scene-model.ts';
import type { ReaderTools } from '../tools.ts';
import { footprint } from './footprint.ts';
import { georeferenceOf } from './georeference.ts';
import { IfcNames } from './names.ts';

export const isIfc = (head: string) => /^\s*ISO-10303-21\s*;/.test(head);

/**
 * Reads an IFC building: geometry in metres, with element names, material names, storeys, and spaces as rooms.
 * @throws FormatError
 */
export async function readIfc(bytes: Uint8Array, fileName: string, tools: ReaderTools = {}): Promise<ReadModel> {
  checkEnvelope(bytes, fileName);
  const ifc = await import('web-ifc');
  const api = new ifc.IfcAPI();
  await api.Init(tools.locate);
  api.SetLogLevel(ifc.LogLevel.LOG_LEVEL_OFF);
  let model = -1;
  try {
    model = api.OpenModel(bytes, { COORDINATE_TO_ORIGIN: false });
    if (model < 0) throw new RangeError('a schema that is not known');
    return new IfcReader(api, ifc, model, fileName, tools).read();
  } catch (error) {
    if (error instanceof FormatError) throw error;
    const schema = /FILE_SCHEMA\s*\(\s*\(\s*'([^']{0,40})'/i.exec(
      new TextDecoder('latin1').decode(bytes.subarray(0, 4000)),
    )?.[1];
    throw new FormatError(
      'damaged',
      fileName,
      `its lines do not fit the schema that it names (${schema ?? 'none'}).`,
      'Export it again as IFC 2x3 or IFC 4, or as GLB.',
    );
  } finally {
    if (model >= 0) api.CloseModel(model);
    api.Dispose();
  }
}

function checkEnvelope(bytes: Uint8Array, fileName: string): void {
  const decoder = new TextDecoder('latin1');
  const head = decoder.decode(bytes.subarray(0, 4000));
  const tail = decoder.decode(bytes.subarray(-400));
  if (!/FILE_SCHEMA\s*\(\s*\(\s*'IFC/i.test(head))
    throw new FormatError('wrong-type', fileName, 'it is a STEP file, but not an IFC.', 'Export the building as IFC.');
  if (!/END-ISO-10303-21\s*;/.test(tail))
    throw new FormatError(
      'truncated',
      fileName,
      'it does not end with END-ISO-10303-21.',
      'The copy or export stopped early; get the file again.',
    );
}

type Ifc = typeof import('web-ifc');

type Local = Pick<ScenePart, 'positions' | 'normals' | 'indices'>;

/** A geometry and where it belongs, before the origin of the whole is known. */
interface Piece {
  part: Pick<ScenePart, 'name' | 'role' | 'material'>;
  local: Local;
  matrix: Matrix4;
}

class IfcReader {
  private readonly names: IfcNames;
  private readonly count: TriangleCount;
  private readonly materials: SceneMaterial[] = [];
  private readonly materialIndex = new Map<string, number>();
  private readonly parts: ScenePart[] = [];
  private readonly pieces: Piece[] = [];
  /** Takes the origin off, once it is known. */
  private readonly shift = new Matrix4();

  constructor(
    private readonly api: IfcAPI,
    private readonly ifc: Ifc,
    private readonly model: number,
    private readonly fileName: string,
    private readonly tools: ReaderTools,
  ) {
    this.names = new IfcNames(api, ifc, model);
    this.count = new TriangleCount(fileName);
  }

  read(): ReadModel {
    const elements = this.api.GetLineIDsWithType(this.model, this.ifc.IFCPRODUCTDEFINITIONSHAPE).size() || 1;
    let done = 0;
    this.api.StreamAllMeshes(this.model, (mesh) => {
      this.addElement(mesh);
      done += 1;
      if (done % 50 === 0) this.tools.onProgress?.(Math.min(0.99, done / elements));
    });
    if (this.pieces.length === 0) throw noGeometry(this.fileName);
    const extent = new Extent();
    for (const { local, matrix } of this.pieces) {
      const { min, max } = boundsOf(local.positions);
      extent.addBox(min, max, matrix);
    }
    const origin = extent.origin();
    this.shift.makeTranslation(-origin[0], -origin[1], -origin[2]);
    for (const { part, local, matrix } of this.pieces) this.parts.push(this.place(part, local, matrix));
    return {
      parts: this.parts,
      materials: this.materials,
      textures: [],
      rooms: this.rooms(),
      storeys: this.names.storeys().map((storey) => ({ ...storey, elevation: storey.elevation - origin[1] })),
      cameras: [],
      origin,
      // web-ifc hands out metres and turns Z up into Y up.
      declares: { metresPerUnit: 1, up: 'y', ...georeferenceOf(this.names) },
      notes: [],
    };
  }

  private addElement(mesh: FlatMesh): void {
    const { name, role, material } = this.names.element(mesh.expressID);
    for (let i = 0; i < mesh.geometries.size(); i += 1) {
      const { color, flatTransformation, geometryExpressID } = mesh.geometries.get(i);
      const local = this.geometry(geometryExpressID);
      if (!local) continue;
      this.count.add(local.indices.length / 3);
      const part = {
        name: name.slice(0, 500),
        ...(role ? { role } : {}),
        material: this.material(material, [color.x, color.y, color.z, color.w]),
      };
      this.pieces.push({ part, local, matrix: new Matrix4().fromArray(flatTransformation) });
    }
  }

  /** A geometry in its place, the origin taken off. */
  private place(part: Piece['part'], local: Local, matrix: Matrix4): ScenePart {
    const placed: ScenePart = {
      ...part,
      positions: local.positions,
      normals: local.normals,
      indices: local.indices,
      uvs: null,
      light: null,
    };
    transformPart(placed, new Matrix4().multiplyMatrices(this.shift, matrix));
    checkPositions(placed.positions, part.name, this.fileName);
    return placed;
  }

  /** A geometry in its own axes; null where it has no triangles. */
  private geometry(id: number): Local | null {
    const geometry: IfcGeometry = this.api.GetGeometry(this.model, id);
    try {
      const mixed = this.api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
      const indices = Uint32Array.from(this.api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize()));
      if (indices.length < 3) return null;
      const count = mixed.length / 6;
      const [positions, normals] = [new Float32Array(count * 3), new Float32Array(count * 3)];
      for (let v = 0; v < count; v += 1)
        for (let k = 0; k < 3; k += 1) {
          positions[3 * v + k] = mixed[6 * v + k]!;
          normals[3 * v + k] = mixed[6 * v + 3 + k]!;
        }
      return { positions, normals, indices };
    } finally {
      geometry.delete();
    }
  }

  private material(name: string, [r, g, b, a]: [number, number, number, number]): number {
    const key = `${name}|${r}|${g}|${b}|${a}`;
    let index = this.materialIndex.get(key);
    if (index === undefined) {
      const glass = a < 0.95 || saysGlass(name);
      const color: SceneMaterial['color'] = [decodeSrgb(r), decodeSrgb(g), decodeSrgb(b)];
      index =
        this.materials.push({
          ...PLAIN_MATERIAL,
          name,
          color,
          opacity: glass ? Math.min(a, 0.35) : 1,
          roughness: glass ? 0.05 : 0.85,
        }) - 1;
      this.materialIndex.set(key, index);
    }
    return index;
  }

  private rooms(): NonNullable<ReadModel['rooms']> {
    const rooms: NonNullable<ReadModel['rooms']> = [];
    this.api.StreamAllMeshesWithTypes(this.model, [this.ifc.IFCSPACE], (mesh) => {
      const faces = [];
      for (let i = 0; i < mesh.geometries.size(); i += 1) {
        const { geometryExpressID, flatTransformation } = mesh.geometries.get(i);
        const local = this.geometry(geometryExpressID);
        if (local)
          faces.push(this.place({ name: 'Space', material: 0 }, local, new Matrix4().fromArray(flatTransformation)));
      }
      const floor = footprint(faces);
      if (floor) rooms.push({ name: this.names.space(mesh.expressID), ...floor });
    });
    return rooms;
  }
}
