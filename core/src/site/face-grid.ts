import type { ScenePart } from '../format/index.ts';
import { axesBeside } from './faces-overlap.ts';

/** Faces of one part in about one plane. */
export interface Faces {
  part: number;
  /** Where each begins in the indices. */
  at: number[];
  /** Does it face against the plane's direction? */
  backs: boolean[];
  /** Their extent, metres: three least values, and three most ones with the other sign, so that these are least, too. */
  box: Float64Array;
}

/** Takes a place into an extent. */
export function widen(box: Float64Array, p: Float32Array, at: number): void {
  for (let k = 0; k < 3; k += 1) {
    box[k] = Math.min(box[k]!, p[at + k]!);
    box[k + 3] = Math.min(box[k + 3]!, -p[at + k]!);
  }
}

const own = new Float64Array(6);

/** The extent of a face, as {@link Faces.box} has it: valid until the next is asked for. */
export function extentOf({ positions, indices }: ScenePart, first: number): Float64Array {
  own.fill(Infinity);
  for (let corner = 0; corner < 3; corner += 1) widen(own, positions, 3 * indices[first + corner]!);
  return own;
}

/** Rows of a grid at most. */
const MOST_ROWS = 64;

/** Some faces of one plane by place: which of them are about another. */
export class FaceGrid {
  private readonly axes: readonly [number, number];
  private readonly rows: number;
  private readonly from: readonly [number, number];
  private readonly side: readonly [number, number];
  private readonly cells: number[][];
  /** Number of the last question that met a face. */
  private readonly asked: Uint32Array;
  private question = 0;

  /** @param drop the axis that the plane is seen along */
  constructor(part: ScenePart, { at, box }: Faces, faces: readonly number[], drop: number) {
    this.axes = axesBeside(drop);
    this.rows = Math.min(MOST_ROWS, Math.ceil(Math.sqrt(faces.length)));
    this.from = [box[this.axes[0]]!, box[this.axes[1]]!];
    const size = (k: number) => Math.max(1e-9, -box[k + 3]! - box[k]!) / this.rows;
    this.side = [size(this.axes[0]), size(this.axes[1])];
    this.cells = Array.from({ length: this.rows ** 2 }, () => []);
    this.asked = new Uint32Array(at.length);
    for (const i of faces) this.each(extentOf(part, at[i]!), (cell) => void cell.push(i));
  }

  /** Tells the faces about one of another part, each once, until `met` says so. @returns whether it did */
  about(part: ScenePart, first: number, met: (face: number) => boolean): boolean {
    this.question += 1;
    return this.each(extentOf(part, first), (cell) =>
      cell.some((face) => {
        if (this.asked[face] === this.question) return false;
        this.asked[face] = this.question;
        return met(face);
      }),
    );
  }

  private each(box: Float64Array, tell: (cell: number[]) => boolean | void): boolean {
    const row = (k: 0 | 1, value: number) =>
      Math.min(this.rows - 1, Math.max(0, Math.floor((value - this.from[k]) / this.side[k])));
    const [u, v] = this.axes;
    const [u0, u1, v0, v1] = [row(0, box[u]!), row(0, -box[u + 3]!), row(1, box[v]!), row(1, -box[v + 3]!)];
    for (let i = u0; i <= u1; i += 1)
      for (let j = v0; j <= v1; j += 1) if (tell(this.cells[i * this.rows + j]!) === true) return true;
    return false;
  }
}
