import { hullOf } from '../geometry/index.ts';

/** Lines nearer than this belong to one thing, metres. */
const NEAR = 0.35;
/** A crown is cut in lines that are together longer than its outline by this. */
const TANGLED = 1.5;

/**
 * Outlines of what is cut out of pictures: a tree of leaves on cards is cut in a hundred little lines, and a plan shows
 * how far its crown reaches. What hangs together and crosses itself again and again becomes its convex hull; a railing or a
 * person stays the lines that it is.
 * @param lines four numbers a line, metres
 * @returns the same
 */
export function crownsOf(lines: readonly number[]): number[] {
  const cells = new Map<string, number[]>();
  const cellsOf = (line: number): string[] => {
    const [ax, az, bx, bz] = [0, 1, 2, 3].map((k) => lines[4 * line + k]!) as [number, number, number, number];
    const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, bz - az) / NEAR));
    return Array.from({ length: steps + 1 }, (_, i) =>
      [ax + ((bx - ax) * i) / steps, az + ((bz - az) * i) / steps].map((value) => Math.floor(value / NEAR)).join(),
    );
  };
  const count = lines.length / 4;
  for (let line = 0; line < count; line += 1)
    for (const cell of cellsOf(line)) {
      const there = cells.get(cell);
      if (there) there.push(line);
      else cells.set(cell, [line]);
    }
  const seen = new Uint8Array(count);
  const out: number[] = [];
  for (let first = 0; first < count; first += 1) {
    if (seen[first]) continue;
    seen[first] = 1;
    const group = [first];
    for (let i = 0; i < group.length; i += 1)
      for (const cell of cellsOf(group[i]!)) {
        const [x, z] = cell.split(',').map(Number) as [number, number];
        for (let k = 0; k < 9; k += 1) {
          const near = `${x + (k % 3) - 1},${z + Math.floor(k / 3) - 1}`;
          for (const other of cells.get(near) ?? []) {
            if (seen[other]) continue;
            seen[other] = 1;
            group.push(other);
          }
          // All of it is in the group: nobody needs to look there again.
          cells.delete(near);
        }
      }
    const length = group.reduce((sum, line) => sum + lengthOf(lines.slice(4 * line, 4 * line + 4)), 0);
    const hull = hullOf(
      group.flatMap((line) => [0, 2].map((k) => [lines[4 * line + k]!, lines[4 * line + k + 1]!] as const)),
    );
    const outline = hull.flatMap((p, i) => [...p, ...hull[(i + 1) % hull.length]!]);
    const around = hull.reduce((sum, _, i) => sum + lengthOf(outline.slice(4 * i, 4 * i + 4)), 0);
    if (length > TANGLED * around) out.push(...outline);
    else for (const line of group) out.push(...lines.slice(4 * line, 4 * line + 4));
  }
  return out;
}

const lengthOf = ([ax, az, bx, bz]: readonly number[]) => Math.hypot(bx! - ax!, bz! - az!);
