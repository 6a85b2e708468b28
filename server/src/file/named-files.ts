import { fileRefSchema } from '@eskovan/core/document';

/** Every stored file that a JSON value names, however deep: its SHA-256 and what it is used as. */
export function namedFiles(value: unknown, found = new Map<string, string>()): Map<string, string> {
  if (typeof value !== 'object' || value === null) return found;
  const ref = fileRefSchema.safeParse(value);
  if (ref.success) found.set(ref.data.sha256, found.get(ref.data.sha256) ?? ref.data.mediaType);
  for (const member of Object.values(value)) namedFiles(member, found);
  return found;
}
