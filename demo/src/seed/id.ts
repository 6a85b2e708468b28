import { createHash } from 'node:crypto';

/** Ids that are the same on every machine, so that seeding twice makes one project. */
export function idOf(what: string): string {
  const hex = createHash('sha256').update(`ternholm ${what}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
