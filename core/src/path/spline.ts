import type { Path, PathNode } from '../document/index.ts';
import { setbackPerRadius } from './corner.ts';
import { bezierDerivative, splitBezier, STRIDE, type BezierChain } from './bezier.ts';

interface Point {
  x: number;
  z: number;
}

/** Nodes nearer than a hundredth of a millimetre are one place: a path cannot have a direction between them. */
const SAME_PLACE = 1e-5;
/** Metres: what is left of a leg between two roundings that is no leg any more. */
const NOTHING_LEFT = 1e-6;

/**
 * One centripetal Catmull–Rom span from b to c as a Bézier. Knots are spaced by the square root of the distance,
 * which is the only spacing without cusps or self-intersections inside a span
 * (Yuksel, Schaefer, Keyser 2011, "Parameterization and applications of Catmull–Rom curves").
 */
function centripetalSpan(a: Point, b: Point, c: Point, d: Point): number[] {
  const knot = (p: Point, q: Point) => Math.sqrt(Math.hypot(q.x - p.x, q.z - p.z));
  const d1 = knot(a, b);
  const d2 = knot(b, c);
  const d3 = knot(c, d);
  const tangent = (p: number, q: number, r: number, before: number, after: number) =>
    // Derivative of the parabola through three unevenly spaced values, scaled to a span of length one.
    d2 *
    ((before > 1e-9 ? (q - p) / before : 0) -
      (r - p) / Math.max(before + after, 1e-9) +
      (after > 1e-9 ? (r - q) / after : 0));
  const axis = (p: number, q: number, r: number, s: number): [number, number] => {
    const chordOfAxis = r - q;
    const start = d1 > 1e-9 ? tangent(p, q, r, d1, d2) : null;
    const end = d3 > 1e-9 ? tangent(q, r, s, d2, d3) : null;
    // A free end has no bend of its own: second derivative zero, i.e. half of three chords less the other tangent.
    return [
      start ?? (end === null ? chordOfAxis : 1.5 * chordOfAxis - 0.5 * end),
      end ?? (start === null ? chordOfAxis : 1.5 * chordOfAxis - 0.5 * start),
    ];
  };
  const [startX, endX] = axis(a.x, b.x, c.x, d.x);
  const [startZ, endZ] = axis(a.z, b.z, c.z, d.z);
  return [b.x, b.z, b.x + startX / 3, b.z + startZ / 3, c.x - endX / 3, c.z - endZ / 3, c.x, c.z];
}

/** Nodes in one place are one node, a corner if one of them is: whichever way the path runs. */
function distinct(path: Path): PathNode[] {
  const same = (a: PathNode, b: PathNode) => Math.hypot(a.x - b.x, a.z - b.z) <= SAME_PLACE;
  const sharper = (a: PathNode, b: PathNode) => (a.kind !== 'corner' && b.kind === 'corner' ? b : a);
  const nodes: PathNode[] = [];
  for (const node of path.nodes) {
    const before = nodes.at(-1);
    if (before && same(before, node)) nodes[nodes.length - 1] = sharper(before, node);
    else nodes.push(node);
  }
  if (path.closed && nodes.length > 2 && same(nodes[0]!, nodes.at(-1)!)) nodes[0] = sharper(nodes[0]!, nodes.pop()!);
  return nodes;
}

/** The spans before corners are rounded: smooth nodes are passed smoothly, corners end the smoothness. */
function sharpSpans(nodes: PathNode[], closed: boolean): number[][] {
  const count = nodes.length;
  const at = (i: number) => nodes[(i + count) % count]!;
  const spans: number[][] = [];
  for (let i = 0; i < (closed ? count : count - 1); i += 1) {
    const b = at(i);
    const c = at(i + 1);
    const a = b.kind === 'corner' || (!closed && i === 0) ? b : at(i - 1);
    const d = c.kind === 'corner' || (!closed && i === count - 2) ? c : at(i + 2);
    spans.push(centripetalSpan(a, b, c, d));
  }
  return spans;
}

const chord = (span: ArrayLike<number>) => Math.hypot(span[6]! - span[0]!, span[7]! - span[1]!);

/** Unit direction of a span at its start (t = 0) or end (t = 1). */
function direction(span: Float64Array, t: 0 | 1): Point {
  const d = new Float64Array(2);
  bezierDerivative(span, 0, t, d);
  const length = Math.hypot(d[0]!, d[1]!) || 1;
  return { x: d[0]! / length, z: d[1]! / length };
}

/**
 * A Bézier that leaves `from` along `u` and arrives at `to` along `v`: for equal tangent lengths it is the
 * standard approximation of a circular arc (handle 4/3·tan(θ/4)·r; radial error below 0.03 % up to 90°).
 */
function fillet(from: Point, u: Point, to: Point, v: Point): number[] {
  const angle = Math.abs(Math.atan2(u.x * v.z - u.z * v.x, u.x * v.x + u.z * v.z));
  const gap = Math.hypot(to.x - from.x, to.z - from.z);
  const radius = gap / (2 * Math.max(Math.sin(angle / 2), 1e-6));
  const handle = angle < 1e-4 ? gap / 3 : (4 / 3) * Math.tan(angle / 4) * radius;
  return [
    from.x,
    from.z,
    from.x + u.x * handle,
    from.z + u.z * handle,
    to.x - v.x * handle,
    to.z - v.z * handle,
    to.x,
    to.z,
  ];
}

/** Parameter at which a nearly straight span has covered `length` from its start, by bisection on the chord. */
function parameterAtDistance(span: Float64Array, length: number): number {
  let low = 0;
  let high = 1;
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    const [head] = splitBezier(span, 0, middle);
    if (chord(head) < length) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** How far from the corner the rounding starts, metres: at most half the shorter leg. */
function setback(before: Float64Array, after: Float64Array, radius: number): number {
  const u = direction(before, 1);
  const v = direction(after, 0);
  const turn = Math.acos(Math.max(-1, Math.min(1, u.x * v.x + u.z * v.z)));
  if (turn < 1e-4 || radius <= 0) return 0;
  return Math.min(radius * setbackPerRadius(turn), chord(before) / 2, chord(after) / 2);
}

/**
 * The plan curve of a path: through every smooth node, round every corner.
 * @returns a chain of Béziers and, per node, the index of the segment that starts there (for pointing at the path)
 */
export function pathToBeziers(path: Path): {
  chain: BezierChain;
  spanOfSegment: Int32Array;
  /** Segments that round the corner at the end of their span. */
  roundings: ReadonlySet<number>;
} {
  const nodes = distinct(path);
  if (nodes.length < 2) return { chain: new Float64Array(0), spanOfSegment: new Int32Array(0), roundings: new Set() };
  const closed = path.closed && nodes.length > 2;
  const spans = sharpSpans(nodes, closed).map((span) => Float64Array.from(span));
  const count = spans.length;
  // Set-backs are measured on the untrimmed legs, so the two ends of one leg can never overlap.
  const rounding = nodes.map((node, i) => {
    if (node.kind !== 'corner' || (!closed && (i === 0 || i === nodes.length - 1))) return 0;
    return setback(spans[(i - 1 + count) % count]!, spans[i % count]!, node.radius);
  });
  const out: number[] = [];
  const owner: number[] = [];
  const roundings = new Set<number>();
  const push = (values: ArrayLike<number>, span: number) => {
    for (let k = 0; k < STRIDE; k += 1) out.push(values[k]!);
    owner.push(path.nodes.indexOf(nodes[span]!));
  };
  const trimmed = spans.map((span, i) => {
    const startCut = rounding[i]!;
    const endCut = rounding[(i + 1) % nodes.length]!;
    let piece: Float64Array = span;
    if (startCut > 0) piece = splitBezier(piece, 0, parameterAtDistance(piece, startCut))[1];
    if (endCut > 0) piece = splitBezier(piece, 0, 1 - parameterAtDistance(reversed(piece), endCut))[0];
    return piece;
  });
  // Roundings that meet in the middle of a leg leave nothing of it: then its own direction counts, not rounding error's.
  const isLeft = (piece: Float64Array) => chord(piece) > NOTHING_LEFT;
  const along = (i: number, t: 0 | 1) => direction(isLeft(trimmed[i]!) ? trimmed[i]! : spans[i]!, t);
  trimmed.forEach((piece, i) => {
    if (isLeft(piece)) push(piece, i);
    const corner = (i + 1) % nodes.length;
    const next = trimmed[(i + 1) % count]!;
    if (rounding[corner]! > 0 && (closed || i < count - 1)) {
      const from = { x: piece[6]!, z: piece[7]! };
      const to = { x: next[0]!, z: next[1]! };
      roundings.add(owner.length);
      push(fillet(from, along(i, 1), to, along((i + 1) % count, 0)), i);
    }
  });
  return { chain: Float64Array.from(out), spanOfSegment: Int32Array.from(owner), roundings };
}

function reversed(span: Float64Array): Float64Array {
  return Float64Array.of(span[6]!, span[7]!, span[4]!, span[5]!, span[2]!, span[3]!, span[0]!, span[1]!);
}
