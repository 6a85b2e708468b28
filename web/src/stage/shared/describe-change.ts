import { ownName, type Change, type Facet } from '@eskovan/core/document';

const WORDS: Readonly<Record<string, string>> = {
  eyeHeight: 'eye height',
  viewIds: 'views',
  takeIds: 'takes',
  storeyNames: 'names of storeys',
  storeyChanges: 'storeys',
  roomNames: 'names of rooms',
  parts: 'look',
  materials: 'material',
  sun: 'sun and place',
  instant: 'time of day',
  frame: 'frame',
  rate: 'frame rate',
};

/** A facet as people call it. */
export function facetInWords(facet: Facet): string {
  const [of, member, entry] = facet;
  if (of === 'name') return 'name';
  if (of === 'order') return 'place in the list';
  if (member === undefined) return 'content';
  const words = WORDS[member] ?? member.replace(/([A-Z])/g, ' $1').toLowerCase();
  return entry === undefined ? words : `${words} of ${ownName(entry)}`;
}

/** A value in a few words; shapes are said by what they hold. */
export function valueInWords(value: unknown): string {
  if (value === undefined || value === null) return 'nothing';
  if (typeof value === 'number') return String(Number(value.toFixed(3)));
  if (typeof value === 'string') return value.length > 60 ? `${value.slice(0, 57)}…` : value;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value))
    return value.every((one) => typeof one === 'number')
      ? value.map(valueInWords).join(', ')
      : `${value.length} entries`;
  const entries = Object.entries(value as object);
  const plain = entries.filter(([, member]) => typeof member !== 'object').slice(0, 4);
  const lists = entries.flatMap(([key, member]) => (Array.isArray(member) ? [`${member.length} ${key}`] : []));
  return (
    [...plain.map(([key, member]) => `${key} ${valueInWords(member)}`), ...lists].join(', ') ||
    `${entries.length} values`
  );
}

/** A change in one line. */
export function describeChange(change: Change): string {
  switch (change.op) {
    case 'make':
      return `new ${change.kind} “${change.name}”`;
    case 'remove':
      return `a ${change.kind} deleted`;
    case 'restore':
      return `a ${change.kind} brought back`;
    case 'set':
      return `${facetInWords(change.facet)} of a ${change.kind}: ${valueInWords(change.before)} → ${valueInWords(change.after)}`;
  }
}
