import { useCallback, useEffect, useRef } from 'react';

/** A deed that stays the same for whoever gets it, and always does the newest: what it reaches is not drawn again. */
export function useStable<A extends unknown[], R>(deed: (...given: A) => R): (...given: A) => R {
  const newest = useRef(deed);
  useEffect(() => {
    newest.current = deed;
  });
  return useCallback((...given: A) => newest.current(...given), []);
}
