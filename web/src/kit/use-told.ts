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
  const [told, setTold] = useState<{ value: T } | null>(null);
  if (told?.value === value) setTold(null);
  useEffect(() => {
    if (!told) return undefined;
    const timer = setTimeout(() => setTold(null), CATCHES_UP);
    return () => clearTimeout(timer);
  }, [told]);
  return { now: told ? told.value : value, tell: (next) => setTold({ value: next }), forget: () => setTold(null) };
}
