import { personSchema, type Person } from '@eskovan/core/document';
import { create } from 'zustand';
import { safeJson } from './api.ts';

const KEY = 'eskovan-person';

/** Who works in this browser. Until there are accounts it is a name that one gives oneself. */
function readPerson(): Person {
  const kept = personSchema.safeParse(safeJson(localStorage.getItem(KEY) ?? 'null'));
  if (kept.success) return kept.data;
  const id = crypto.randomUUID();
  const person = { id, name: `Artist ${id.slice(0, 2)}` };
  keep(person);
  return person;
}

function keep(person: Person): void {
  // A browser that keeps nothing has somebody new at every start: nothing else depends on it.
  try {
    localStorage.setItem(KEY, JSON.stringify(person));
  } catch {
    return;
  }
}

export const usePerson = create<Person>()(readPerson);
export const thisPerson = usePerson.getState;

/** @param name at most 80 characters; an empty one changes nothing */
export function renamePerson(name: string): void {
  const next = personSchema.safeParse({ ...thisPerson(), name });
  if (!next.success) return;
  keep(next.data);
  usePerson.setState(next.data);
}
