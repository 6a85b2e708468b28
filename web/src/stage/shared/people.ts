/** Eye heights of people, metres (common practice, no source). */
export const PEOPLE = [
  { value: 'standing', label: 'Standing', height: 1.6 },
  { value: 'tall', label: 'Tall', height: 1.75 },
  { value: 'seated', label: 'Seated', height: 1.2 },
  { value: 'child', label: 'Child', height: 1.1 },
  { value: 'wheelchair', label: 'Wheelchair', height: 1.25 },
] as const;

export type Person = (typeof PEOPLE)[number]['value'] | 'custom';

export function personOf(height: number): Person {
  return PEOPLE.find((person) => Math.abs(person.height - height) < 0.005)?.value ?? 'custom';
}

export const PERSON_OPTIONS: readonly { value: Person; label: string }[] = [
  ...PEOPLE,
  { value: 'custom' as const, label: 'Custom' },
].map(({ value, label }) => ({ value, label }));

export const heightOf = (person: Person): number | null => PEOPLE.find(({ value }) => value === person)?.height ?? null;
