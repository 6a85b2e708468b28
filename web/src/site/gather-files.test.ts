import { describe, expect, test } from '@jest/globals';
import { readZip } from '@eskovan/core/format';
import { gatherFiles } from './gather-files.ts';

/** A file as a browser hands it over: jsdom's has no `arrayBuffer`. */
function file(path: string, content = path): File {
  const bytes = new TextEncoder().encode(content);
  const made = new File([bytes], path.split('/').at(-1)!);
  Object.defineProperty(made, 'path', { value: path });
  Object.defineProperty(made, 'arrayBuffer', { value: () => Promise.resolve(bytes.buffer) });
  return made;
}

describe('several files in one drop', () => {
  test('one file stays as it is, whatever it is', async () => {
    const [only] = await gatherFiles([file('house.gltf')]);
    expect(only!.name).toBe('house.gltf');
  });

  test.each([
    ['a glTF with its binary and a picture', ['house.gltf', 'house.bin', 'textures/oak.png'], ['house.zip']],
    ['an OBJ with its materials', ['a/hut.obj', 'a/hut.mtl'], ['hut.zip']],
    ['models that are whole', ['a.glb', 'b.ifc'], ['a.glb', 'b.ifc']],
    ['a folder with notes in it', ['a/house.glb', 'a/readme.txt'], ['house.glb']],
    ['two OBJ files that share their materials', ['a.obj', 'b.obj', 'all.mtl'], ['a.zip', 'b.zip']],
  ])('%s', async (_, dropped, models) => {
    expect((await gatherFiles(dropped.map((path) => file(path)))).map(({ name }) => name)).toEqual(models);
  });

  test('folders keep their names, so that a model finds its pictures', async () => {
    const dropped = [file('set/house.gltf'), file('set/house.bin'), file('set/tex/oak.png')];
    const parts: BlobPart[] = [];
    const Original = globalThis.File;
    // jsdom gives no bytes back: what the file is made of is noted.
    globalThis.File = class extends Original {
      constructor(content: BlobPart[], name: string, options?: FilePropertyBag) {
        super(content, name, options);
        parts.push(...content);
      }
    };
    try {
      await gatherFiles(dropped);
    } finally {
      globalThis.File = Original;
    }
    const zipped = readZip(parts.at(-1) as Uint8Array, 'set.zip');
    expect([...zipped.keys()].sort()).toEqual(['set/house.bin', 'set/house.gltf', 'set/tex/oak.png']);
  });
});
