/**
 * A file beside another one, named as models name their textures: relative, with either slash, in either case, with or
 * without its folder.
 */
export function findBeside(
  files: ReadonlyMap<string, Uint8Array>,
  beside: string,
  name: string,
): Uint8Array | undefined {
  const folder = beside.includes('/') ? beside.slice(0, beside.lastIndexOf('/') + 1) : '';
  const wanted = decoded(name).replaceAll('\\', '/').replace(/^\.\//, '');
  const exact = files.get(folder + wanted) ?? files.get(wanted);
  if (exact) return exact;
  const last = wanted.split('/').at(-1)!.toLowerCase();
  for (const [path, content] of files) if (path.split('/').at(-1)!.toLowerCase() === last) return content;
  return undefined;
}

/** A name out of an address; as it is where its percent signs mean percent. */
function decoded(name: string): string {
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}
