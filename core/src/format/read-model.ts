import { withoutDoubles } from './doubles.ts';
import { FormatError } from './errors.ts';
import { glassByName } from './glass-by-name.ts';
import { photographed } from './photographed.ts';
import { readGltf } from './gltf/index.ts';
import { isIfc, readIfc } from './ifc/index.ts';
import { mendNames } from './mend-names.ts';
import { readObj } from './obj/index.ts';
import { readPly } from './ply/index.ts';
import type { ReadModel } from './scene-model.ts';
import { readStl } from './stl/index.ts';
import { isAsciiGrid, isTiff, readAsciiGrid, readGeoTiff } from './terrain/index.ts';
import type { ReaderTools } from './tools.ts';
import { looksWide, textOf } from './text/decode.ts';
import { withUsedVertices } from './used-vertices.ts';
import { mendWinding } from './winding.ts';
import { isZip, readZip } from './zip/index.ts';

type Format = 'zip' | 'gltf' | 'ifc' | 'ply' | 'stl' | 'asc' | 'tiff' | 'obj';

/** What a person may drop, for file pickers. */
export const MODEL_EXTENSIONS = [
  '.glb',
  '.gltf',
  '.zip',
  '.obj',
  '.stl',
  '.ply',
  '.ifc',
  '.asc',
  '.tif',
  '.tiff',
] as const;

/** In a zip with several models the first of these is taken. */
const PREFERENCE: readonly Format[] = ['gltf', 'ifc', 'obj', 'ply', 'stl', 'asc', 'tiff'];

/**
 * Reads a model, whatever its format: told by the content, and by the name only where the content could be anything.
 * @throws FormatError naming the file, the place and the reason
 */
export async function readModel(bytes: Uint8Array, fileName: string, tools: ReaderTools = {}): Promise<ReadModel> {
  if (bytes.byteLength === 0) throw new FormatError('empty', fileName, 'the file is empty.', 'Export the model again.');
  const format = formatOf(bytes, fileName);
  const model =
    format === 'zip'
      ? await readZipped(readZip(bytes, fileName), fileName, tools)
      : await readOne(format, new Map([[fileName, bytes]]), fileName, fileName, tools);
  return mendNames(
    photographed(
      glassByName(
        withoutDoubles({
          ...model,
          parts: model.parts.map(withUsedVertices).map((part) => (part.role === 'terrain' ? part : mendWinding(part))),
        }),
      ),
    ),
  );
}

async function readZipped(files: Map<string, Uint8Array>, fileName: string, tools: ReaderTools): Promise<ReadModel> {
  const models = [...files]
    .map(([path, bytes]) => ({ path, format: formatOf(bytes, path) }))
    .filter((entry): entry is { path: string; format: Format } => entry.format !== null && entry.format !== 'zip')
    .sort((a, b) => PREFERENCE.indexOf(a.format) - PREFERENCE.indexOf(b.format) || a.path.length - b.path.length);
  const [first, ...others] = models;
  if (!first)
    throw new FormatError(
      'wrong-type',
      fileName,
      `it holds no model (it holds ${[...files.keys()].slice(0, 3).join(', ') || 'nothing'}).`,
      'Bring the model itself with its materials and textures: as glTF, IFC or OBJ.',
    );
  const model = await readOne(first.format, files, first.path, `${fileName}, ${first.path}`, tools);
  const same = others.filter(({ format }) => format === first.format);
  if (same.length > 0)
    model.notes.push(
      `The zip holds more models, which were not read: ${same
        .map(({ path }) => path)
        .slice(0, 5)
        .join(', ')}.`,
    );
  return model;
}

async function readOne(
  format: Format | null,
  files: ReadonlyMap<string, Uint8Array>,
  path: string,
  fileName: string,
  tools: ReaderTools,
): Promise<ReadModel> {
  const bytes = files.get(path)!;
  switch (format) {
    case 'gltf':
      return readGltf(files, path, fileName, tools);
    case 'ifc':
      return readIfc(bytes, fileName, tools);
    case 'ply':
      return readPly(bytes, fileName);
    case 'stl':
      return readStl(bytes, fileName);
    case 'asc':
      return readAsciiGrid(bytes, fileName);
    case 'tiff':
      return readGeoTiff(bytes, fileName);
    case 'obj':
      return readObj(files, path, fileName);
    default:
      throw new FormatError(
        'wrong-type',
        fileName,
        'this is no model that can be read.',
        `The program that wrote it can usually export glTF, IFC or OBJ; read are ${MODEL_EXTENSIONS.join(', ')}.`,
      );
  }
}

function formatOf(bytes: Uint8Array, fileName: string): Format | null {
  const start = bytes.subarray(0, 2000);
  const wide = /^(\xff\xfe|\xfe\xff)/.test(new TextDecoder('latin1').decode(start.subarray(0, 2))) || looksWide(start);
  const head = wide ? textOf(start) : new TextDecoder('latin1').decode(start);
  const extension = /\.([a-z0-9]+)$/i.exec(fileName)?.[1]?.toLowerCase();
  if (isZip(bytes)) return 'zip';
  if (head.startsWith('glTF')) return 'gltf';
  if (isIfc(head)) return 'ifc';
  if (/^ply\r?\n/.test(head)) return 'ply';
  if (isTiff(bytes)) return 'tiff';
  if (isAsciiGrid(head)) return 'asc';
  if (/^\s*\{/.test(head) && (extension === 'gltf' || /"asset"/.test(head))) return 'gltf';
  if (extension === 'stl' || /^\s*solid\b[\s\S]*\bfacet\b/i.test(head)) return 'stl';
  if (extension === 'obj' || /^(v|mtllib|o|g) /m.test(head.replace(/^#.*$/gm, '')))
    return /\0/.test(head) ? null : 'obj';
  // A damaged file still deserves its own reader's message.
  if (extension === 'glb' || extension === 'gltf') return 'gltf';
  if (extension === 'ifc') return 'ifc';
  if (extension === 'ply') return 'ply';
  if (extension === 'asc') return 'asc';
  if (extension === 'tif' || extension === 'tiff') return 'tiff';
  return null;
}
