import { zipFiles } from '@eskovan/core/format';

/** Models that name other files: their geometry, materials and pictures may lie beside them. */
const IN_PARTS = /\.(gltf|obj)$/i;
const WHOLE = /\.(glb|ifc|stl|ply|asc|tiff?|zip)$/i;
const COMPANION = /\.(bin|mtl|png|jpe?g|webp|bmp|tga|ktx2)$/i;

/** Where a dropped file lay in its folder. */
const pathOf = (file: File): string =>
  (file.webkitRelativePath || (file as { path?: string }).path || file.name).replace(/^\.?\//, '');

/**
 * The models in what was dropped or picked, one file each: a model of several files becomes a zip of them, as if it had
 * been dropped so.
 */
export async function gatherFiles(dropped: readonly File[]): Promise<File[]> {
  if (dropped.length <= 1) return [...dropped];
  const inParts = dropped.filter(({ name }) => IN_PARTS.test(name));
  const companions = dropped.filter(({ name }) => COMPANION.test(name));
  const whole = dropped.filter(({ name }) => WHOLE.test(name));
  const models = [
    ...whole,
    ...(await Promise.all(
      inParts.map(async (model) => (companions.length === 0 ? model : await together(model, [model, ...companions]))),
    )),
  ];
  // Nothing that is known: the reader says so, with what can be done.
  return models.length > 0 ? models : [dropped[0]!];
}

async function together(model: File, files: readonly File[]): Promise<File> {
  const contents = await Promise.all(
    files.map(async (file) => [pathOf(file), new Uint8Array(await file.arrayBuffer())] as const),
  );
  return new File([zipFiles(new Map(contents))], model.name.replace(IN_PARTS, '.zip'), { type: 'application/zip' });
}
