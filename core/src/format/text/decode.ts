/**
 * Text of a model file, whatever it was written in: UTF-8, UTF-16 of either order (by its mark, or by its zeros where it
 * has none), or one byte a character where it is no UTF-8.
 */
export function textOf(bytes: Uint8Array): string {
  const [a, b, c] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes.subarray(2));
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes.subarray(2));
  if (a === 0xef && b === 0xbb && c === 0xbf) return new TextDecoder().decode(bytes.subarray(3));
  const wide = looksWide(bytes);
  if (wide) return new TextDecoder(wide).decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** UTF-16 without its mark, told by its zeros; null for anything else. */
export function looksWide(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (bytes.length < 8 || bytes.length % 2 !== 0) return null;
  const head = bytes.subarray(0, 200);
  // Characters of Latin text have a zero byte each, and binary files have zeros in both places.
  const zeros = (odd: number) => head.filter((byte, i) => i % 2 === odd && byte === 0).length;
  if (zeros(1) > head.length / 3 && zeros(0) === 0) return 'utf-16le';
  return zeros(0) > head.length / 3 && zeros(1) === 0 ? 'utf-16be' : null;
}
