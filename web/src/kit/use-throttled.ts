import { useEffect, useRef, useState } from 'react';

/**
 * A value for what is costly to draw: at once after a rest, while it keeps changing no more often than every so many
 * milliseconds, and in the end as it is.
 */
export function useThrottled<T>(value: T, every: number): T {
  const [shown, setShown] = useState(value);
  const last = useRef(-Infinity);
  useEffect(() => {
    const put = () => {
      last.current = performance.now();
      setShown(value);
    };
    const left = last.current + every - performance.now();
    if (left <= 0) {
      put();
      return;
    }
    const timer = setTimeout(put, left);
    return () => clearTimeout(timer);
  }, [value, every]);
  return shown;
}
