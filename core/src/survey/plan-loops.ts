/** Points nearer than this are the same point, metres. */
export const WELD = 0.001;
/** What is cut and thicker than this is no wall: a ring of single faces is drawn as lines, not as one black block. Metres. */
export const THICKEST = 1.5;

export const tidy = (value: number) => Math.round(value * 1000) / 1000;
const key = (x: number, z: number) => `${Math.round(x / WELD)},${Math.round(z / WELD)}`;

/** Sides of a closed loop, four numbers each. */
export function sidesOf(loop: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = 0; i < loop.length; i += 2) {
    const next = (i + 2) % loop.length;
    out.push(loop[i]!, loop[i + 1]!, loop[next]!, loop[next + 1]!);
  }
  return out;
}

/**
 * Joins loose lines end to end. What comes back to its start is a loop, the way round that most of its lines go; the
 * rest stays lines.
 */
export function joinLoops(lines: readonly number[]): { loops: number[][]; rest: number[] } {
  const byPoint = new Map<string, number[]>();
  const count = lines.length / 4;
  const length = (i: number) => Math.hypot(lines[4 * i + 2]! - lines[4 * i]!, lines[4 * i + 3]! - lines[4 * i + 1]!);
  const startsAt = (i: number, place: string) => key(lines[4 * i]!, lines[4 * i + 1]!) === place;
  for (let i = 0; i < count; i += 1)
    for (const end of [0, 2]) {
      const k = key(lines[4 * i + end]!, lines[4 * i + end + 1]!);
      const list = byPoint.get(k);
      if (list) list.push(i);
      else byPoint.set(k, [i]);
    }
  const used = new Uint8Array(count);
  const loops: number[][] = [];
  const rest: number[] = [];
  for (let start = 0; start < count; start += 1) {
    if (used[start]) continue;
    used[start] = 1;
    const chain = [start];
    const points = [lines[4 * start]!, lines[4 * start + 1]!, lines[4 * start + 2]!, lines[4 * start + 3]!];
    const home = key(points[0]!, points[1]!);
    let along = length(start);
    for (;;) {
      const here = key(points.at(-2)!, points.at(-1)!);
      if (here === home) break;
      const left = byPoint.get(here)!.filter((i) => !used[i]);
      // Where bodies touch, the line that goes on the same way round is of the same body.
      const next = left.find((i) => startsAt(i, here)) ?? left[0];
      if (next === undefined) break;
      used[next] = 1;
      chain.push(next);
      const forward = startsAt(next, here);
      along += forward ? length(next) : -length(next);
      points.push(lines[4 * next + (forward ? 2 : 0)]!, lines[4 * next + (forward ? 3 : 1)]!);
    }
    if (key(points.at(-2)!, points.at(-1)!) === home && points.length >= 8)
      loops.push(straighten(along < 0 ? reversed(points) : points));
    else for (const i of chain) for (let k = 0; k < 4; k += 1) rest.push(tidy(lines[4 * i + k]!));
  }
  return { loops, rest };
}

/** Drops points in the middle of straight stretches (a wall is cut once per triangle). */
function straighten(points: readonly number[]): number[] {
  const out: number[] = [];
  const count = points.length / 2 - 1;
  for (let i = 0; i < count; i += 1) {
    const before = (i + count - 1) % count;
    const [ax, az, bx, bz, cx, cz] = [
      points[2 * before]!,
      points[2 * before + 1]!,
      points[2 * i]!,
      points[2 * i + 1]!,
      points[2 * i + 2]!,
      points[2 * i + 3]!,
    ];
    const bend = Math.abs((bx - ax) * (cz - az) - (bz - az) * (cx - ax));
    if (bend > 1e-4 * Math.max(Math.hypot(cx - ax, cz - az), WELD)) out.push(tidy(bx), tidy(bz));
  }
  return out;
}

/** The same points the other way round. */
function reversed(points: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = points.length - 2; i >= 0; i -= 2) out.push(points[i]!, points[i + 1]!);
  return out;
}

interface Loop {
  points: number[];
  /** Positive where what is cut lies inside. */
  area: number;
  length: number;
  box: [number, number, number, number];
}

/** Outlines with the holes in them, and loops that are rings of single faces. */
export function solidsOf(loops: readonly number[][], thickest: number): { filled: number[][][]; rings: number[][] } {
  const all = loops.filter((points) => points.length >= 6).map(measured);
  const outlines = all.filter(({ area }) => area > 0).sort((a, b) => a.area - b.area);
  const holes = new Map<Loop, Loop[]>(outlines.map((outline) => [outline, []]));
  const rings: Loop[] = [];
  for (const loop of all) {
    if (loop.area > 0) continue;
    const [x, z] = [loop.points[0]!, loop.points[1]!];
    const around = outlines.find(({ area, box, points }) => {
      const [x0, z0, x1, z1] = box;
      return area > -loop.area && x >= x0 && x <= x1 && z >= z0 && z <= z1 && isInside(points, x, z);
    });
    if (around) holes.get(around)!.push(loop);
    // A body that is inside out, or a ring of faces that look into its room.
    else if (isThin([loop], thickest)) holes.set(loop, []);
    else rings.push(loop);
  }
  const filled: number[][][] = [];
  for (const [outline, within] of holes) {
    if (isThin([outline, ...within], thickest)) filled.push([outline.points, ...within.map(({ points }) => points)]);
    else rings.push(outline, ...within);
  }
  return { filled, rings: rings.map(({ points }) => points) };
}

function measured(points: number[]): Loop {
  let [area, length] = [0, 0];
  const box: Loop['box'] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += 2) {
    const j = (i + 2) % points.length;
    const [ax, az, bx, bz] = [points[i]!, points[i + 1]!, points[j]!, points[j + 1]!];
    area += (ax * bz - bx * az) / 2;
    length += Math.hypot(bx - ax, bz - az);
    box[0] = Math.min(box[0], ax);
    box[1] = Math.min(box[1], az);
    box[2] = Math.max(box[2], ax);
    box[3] = Math.max(box[3], az);
  }
  return { points, area, length, box };
}

/** Is what lies between loops as thin as a wall? Twice the area over the length of its edges is about its thickness. */
function isThin(loops: readonly Loop[], thickest: number): boolean {
  const area = Math.abs(loops.reduce((sum, loop) => sum + loop.area, 0));
  return 2 * area <= thickest * loops.reduce((sum, { length }) => sum + length, 0);
}

/** Does a point lie within a closed loop of x, z pairs? */
export function isInside(points: readonly number[], x: number, z: number): boolean {
  let inside = false;
  for (let i = 0; i < points.length; i += 2) {
    const j = (i + 2) % points.length;
    const [ax, az, bx, bz] = [points[i]!, points[i + 1]!, points[j]!, points[j + 1]!];
    if (az > z !== bz > z && x < ax + ((z - az) / (bz - az)) * (bx - ax)) inside = !inside;
  }
  return inside;
}
