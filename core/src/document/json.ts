/** Deep equality of JSON values; the order of members does not matter, an absent member is an undefined one. */
export function sameValues(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = new Set([...Object.keys(left), ...Object.keys(right)]);
  return [...keys].every((key) => sameValues(left[key], right[key]));
}

/**
 * What a schema made of a value, with the members that the schema does not know put back: a program that is older than
 * the data passes them on instead of stripping them.
 * @param raw the value as it came
 * @param parsed what the schema made of it: known members only, defaults filled in
 */
export function withUnknown<T>(raw: unknown, parsed: T): T {
  if (typeof raw !== 'object' || raw === null || typeof parsed !== 'object' || parsed === null) return parsed;
  if (Array.isArray(raw) !== Array.isArray(parsed)) return parsed;
  if (Array.isArray(parsed))
    return (raw as unknown[]).length === parsed.length
      ? (parsed.map((value, i) => withUnknown((raw as unknown[])[i], value)) as T)
      : parsed;
  const whole: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(parsed))
    whole[key] = withUnknown((raw as Record<string, unknown>)[key], value);
  for (const [key, value] of Object.entries(raw)) if (!(key in whole)) whole[key] = value;
  return whole as T;
}

/** Characters that no database keeps: U+0000 and halves of surrogate pairs. */
// eslint-disable-next-line no-control-regex
const UNKEEPABLE = /\u0000|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/** Text as it can be kept: characters that cannot be are replaced by U+FFFD, as decoders do. */
export const mendText = (text: string): string => text.replace(UNKEEPABLE, '\uFFFD');

/** Path of the first text (or member name) in a JSON value that cannot be kept; null where all can. */
export function unkeepableText(value: unknown, path: readonly string[] = []): readonly string[] | null {
  if (typeof value === 'string') return mendText(value) === value ? null : path;
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, member] of Object.entries(value)) {
    if (mendText(key) !== key) return path;
    const found = unkeepableText(member, [...path, key]);
    if (found) return found;
  }
  return null;
}

/** JSON text that is the same for the same value, in whatever order its members come: databases keep their own. */
export const canonicalJson = (value: unknown): string => JSON.stringify(sorted(value));

function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).filter(([, member]) => member !== undefined);
  return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([key, member]) => [key, sorted(member)]));
}
