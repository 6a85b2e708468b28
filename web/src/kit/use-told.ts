import { useEffect, useState } from 'react';

/** A page that has not shown by then what it was told will not, milliseconds. */
const CATCHES_UP = 600;

/** A value as a hand has just left it. */
export interface Told<T> {
  /** What was told last, until the page shows it. */
  now: T;
  tell: (next: T) => void;
  /** It is not to be so after all. */
  forget: () => void;
}

/**
 * A busy page shows what was made a moment later. A hand that goes on meanwhile goes on from what it has made.
 * @param value as the page shows it
 */
export function useTold<T extends string | number>(value: T): Told<T> {
  // In order: a page that comes late shows one after the other, and may show the same one twice.
  const [told, setTold] = useState<readonly T[]>(NOTHING);
  const [seen, setSeen] = useState(value);
  if (value !== seen) {
    setSeen(value);
    const shown = told.indexOf(value);
    if (shown >= 0) setTold(told.slice(shown + 1));
  }
  useEffect(() => {
    if (told.length === 0) return undefined;
    const timer = setTimeout(() => setTold(NOTHING), CATCHES_UP);
    return () => clearTimeout(timer);
  }, [told]);
  return {
    now: told.at(-1) ?? value,
    tell: (next) => setTold((before) => [...before, next]),
    forget: () => setTold(NOTHING),
  };
}

const NOTHING: readonly never[] = [];
