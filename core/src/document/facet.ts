import { z } from 'zod';
import { sameValues } from './json.ts';
import type { Kind, Row } from './row.ts';

/**
 * The smallest thing in a row that two people can disagree about: its name, its order, a member of its body, or an
 * entry of a member that is a collection by name (the look of one part of a model).
 */
export const facetSchema = z.union([
  z.tuple([z.enum(['name', 'order'])]),
  z.tuple([z.literal('body'), z.string().min(1).max(100)]),
  z.tuple([z.literal('body'), z.string().min(1).max(100), z.string().max(500)]),
]);
export type Facet = z.infer<typeof facetSchema>;

/** Members whose entries are facets of their own. */
const COLLECTIONS: Partial<Record<Kind, readonly string[]>> = { model: ['parts', 'materials'] };

/**
 * Members that follow from others of the row: machines write them and nobody disagrees about them. A write of one is
 * never a conflict; what it was computed from is said by the edit's `given`.
 */
const DERIVED: Partial<Record<Kind, readonly string[]>> = {
  view: ['thumbnail'],
  light: ['picture'],
  project: ['picture'],
  model: ['packed', 'declares', 'bounds', 'guess', 'triangles', 'movements', 'notes'],
};

/** Members that are given once, when the row is made. */
const FIXED: Partial<Record<Kind, readonly string[]>> = { take: ['number'], link: ['token'], shot: ['reel'] };

const isMember = (list: Partial<Record<Kind, readonly string[]>>, kind: Kind, [of, member]: Facet) =>
  of === 'body' && (list[kind]?.includes(member!) ?? false);

export const isDerived = (kind: Kind, facet: Facet): boolean => isMember(DERIVED, kind, facet);
export const isFixed = (kind: Kind, facet: Facet): boolean => isMember(FIXED, kind, facet);
/** Is the facet an entry of a collection? Then it may be absent. */
const isEntry = (facet: Facet): facet is ['body', string, string] => facet.length === 3;

/** May this facet be written by itself? An entry only in a collection, a collection only entry by entry. */
export const isFacetOf = (kind: Kind, facet: Facet): boolean =>
  facet[0] !== 'body' || isEntry(facet) === isMember(COLLECTIONS, kind, facet);

type Facets = Pick<Row, 'name' | 'order' | 'body'>;

export const sameFacet = (a: Facet, b: Facet): boolean => a.length === b.length && a.every((key, i) => key === b[i]);

/** Value of a facet; undefined where it is absent. */
export function readFacet(row: Facets, facet: Facet): unknown {
  if (facet[0] !== 'body') return row[facet[0]];
  const member = own(row.body as object, facet[1]);
  return isEntry(facet) ? own(member as object | undefined, facet[2]) : member;
}

const own = (from: object | undefined, key: string): unknown =>
  from && Object.hasOwn(from, key) ? (from as Record<string, unknown>)[key] : undefined;

/** The row with a facet replaced; `undefined` takes it away. The row before stays as it was. */
export function writeFacet<R extends Facets>(row: R, facet: Facet, value: unknown): R {
  if (facet[0] !== 'body') return { ...row, [facet[0]]: value };
  const body = row.body as Record<string, unknown>;
  if (!isEntry(facet)) return { ...row, body: put(body, facet[1], value) };
  return { ...row, body: put(body, facet[1], put((body[facet[1]] ?? {}) as object, facet[2], value)) };
}

/** A copy with an own member, whatever its name ("__proto__" is a name like others). */
function put(from: object, key: string, value: unknown): Record<string, unknown> {
  const entries = Object.entries(from).filter(([name]) => name !== key);
  if (value !== undefined) {
    const at = Object.keys(from).indexOf(key);
    entries.splice(at < 0 ? entries.length : at, 0, [key, value]);
  }
  return Object.fromEntries(entries) as Record<string, unknown>;
}

/** The facets in which two versions of a row differ. */
export function differingFacets(kind: Kind, before: Facets, after: Facets): Facet[] {
  const facets: Facet[] = [['name'], ['order']];
  const [a, b] = [before.body as Record<string, unknown>, after.body as Record<string, unknown>];
  for (const member of union(a, b)) {
    if (!COLLECTIONS[kind]?.includes(member)) facets.push(['body', member]);
    else for (const key of union(a[member] ?? {}, b[member] ?? {})) facets.push(['body', member, key]);
  }
  return facets.filter((facet) => !sameValues(readFacet(before, facet), readFacet(after, facet)));
}

const union = (a: object, b: object) => new Set([...Object.keys(a), ...Object.keys(b)]);
