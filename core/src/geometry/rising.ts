/**
 * The piece of a table of rising values that a value lies in, as the index of its beginning: by halving. Below the first
 * value it is the first piece, above the last one the last.
 * @param rising two values or more, none less than the one before it
 */
export function pieceAt(rising: ArrayLike<number>, value: number): number {
  let [low, high] = [0, rising.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (rising[middle]! <= value) low = middle;
    else high = middle;
  }
  return low;
}
