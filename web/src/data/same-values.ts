/** Deep equality of JSON values; the order of members does not matter. */
export function sameValues(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const keys = Object.keys(a);
  if (keys.length !== Object.keys(b).length) return false;
  return keys.every((key) => sameValues((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]));
}
