import { FormatError } from '../errors.ts';

/** A line that somebody drew elsewhere, seen from above. */
export interface DrawnLine {
  name: string;
  closed: boolean;
  /** In the unit of its file: to the right, up (null where the file says no height), and down the plan. */
  points: [x: number, y: number | null, z: number][];
}

/** What a file of lines holds. */
export interface Drawn {
  lines: DrawnLine[];
  /** Null where the file does not say its unit. */
  metresPerUnit: number | null;
  /** What of it could not be used, each with its count. */
  leftOut: string[];
}

/** A line has so many points at most, and a file so many lines. */
export const MOST_POINTS = 100_000;
export const MOST_LINES = 5000;

/** Points nearer to each other are one: a part of the line's size. */
const SAME = 1e-7;

/** Lines with a length, without points that come twice. @throws FormatError where there are none */
export function usable(lines: readonly DrawnLine[], fileName: string): DrawnLine[] {
  const kept = lines.flatMap((line) => {
    const points = line.points.filter((point) => point.every((value) => value === null || Number.isFinite(value)));
    const size = points.reduce((most, [x, , z]) => Math.max(most, Math.abs(x), Math.abs(z)), 0);
    const near = (a: (typeof points)[number], b: (typeof points)[number]) =>
      Math.hypot(a[0] - b[0], a[2] - b[2]) <= SAME * size;
    const others = points.filter((point, i) => i === 0 || !near(point, points[i - 1]!));
    const comesBack = others.length > 3 && near(others[0]!, others.at(-1)!);
    const own = comesBack ? others.slice(0, -1) : others;
    return own.length > 1 ? [{ ...line, points: own, closed: (line.closed || comesBack) && own.length > 2 }] : [];
  });
  if (kept.length === 0)
    throw new FormatError(
      'no-geometry',
      fileName,
      'it holds no line that one could walk along.',
      'Save lines, polylines or paths as DXF, SVG or CSV.',
    );
  return kept.slice(0, MOST_LINES);
}

/** An arc about a centre as points, both ends included. Angles in radians, from the first to the last. */
export function arcPoints(
  [x, z]: readonly [number, number],
  radius: number,
  from: number,
  to: number,
): [number, null, number][] {
  const steps = Math.max(2, Math.ceil(Math.abs(to - from) / ARC_STEP));
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = from + ((to - from) * i) / steps;
    return [x + radius * Math.cos(angle), null, z + radius * Math.sin(angle)];
  });
}

const ARC_STEP = Math.PI / 24;
