import { useVirtualizer } from '@tanstack/react-virtual';
import type { CSSProperties, RefObject } from 'react';
import { bringInto } from '../../kit/index.ts';

/** Lists up to this long are drawn whole. */
const WHOLE = 120;

interface Slice {
  from: number;
  to: number;
  /** Room for what is not drawn, above and below. */
  space: CSSProperties;
  /** Scrolls to an entry, as far as it must. */
  bringIn: (index: number) => void;
}

/**
 * The entries of a long list that are in sight: thousands cost no more than a screenful.
 * @param height of an entry with its gap, pixels; each has `data-entry`
 */
export function useSlice(
  scroll: RefObject<HTMLElement | null>,
  count: number,
  height: (index: number) => number,
): Slice {
  const long = count > WHOLE;
  const virtual = useVirtualizer({
    count: long ? count : 0,
    getScrollElement: () => scroll.current,
    estimateSize: height,
    overscan: 8,
  });
  if (!long) {
    const entry = (index: number) => scroll.current?.querySelectorAll('[data-entry]')[index];
    return { from: 0, to: count, space: {}, bringIn: (index) => bringInto(scroll.current, entry(index)) };
  }
  const items = virtual.getVirtualItems();
  const [first, last] = [items[0], items.at(-1)];
  return {
    from: first?.index ?? 0,
    to: (last?.index ?? 0) + 1,
    space: { paddingTop: first?.start ?? 0, paddingBottom: virtual.getTotalSize() - (last?.end ?? 0) },
    bringIn: (index) => virtual.scrollToIndex(index),
  };
}
