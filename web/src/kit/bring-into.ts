/**
 * Scrolls a list to one of its entries, as far as it must. The browser's own way would have Tab go on from there, wherever
 * the hand is.
 */
export function bringInto(list: Element | null, entry: Element | null | undefined): void {
  if (!list || !entry) return;
  const [seen, wanted] = [list.getBoundingClientRect(), entry.getBoundingClientRect()];
  if (wanted.top < seen.top) list.scrollTop -= seen.top - wanted.top;
  else if (wanted.bottom > seen.bottom) list.scrollTop += wanted.bottom - seen.bottom;
}

/** The same in whatever it is that scrolls about the entry. */
export function bringIntoSight(entry: Element | null): void {
  let list = entry?.parentElement ?? null;
  while (list && !scrolls(list)) list = list.parentElement;
  bringInto(list, entry);
}

const scrolls = (element: Element): boolean => /auto|scroll/.test(getComputedStyle(element).overflowY);
