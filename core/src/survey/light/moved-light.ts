import { FIELD, harmonics } from './harmonics.ts';
import { fallOn, type MovedField, type FieldOver, type Matrix } from './moved-field.ts';
import type { SelfShade } from './self-shade.ts';

/** Numbers of a vertex: what is added to its baked light, red, green, blue; and the sun on it, 0…1. */
export const MOVED = 4;

/** Of what falls on a place in the open, so much gets to a surface of a thing that shades itself, at most. */
const MOST_OPEN = 1.15;
/** Light below this part of what there is about a thing says little of how open its surface is. */
const FAINT = 0.3;

/** What moves as one, at rest: three numbers a vertex each. */
export interface MovedVertices {
  positions: Float32Array;
  normals: Float32Array;
  /** Its baked light. */
  ambient: Float32Array;
}

/**
 * The light of something that moves: what was baked where it rests, and what falls where it is now less what fell there,
 * each for the way that a surface faces, as far as the surface is open: what it shades of itself is known from the
 * baked light. What turns to a window gets the light of the window.
 */
export class MovedLight {
  /** How open each vertex is, for red, green and blue. */
  private readonly openness: Float32Array;
  private readonly fell: Float32Array;
  private readonly basis = new Float64Array(9);

  /** @param shade of the whole thing that the vertices belong to, and their name for it */
  constructor(
    private readonly field: MovedField,
    private readonly vertices: MovedVertices,
    private readonly shade: SelfShade | null = null,
    private readonly name = 0,
  ) {
    this.fell = new Float32Array(vertices.ambient.length);
    this.openness = new Float32Array(vertices.ambient.length);
    if (field.rest) this.compare(field.rest);
  }

  /** What fell on each vertex where it rests, and how much of it got there. */
  private compare(rest: FieldOver): void {
    const { positions: p, normals: n, ambient } = this.vertices;
    const { fell, openness, basis } = this;
    const most = [0, 0, 0];
    const got = [0, 0, 0];
    const came = [1e-9, 1e-9, 1e-9];
    for (let o = 0; o < p.length; o += 3) {
      harmonics(n[o]!, n[o + 1]!, n[o + 2]!, basis);
      fallOn(rest, basis, p[o]!, p[o + 1]!, p[o + 2]!, fallen);
      for (let k = 0; k < 3; k += 1) {
        fell[o + k] = Math.max(0, fallen[k]!);
        most[k] = Math.max(most[k]!, fell[o + k]!);
        got[k]! += ambient[o + k]!;
        came[k]! += fell[o + k]!;
      }
    }
    for (let o = 0; o < fell.length; o += 1) {
      const k = o % 3;
      const known = fell[o]! / (fell[o]! + FAINT * most[k]! + 1e-9);
      const own = Math.min(MOST_OPEN, ambient[o]! / Math.max(1e-9, fell[o]!));
      openness[o] = known * own + (1 - known) * Math.min(1, got[k]! / came[k]!);
    }
  }

  /**
   * What of the light changes by moving.
   * @param m takes a point from where it rests to where it is
   * @param out MOVED numbers a vertex
   * @returns false where nothing is known: it stays as it was baked
   */
  at(m: Matrix, out: Float32Array): boolean {
    const now = this.field.at(m);
    if (!now || !this.field.rest) return false;
    const { positions: p, normals: n, ambient } = this.vertices;
    const { basis, openness, fell } = this;
    const t = turnOf(m);
    const [sx, sy, sz] = this.field.place.sun;
    const open = now.terms.some((term) => term[FIELD] !== 0)
      ? this.shade?.open(this.name, this.vertices, [
          t[0]! * sx + t[1]! * sy + t[2]! * sz,
          t[3]! * sx + t[4]! * sy + t[5]! * sz,
          t[6]! * sx + t[7]! * sy + t[8]! * sz,
        ])
      : null;
    for (let v = 0, o = 0; o < p.length; v += 1, o += 3) {
      const [x, y, z] = [p[o]!, p[o + 1]!, p[o + 2]!];
      const [nx, ny, nz] = [n[o]!, n[o + 1]!, n[o + 2]!];
      const fx = t[0]! * nx + t[3]! * ny + t[6]! * nz;
      const fy = t[1]! * nx + t[4]! * ny + t[7]! * nz;
      const fz = t[2]! * nx + t[5]! * ny + t[8]! * nz;
      harmonics(fx, fy, fz, basis);
      fallOn(
        now,
        basis,
        m[0]! * x + m[4]! * y + m[8]! * z + m[12]!,
        m[1]! * x + m[5]! * y + m[9]! * z + m[13]!,
        m[2]! * x + m[6]! * y + m[10]! * z + m[14]!,
        fallen,
      );
      for (let k = 0; k < 3; k += 1) {
        const more = Math.max(0, fallen[k]!) - fell[o + k]!;
        // Where it gets darker all of its light does, however open it is.
        out[MOVED * v + k] = (more > 0 ? openness[o + k]! : ambient[o + k]! / Math.max(1e-9, fell[o + k]!)) * more;
      }
      const cosine = fx * sx + fy * sy + fz * sz;
      const sunlit = cosine > 0 && (!open || open[v] === 1);
      out[MOVED * v + 3] = sunlit ? cosine * Math.min(1, Math.max(0, fallen[3]!)) : 0;
    }
    return true;
  }
}

const fallen = new Float64Array(4);

/** The turning of a matrix, three columns of length 1; what is gone altogether does not turn. */
function turnOf(m: Matrix): Float64Array {
  const out = new Float64Array(9);
  for (let axis = 0; axis < 3; axis += 1) {
    const length = Math.hypot(m[4 * axis]!, m[4 * axis + 1]!, m[4 * axis + 2]!);
    for (let k = 0; k < 3; k += 1) out[3 * axis + k] = length > 1e-9 ? m[4 * axis + k]! / length : k === axis ? 1 : 0;
  }
  return out;
}
