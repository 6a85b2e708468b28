import type { Bounds, Vec3 } from '../../document/index.ts';
import { diagonalOf, middle, sizesOf } from '../../geometry/index.ts';
import { FIELD } from './harmonics.ts';
import { PLACE, type PlaceLight } from './place-light.ts';

/** Sides of the cells that light is looked at in, as a part of the size of what moves, and within these, metres. */
const CELLS = 0.4;
const CELL_SIDES: readonly [number, number] = [1 / 32, 4];

/** Side of the cells for a thing of a size, metres. Powers of two: things of nearly one size share what was looked at. */
export const cellSide = (size: number): number =>
  2 ** Math.round(Math.log2(Math.min(CELL_SIDES[1], Math.max(CELL_SIDES[0], CELLS * size))));
/** The corners of a thing are looked at this far out: at them one may be in the floor that it stands on. */
const WITHIN = 0.85;

/** 4 × 4 numbers, column after column. */
export type Matrix = readonly number[];

/** Light over a box: at its middle, and how it changes to its sides. */
export interface FieldOver {
  centre: Readonly<Vec3>;
  half: Readonly<Vec3>;
  /** Middle, and changes along x, y and z: each of PLACE numbers. */
  terms: readonly [Float64Array, Float64Array, Float64Array, Float64Array];
}

/** Light where something is while it moves; all that moves together and lies near together can share it. */
export class MovedField {
  private readonly step: number;
  /** Where it rests; null inside of something. */
  readonly rest: FieldOver | null;
  private last: { at: string; field: FieldOver | null } = { at: '', field: null };

  /** @param box of the thing at rest, metres */
  constructor(
    readonly place: PlaceLight,
    private readonly box: Bounds,
  ) {
    this.step = cellSide(diagonalOf(box));
    this.rest = this.over(middle(box), sizesOf(box).map((size) => size / 2) as Vec3);
  }

  /** @param m takes a point from where it rests to where it is */
  at(m: Matrix): FieldOver | null {
    const at = m.map((value) => value.toFixed(6)).join();
    if (this.last.at === at) return this.last.field;
    const { min, max } = this.box;
    const rest = middle(this.box);
    const centre = [0, 1, 2].map((k) => m[k]! * rest[0] + m[4 + k]! * rest[1] + m[8 + k]! * rest[2] + m[12 + k]!);
    const half = [0, 1, 2].map((k) =>
      [0, 1, 2].reduce((sum, axis) => sum + (Math.abs(m[4 * axis + k]!) * (max[axis]! - min[axis]!)) / 2, 0),
    );
    const field = this.over(centre as Vec3, half as Vec3);
    this.last = { at, field };
    return field;
  }

  /** Looks at the middle of a box and at its corners. */
  private over(centre: Vec3, size: Vec3): FieldOver | null {
    const { place, step } = this;
    const half = size.map((value) => Math.max(1e-4, WITHIN * value)) as Vec3;
    const own = new Float64Array(PLACE);
    const inside = place.at(...centre, step, own);
    const terms = [0, 1, 2, 3].map(() => new Float64Array(PLACE)) as unknown as FieldOver['terms'];
    const corner = new Float64Array(PLACE);
    const missing: Vec3[] = [];
    let known = 0;
    const add = (signs: Vec3, field: Float64Array) => {
      for (let n = 0; n < PLACE; n += 1) {
        terms[0][n]! += field[n]! / 8;
        for (let k = 0; k < 3; k += 1) terms[k + 1]![n]! += (signs[k]! * field[n]!) / 8;
      }
    };
    for (let i = 0; i < 8; i += 1) {
      const signs: Vec3 = [i & 1 ? 1 : -1, i & 2 ? 1 : -1, i & 4 ? 1 : -1];
      const [x, y, z] = signs.map((sign, k) => centre[k]! + sign * half[k]!) as Vec3;
      if (place.isFree(...centre, x, y, z) && place.at(x, y, z, step, corner)) {
        known += 1;
        add(signs, corner);
      } else missing.push(signs);
    }
    if (!inside && known === 0) return null;
    if (!inside) for (let n = 0; n < PLACE; n += 1) own[n] = (terms[0][n]! * 8) / known;
    // A corner within something has the light of the middle.
    for (const signs of missing) add(signs, own);
    return { centre, half, terms };
  }
}

/**
 * What falls on a surface at a place, as a white one sends it out: red, green, blue, and how open the sun is.
 * @param basis the functions of the way that it faces
 */
export function fallOn(
  { centre, half, terms: [a, b, c, d] }: FieldOver,
  basis: Float64Array,
  x: number,
  y: number,
  z: number,
  out: Float64Array,
): void {
  const u = within((x - centre[0]) / half[0]);
  const v = within((y - centre[1]) / half[1]);
  const w = within((z - centre[2]) / half[2]);
  let [red, green, blue] = [0, 0, 0];
  for (let i = 0, n = 0; n < FIELD; i += 1, n += 3) {
    const part = basis[i]!;
    red += part * (a[n]! + u * b[n]! + v * c[n]! + w * d[n]!);
    green += part * (a[n + 1]! + u * b[n + 1]! + v * c[n + 1]! + w * d[n + 1]!);
    blue += part * (a[n + 2]! + u * b[n + 2]! + v * c[n + 2]! + w * d[n + 2]!);
  }
  out[0] = red;
  out[1] = green;
  out[2] = blue;
  out[3] = a[FIELD]! + u * b[FIELD]! + v * c[FIELD]! + w * d[FIELD]!;
}

const within = (value: number) => (value > 1.2 ? 1.2 : value < -1.2 ? -1.2 : value);
