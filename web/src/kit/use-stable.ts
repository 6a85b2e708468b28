import { useCallback, useEffect, useMemo, useRef, useState } from 'react';

/** A deed that stays the same for whoever gets it, and always does the newest: what it reaches is not drawn again. */
export function useStable<A extends unknown[], R>(deed: (...given: A) => R): (...given: A) => R {
  const newest = useRef(deed);
  useEffect(() => {
    newest.current = deed;
  });
  return useCallback((...given: A) => newest.current(...given), []);
}

/** The same value as long as it says the same, as JSON. */
export function useSame<T>(value: T): T {
  const said = JSON.stringify(value);
  // eslint-disable-next-line react-hooks/exhaustive-deps
  return useMemo(() => value, [said]);
}

/** The same list as long as the same things are in it. */
export function useKept<T>(list: readonly T[]): readonly T[] {
  const [kept, setKept] = useState(list);
  if (kept === list || (kept.length === list.length && kept.every((item, i) => item === list[i]))) return kept;
  setKept(list);
  return list;
}
