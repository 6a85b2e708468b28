import type { FlatMesh, IfcAPI, IfcGeometry } from 'web-ifc';
import { Matrix4 } from 'three';
import { decodeSrgb } from '../../colour/index.ts';
import { FormatError, noGeometry } from '../errors.ts';
import { checkPositions, transformPart, TriangleCount } from '../mesh.ts';
import { PLAIN_MATERIAL, type ReadModel, type SceneMaterial, type ScenePart } from '../scene-model.ts';
import type { ReaderTools } from '../tools.ts';
import { footprint } from './footprint.ts';
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
    model = api.OpenModel(bytes, { COORDINATE_TO_ORIGIN: true });
    if (model < 0) throw new Error('its schema is not known');
    return new IfcReader(api, ifc, model, fileName, tools).read();
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError(
      'damaged',
      fileName,
      `it cannot be read (${error instanceof Error ? error.message : String(error)}).`,
      'Export it again as IFC 2x3 or IFC 4.',
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

class IfcReader {
  private readonly names: IfcNames;
  private readonly count: TriangleCount;
  private readonly materials: SceneMaterial[] = [];
  private readonly materialIndex = new Map<string, number>();
  private readonly parts: ScenePart[] = [];

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
    if (this.parts.length === 0) throw noGeometry(this.fileName);
    return {
      parts: this.parts,
      materials: this.materials,
      textures: [],
      rooms: this.rooms(),
      storeys: this.names.storeys(),
      cameras: [],
      // web-ifc hands out metres and turns Z up into Y up.
      declares: { metresPerUnit: 1, up: 'y' },
      notes: [],
    };
  }

  private addElement(mesh: FlatMesh): void {
    const { name, role, material } = this.names.element(mesh.expressID);
    for (let i = 0; i < mesh.geometries.size(); i += 1) {
      const { color, flatTransformation, geometryExpressID } = mesh.geometries.get(i);
      const made = this.geometry(geometryExpressID, flatTransformation);
      if (!made) continue;
      this.count.add(made.indices.length / 3);
      checkPositions(made.positions, name, this.fileName);
      this.parts.push({
        name: name.slice(0, 500),
        ...(role ? { role } : {}),
        material: this.material(material, [color.x, color.y, color.z, color.w]),
        ...made,
        uvs: null,
        light: null,
      });
    }
  }

  /** A geometry in its place; null where it has no triangles. */
  private geometry(id: number, transformation: number[]): Pick<ScenePart, 'positions' | 'normals' | 'indices'> | null {
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
      const made = { positions, normals, indices };
      transformPart(made as ScenePart, new Matrix4().fromArray(transformation));
      return made;
    } finally {
      geometry.delete();
    }
  }

  private material(name: string, [r, g, b, a]: [number, number, number, number]): number {
    const key = `${name}|${r}|${g}|${b}|${a}`;
    let index = this.materialIndex.get(key);
    if (index === undefined) {
      const glass = a < 0.95 || /glas|glaz/i.test(name);
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
        const made = this.geometry(geometryExpressID, flatTransformation);
        if (made) faces.push(made);
      }
      const floor = footprint(faces);
      if (floor) rooms.push({ name: this.names.space(mesh.expressID), ...floor });
    });
    return rooms;
  }
}
