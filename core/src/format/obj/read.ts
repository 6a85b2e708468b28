import { Mesh, type Material } from 'three';
import { MTLLoader } from 'three/examples/jsm/loaders/MTLLoader.js';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { decodeSrgb } from '../../colour/index.ts';
import { FormatError, noGeometry } from '../errors.ts';
import { partFromGeometry } from '../mesh.ts';
import { PLAIN_MATERIAL, type ReadModel, type SceneMaterial } from '../scene-model.ts';
import { findBeside, textOf } from '../zip/index.ts';

/**
 * Reads an OBJ with the materials and textures that lie beside it.
 * @param files everything that came with it, by path; `path` is the OBJ's own
 * @throws FormatError
 */
export function readObj(files: ReadonlyMap<string, Uint8Array>, path: string, fileName: string): ReadModel {
  const text = textOf(files.get(path)!);
  checkFaces(text, fileName);
  const group = new OBJLoader().parse(text);
  const model: ReadModel = {
    parts: [],
    materials: [],
    textures: [],
    cameras: [],
    declares: { metresPerUnit: null, up: null },
    notes: [],
  };
  const library = readLibraries(text, files, path, model);
  const index = new Map<string, number>();
  const materialFor = (name: string): number => {
    const known = index.get(name);
    if (known !== undefined) return known;
    index.set(name, model.materials.push(library.get(name) ?? { ...PLAIN_MATERIAL, name: name || 'Plain' }) - 1);
    return model.materials.length - 1;
  };
  group.traverse((object) => {
    if (!(object instanceof Mesh)) return;
    const materials = (Array.isArray(object.material) ? object.material : [object.material]) as Material[];
    const name = object.name || 'Unnamed part';
    const groups = materials.length > 1 ? object.geometry.groups : [undefined];
    for (const stretch of groups) {
      const material = materialFor(materials[stretch?.materialIndex ?? 0]?.name ?? '');
      const part = partFromGeometry(object.geometry, name, material, fileName, stretch);
      if (part) model.parts.push(part);
    }
  });
  if (model.parts.length === 0) throw noGeometry(fileName);
  return model;
}

/** A face that names a vertex that is not there is found here, with its line: the loader would make it a NaN. */
function checkFaces(text: string, fileName: string): void {
  let vertices = 0;
  let line = 0;
  for (const row of text.split('\n')) {
    line += 1;
    if (row.startsWith('v ')) {
      vertices += 1;
      const numbers = row.trim().split(/\s+/).slice(1, 4).map(Number);
      if (numbers.length < 3 || !numbers.every(Number.isFinite))
        throw new FormatError(
          'damaged',
          fileName,
          `line ${line} is no vertex (“${row.trim().slice(0, 60)}”).`,
          'Export the model again.',
        );
    } else if (row.startsWith('f '))
      for (const corner of row.trim().split(/\s+/).slice(1)) {
        const named = Number.parseInt(corner, 10);
        if (!(named >= 1 && named <= vertices) && !(named <= -1 && -named <= vertices))
          throw new FormatError(
            'damaged',
            fileName,
            `the face in line ${line} names vertex ${corner}, and there are ${vertices}.`,
            'Export the model again.',
          );
      }
  }
}

function readLibraries(
  text: string,
  files: ReadonlyMap<string, Uint8Array>,
  path: string,
  model: ReadModel,
): Map<string, SceneMaterial> {
  const out = new Map<string, SceneMaterial>();
  for (const [, name] of text.matchAll(/^mtllib[ \t]+([^\r\n]+)/gm)) {
    const bytes = findBeside(files, path, name!.trim());
    if (!bytes) {
      model.notes.push(
        `The materials “${name!.trim()}” did not come with the file: zip the OBJ with its MTL and textures.`,
      );
      continue;
    }
    const { materialsInfo } = new MTLLoader().parse(textOf(bytes), '') as unknown as {
      materialsInfo: Record<string, Record<string, unknown>>;
    };
    for (const [material, values] of Object.entries(materialsInfo))
      out.set(material, toMaterial(material, values, files, path, model));
  }
  return out;
}

function toMaterial(
  name: string,
  values: Record<string, unknown>,
  files: ReadonlyMap<string, Uint8Array>,
  path: string,
  model: ReadModel,
): SceneMaterial {
  const numbers = (key: string): number[] =>
    String(values[key] ?? '')
      .trim()
      .split(/[\s,]+/)
      .map(Number);
  const color = (key: string, otherwise: [number, number, number]): [number, number, number] => {
    const [r, g, b] = numbers(key);
    // MTL colours are what one reads off a screen (common practice, no source).
    return Number.isFinite(r) && Number.isFinite(g) && Number.isFinite(b)
      ? [decodeSrgb(r!), decodeSrgb(g!), decodeSrgb(b!)]
      : otherwise;
  };
  const one = (key: string, otherwise: number) => {
    const [value] = values[key] === undefined ? [Number.NaN] : numbers(key);
    return Number.isFinite(value) ? value! : otherwise;
  };
  const map = typeof values['map_kd'] === 'string' ? values['map_kd'].trim().split(/\s+/).at(-1)! : null;
  const image = map ? findBeside(files, path, map) : undefined;
  if (map && !image) model.notes.push(`The texture “${map}” of “${name}” did not come with the file.`);
  const shine = one('ns', 0);
  return {
    name,
    color: image ? [1, 1, 1] : color('kd', [0.6, 0.6, 0.6]),
    opacity: Math.min(1, Math.max(0.02, values['tr'] === undefined ? one('d', 1) : 1 - one('tr', 0))),
    // Blinn–Phong exponent to roughness: r = √(2 / (n + 2)), the usual fit.
    roughness: one('pr', Math.sqrt(2 / (shine + 2))),
    metalness: one('pm', 0),
    emissive: color('ke', [0, 0, 0]),
    doubleSided: true,
    texture: image ? model.textures.push({ bytes: image, mediaType: imageType(map!) }) - 1 : null,
  };
}

const imageType = (name: string) =>
  /\.png$/i.test(name) ? 'image/png' : /\.webp$/i.test(name) ? 'image/webp' : 'image/jpeg';
