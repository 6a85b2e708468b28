import { decodeSrgb } from '../../colour/index.ts';
import { findBeside } from '../files.ts';
import type { ReadModel, SceneMaterial } from '../scene-model.ts';
import type { TexturePlace } from '../texture-place.ts';
import { textOf } from '../text/decode.ts';

/** A material, and how its picture lies on the surfaces that have it. */
export interface LibraryMaterial {
  material: SceneMaterial;
  place: TexturePlace | null;
}

/** The statements of one material: the words after each keyword, keywords in small letters. */
type Statements = Map<string, string[]>;

/** Reads the material libraries that an OBJ names; what did not come along is noted. */
export function readLibraries(
  names: readonly string[],
  files: ReadonlyMap<string, Uint8Array>,
  path: string,
  model: ReadModel,
): Map<string, LibraryMaterial> {
  const out = new Map<string, LibraryMaterial>();
  const reader = new MaterialReader(files, path, model);
  for (const name of names) {
    // A line may name several, and a name may hold spaces.
    const found = findBeside(files, path, name) ? [name] : name.split(/\s+/);
    for (const one of found) {
      const bytes = findBeside(files, path, one);
      if (!bytes) {
        model.notes.push(`The materials “${one}” did not come with the file: drop the OBJ with its MTL and textures.`);
        continue;
      }
      for (const [material, statements] of parseLibrary(textOf(bytes)))
        out.set(material, reader.read(material, statements));
    }
  }
  return out;
}

function parseLibrary(text: string): Map<string, Statements> {
  const out = new Map<string, Statements>();
  let current: Statements | null = null;
  for (const row of text.replace(/\\\r?\n/g, ' ').split(/\r?\n/)) {
    const [, word, rest] = /^\s*(\S+)\s+(.*?)\s*$/.exec(row) ?? [];
    if (!word || word.startsWith('#')) continue;
    if (word.toLowerCase() === 'newmtl') out.set(rest!, (current = new Map()));
    else current?.set(word.toLowerCase(), rest!.split(/\s+/));
  }
  return out;
}

/** Options of a texture statement and how many numbers follow each at most. */
const OPTIONS: Record<string, number> = {
  '-o': 3,
  '-s': 3,
  '-t': 3,
  '-mm': 2,
  '-bm': 1,
  '-boost': 1,
  '-texres': 1,
  '-clamp': 1,
  '-blendu': 1,
  '-blendv': 1,
  '-imfchan': 1,
  '-type': 1,
  '-cc': 1,
};

interface Map2d {
  name: string;
  place: TexturePlace | null;
}

/** A texture statement: options, then a file name that may hold spaces. */
function parseMap(words: readonly string[]): Map2d {
  let at = 0;
  const options = new Map<string, string[]>();
  while (at < words.length && OPTIONS[words[at]!.toLowerCase()] !== undefined) {
    const option = words[at]!.toLowerCase();
    const values: string[] = [];
    at += 1;
    const numeric = OPTIONS[option]! > 1;
    while (values.length < OPTIONS[option]! && at < words.length - 1 && (!numeric || /^[-+.\d]/.test(words[at]!)))
      values.push(words[at++]!);
    options.set(option, values);
  }
  const two = (option: string, otherwise: number): [number, number] => {
    const [u, v] = (options.get(option) ?? []).map(Number);
    return [
      Number.isFinite(u) ? u! : otherwise,
      Number.isFinite(v) ? v! : option === '-s' && Number.isFinite(u) ? u! : otherwise,
    ];
  };
  const [scale, offset] = [two('-s', 1), two('-o', 0)];
  const plain = scale[0] === 1 && scale[1] === 1 && offset[0] === 0 && offset[1] === 0;
  // OBJ counts from the bottom: v' = 1 − (s (1 − v) + o).
  const place = plain ? null : { offset: [offset[0], 1 - scale[1] - offset[1]] as [number, number], scale, turn: 0 };
  return { name: words.slice(at).join(' '), place };
}

class MaterialReader {
  private readonly images = new Map<Uint8Array, number>();

  constructor(
    private readonly files: ReadonlyMap<string, Uint8Array>,
    private readonly path: string,
    private readonly model: ReadModel,
  ) {}

  read(name: string, statements: Statements): LibraryMaterial {
    const numbers = (key: string) => (statements.get(key) ?? []).map(Number);
    const color = (key: string, otherwise: [number, number, number]): [number, number, number] => {
      const [r, g = r, b = r] = numbers(key);
      // MTL colours are what one reads off a screen (common practice, no source).
      return [r, g, b].every((value) => Number.isFinite(value))
        ? [decodeSrgb(r!), decodeSrgb(g!), decodeSrgb(b!)]
        : otherwise;
    };
    const one = (key: string, otherwise: number) => {
      const value = numbers(key).find(Number.isFinite);
      return value ?? otherwise;
    };
    const cover = this.image(name, statements.get('map_kd'));
    const mask = this.image(name, statements.get('map_d'));
    const glow = this.image(name, statements.get('map_ke'));
    const diffuse = color('kd', [0.6, 0.6, 0.6]);
    const shine = one('ns', 0);
    const emissive = color('ke', [0, 0, 0]);
    const material: SceneMaterial = {
      name,
      // Many writers put a black colour under a texture and mean the texture.
      color:
        cover && diffuse.every((value) => value === 0)
          ? [1, 1, 1]
          : statements.has('kd') || !cover
            ? diffuse
            : [1, 1, 1],
      opacity: Math.min(1, Math.max(0.02, statements.has('d') ? one('d', 1) : 1 - one('tr', 0))),
      // Blinn–Phong exponent to roughness: r = √(2 / (n + 2)), the usual fit.
      roughness: one('pr', Math.sqrt(2 / (shine + 2))),
      metalness: one('pm', 0),
      emissive: glow && emissive.every((value) => value === 0) ? [1, 1, 1] : emissive,
      doubleSided: true,
      texture: cover?.texture ?? null,
      ...(glow ? { emissiveTexture: glow.texture } : {}),
      // A picture of where there is something: cut out at half.
      ...(mask ? { cutOut: 0.5, ...(mask.texture === cover?.texture ? {} : { maskTexture: mask.texture }) } : {}),
    };
    return { material, place: cover?.place ?? null };
  }

  private image(
    material: string,
    words: readonly string[] | undefined,
  ): { texture: number; place: TexturePlace | null } | null {
    if (!words || words.length === 0) return null;
    const { name, place } = parseMap(words);
    const bytes = findBeside(this.files, this.path, name);
    if (!bytes) {
      this.model.notes.push(`The texture “${name}” of “${material}” did not come with the file.`);
      return null;
    }
    let texture = this.images.get(bytes);
    if (texture === undefined)
      this.images.set(bytes, (texture = this.model.textures.push({ bytes, mediaType: imageType(name) }) - 1));
    return { texture, place };
  }
}

const imageType = (name: string) =>
  /\.png$/i.test(name) ? 'image/png' : /\.webp$/i.test(name) ? 'image/webp' : 'image/jpeg';
