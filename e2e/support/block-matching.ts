const HALF = 8;
const ACROSS = 8;
const UP = 5;

/**
 * How far what one picture shows has gone in the next, on average over a grid of blocks, in widths: the best of all
 * shifts by the sum of squared differences, and a parabola about it.
 */
export function shiftOf(a: Buffer, b: Buffer, width: number, height: number, reach: number): number {
  let sum = 0;
  for (let row = 0; row < UP; row += 1)
    for (let column = 0; column < ACROSS; column += 1) {
      const x = Math.round(((column + 0.5) / ACROSS) * width);
      const y = Math.round(((row + 0.5) / UP) * height);
      const off = (dx: number, dy: number) => {
        if (x + dx < HALF || x + dx >= width - HALF || y + dy < HALF || y + dy >= height - HALF) return Infinity;
        let squares = 0;
        for (let j = -HALF; j <= HALF; j += 1)
          for (let i = -HALF; i <= HALF; i += 1)
            squares += (b[(y + dy + j) * width + x + dx + i]! - a[(y + j) * width + x + i]!) ** 2;
        return squares;
      };
      let [least, bx, by] = [Infinity, 0, 0];
      for (let dy = -reach; dy <= reach; dy += 1)
        for (let dx = -reach; dx <= reach; dx += 1) {
          const value = off(dx, dy);
          if (value < least) [least, bx, by] = [value, dx, dy];
        }
      const fine = (before: number, after: number) => {
        const bend = before - 2 * least + after;
        return Number.isFinite(bend) && bend > 0 ? (before - after) / 2 / bend : 0;
      };
      const right = bx + fine(off(bx - 1, by), off(bx + 1, by));
      const down = by + fine(off(bx, by - 1), off(bx, by + 1));
      sum += Math.hypot(right, down) / width;
    }
  return sum / (ACROSS * UP);
}
