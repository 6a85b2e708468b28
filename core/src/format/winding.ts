import { boundsOf, cornerNormal, samePlace } from '../geometry/index.ts';
import { withCopies } from './mesh.ts';
import type { ScenePart } from './scene-model.ts';

/** Parts of more triangles are taken as they come: scans are closed by no one, and sorting them takes seconds. */
const MOST_TRIANGLES = 150_000;

/**
 * A part whose closed bodies all face outward: neighbours are turned to agree, and a body that is inside out is turned
 * whole. Open sheets stay as they came.
 * @returns the part itself where nothing had to be turned
 */
export function mendWinding(part: ScenePart): ScenePart {
  if (part.indices.length / 3 > MOST_TRIANGLES) return part;
  const { turned } = bodiesOf(part);
  return turned.includes(1) ? turn(part, turned) : part;
}

/** Which faces of a part are of open sheets, one flag a face; none where it has too many to tell. */
export function sheetFaces(part: ScenePart): Uint8Array {
  return part.indices.length / 3 > MOST_TRIANGLES ? new Uint8Array(0) : bodiesOf(part).open;
}

/** Which faces must be turned for closed bodies to face outward, and which are of no closed body. */
function bodiesOf(part: ScenePart): { turned: Uint8Array; open: Uint8Array } {
  const faces = part.indices.length / 3;
  const place = samePlace(welded(part.positions));
  const corner = (face: number, k: number) => place[part.indices[3 * face + (k % 3)]!]!;
  const edges = edgesOf(faces, corner, part.positions.length / 3);
  const turned = new Uint8Array(faces);
  const seen = new Uint8Array(faces);
  const open = new Uint8Array(faces);
  for (let start = 0; start < faces; start += 1) {
    if (seen[start]) continue;
    seen[start] = 1;
    const body = [start];
    let closed = true;
    for (let i = 0; i < body.length; i += 1) {
      const face = body[i]!;
      for (let k = 0; k < 3; k += 1) {
        const [a, b] = [corner(face, k), corner(face, k + 1)];
        const other = neighbourOf(face, edges.get(keyOf(a, b, edges.vertices))!);
        if (other === null) {
          closed = false;
          continue;
        }
        // Neighbours that agree go along their common edge in opposite directions.
        const turn = goesAlong(other, a, b, corner) ? 1 - turned[face]! : turned[face]!;
        if (seen[other]) {
          // What comes round to itself the wrong way has no inside.
          if (turned[other] !== turn) closed = false;
          continue;
        }
        seen[other] = 1;
        turned[other] = turn;
        body.push(other);
      }
    }
    // An open sheet has no inside: which of its sides is meant only its maker knows.
    if (!closed)
      for (const face of body) {
        turned[face] = 0;
        open[face] = 1;
      }
    else if (volumeOf(body, turned, part, corner) < 0) for (const face of body) turned[face] = 1 - turned[face]!;
  }
  return { turned, open };
}

/** Nearer to each other than this part of the whole, two corners are one. */
const WELD = 1e-6;

/** Positions on a grid so fine that only what is meant to be one place falls together: seams are seldom closed exactly. */
function welded(positions: Float32Array): Float32Array {
  const { min, max } = boundsOf(positions);
  const cell = WELD * Math.max(...max.map((value, k) => value - min[k]!), 1e-12);
  return positions.map((value, i) => Math.round((value - min[i % 3]!) / cell));
}

type Corner = (face: number, k: number) => number;

const keyOf = (a: number, b: number, vertices: number) => Math.min(a, b) * vertices + Math.max(a, b);

/** The faces at each edge. */
function edgesOf(faces: number, corner: Corner, vertices: number): Map<number, number[]> & { vertices: number } {
  const edges = Object.assign(new Map<number, number[]>(), { vertices });
  for (let face = 0; face < faces; face += 1)
    for (let k = 0; k < 3; k += 1) {
      const key = keyOf(corner(face, k), corner(face, k + 1), vertices);
      const list = edges.get(key);
      if (list) list.push(face);
      else edges.set(key, [face]);
    }
  return edges;
}

/**
 * The face that goes on from a face over an edge. Where bodies touch, four and more meet there: they are written one
 * after another, so each two that follow each other are of one body. Null where a sheet ends.
 */
function neighbourOf(face: number, beside: readonly number[]): number | null {
  if (beside.length % 2 === 1) return null;
  return beside[beside.indexOf(face) ^ 1]!;
}

const goesAlong = (face: number, a: number, b: number, corner: Corner): boolean =>
  [0, 1, 2].some((k) => corner(face, k) === a && corner(face, k + 1) === b);

/** Six times the volume that a body encloses; negative where it is inside out. */
function volumeOf(body: readonly number[], turned: Uint8Array, { positions: p }: ScenePart, corner: Corner): number {
  let volume = 0;
  // Against a corner of its own: far from the origin the sum would lose its sign.
  const o = 3 * corner(body[0]!, 0);
  for (const face of body) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * corner(face, k)) as [number, number, number];
    const x = (i: number, k: number) => p[i + k]! - p[o + k]!;
    const six =
      x(a, 0) * (x(b, 1) * x(c, 2) - x(b, 2) * x(c, 1)) +
      x(a, 1) * (x(b, 2) * x(c, 0) - x(b, 0) * x(c, 2)) +
      x(a, 2) * (x(b, 0) * x(c, 1) - x(b, 1) * x(c, 0));
    volume += turned[face] ? -six : six;
  }
  return volume;
}

/** Turns faces, with vertices of their own where a neighbour that is not turned shares them. */
function turn(part: ScenePart, turned: Uint8Array): ScenePart {
  const count = part.positions.length / 3;
  const own = new Int32Array(count).fill(-1);
  const used = new Uint8Array(count);
  const indices = part.indices.slice();
  for (let face = 0; face < turned.length; face += 1)
    if (!turned[face]) for (let k = 0; k < 3; k += 1) used[indices[3 * face + k]!] = 1;
  const copies: number[] = [];
  /** How far the normals that came agree with the turned faces around them. */
  const agreement = new Float64Array(count);
  const facing = new Float64Array(3);
  for (let face = 0; face < turned.length; face += 1) {
    if (!turned[face]) continue;
    const o = 3 * face;
    const [a, b, c] = [part.indices[o]!, part.indices[o + 2]!, part.indices[o + 1]!];
    cornerNormal(part.positions, 3 * a, 3 * b, 3 * c, facing);
    for (const v of [a, b, c]) for (let k = 0; k < 3; k += 1) agreement[v]! += facing[k]! * part.normals[3 * v + k]!;
    for (let k = 0; k < 3; k += 1) {
      const v = indices[o + k]!;
      if (own[v]! < 0) own[v] = used[v] ? count + copies.push(v) - 1 : v;
      indices[o + k] = own[v]!;
    }
    [indices[o + 1], indices[o + 2]] = [indices[o + 2]!, indices[o + 1]!];
  }
  const grown = withCopies(part, copies);
  const { normals } = grown;
  for (let v = 0; v < count; v += 1)
    // Normals that were written as they should be stay.
    if (own[v]! >= 0 && agreement[v]! < 0)
      for (let k = 0; k < 3; k += 1) normals[3 * own[v]! + k] = -normals[3 * own[v]! + k]!;
  return { ...grown, indices };
}
