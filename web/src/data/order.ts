/** The order number that puts the row at `from` where the row at `to` is now. */
export function orderBetween(rows: readonly { order: number }[], from: number, to: number): number {
  const others = rows.filter((_, i) => i !== from);
  const before = others[to - 1]?.order;
  const after = others[to]?.order;
  if (before === undefined) return (after ?? 0) - 1;
  if (after === undefined) return before + 1;
  return (before + after) / 2;
}

/** The order number of a new last row. */
export function orderAfter(rows: readonly { order: number }[]): number {
  return rows.reduce((most, row) => Math.max(most, row.order), 0) + 1;
}
