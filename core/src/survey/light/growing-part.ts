import type { ScenePart } from '../../format/index.ts';

/** A part that is given more vertices, between those that it has; where it is lit, with their light. */
export class GrowingPart {
  readonly positions: number[];
  private readonly normals: number[];
  private readonly uvs: number[];
  private readonly colors: number[];
  private readonly ambient: number[];
  private readonly sun: number[];
  /** What each vertex has, and how many numbers of it. */
  private readonly lists: readonly (readonly [values: number[], width: number])[];

  constructor(private readonly part: ScenePart) {
    const { positions, normals, uvs, colors, light } = part;
    this.positions = Array.from(positions);
    this.normals = Array.from(normals);
    this.uvs = Array.from(uvs ?? []);
    this.colors = Array.from(colors ?? []);
    this.ambient = Array.from(light?.ambient ?? []);
    this.sun = Array.from(light?.sun ?? []);
    const all = [
      [this.positions, 3],
      [this.normals, 3],
      [this.uvs, 2],
      [this.colors, 3],
      [this.ambient, 3],
      [this.sun, 1],
    ] as const;
    this.lists = all.filter(([values]) => values.length > 0);
  }

  /** Number of a new vertex on the way from one to another. @param t how far on it, 0…1 */
  between(a: number, b: number, t = 0.5): number {
    const made = this.positions.length / 3;
    for (const [values, width] of this.lists)
      for (let k = 0; k < width; k += 1) values.push((1 - t) * values[width * a + k]! + t * values[width * b + k]!);
    const n = this.normals;
    const size = Math.hypot(n[3 * made]!, n[3 * made + 1]!, n[3 * made + 2]!) || 1;
    for (let k = 0; k < 3; k += 1) n[3 * made + k]! /= size;
    return made;
  }

  /** Puts a vertex somewhere: three coordinates of a list, from the first of them on. */
  put(v: number, places: readonly number[], first: number): void {
    for (let k = 0; k < 3; k += 1) this.positions[3 * v + k] = places[first + k]!;
  }

  /** The same vertex once more. */
  copy(v: number): number {
    const made = this.positions.length / 3;
    for (const [values, width] of this.lists) for (let k = 0; k < width; k += 1) values.push(values[width * v + k]!);
    return made;
  }

  /** Distance of two vertices, metres. */
  length(a: number, b: number): number {
    const { positions: p } = this;
    return Math.hypot(p[3 * a]! - p[3 * b]!, p[3 * a + 1]! - p[3 * b + 1]!, p[3 * a + 2]! - p[3 * b + 2]!);
  }

  /** The part on other triangles. */
  made(indices: readonly number[]): ScenePart {
    const { uvs, colors, light } = this.part;
    return {
      ...this.part,
      positions: Float32Array.from(this.positions),
      normals: Float32Array.from(this.normals),
      uvs: uvs && Float32Array.from(this.uvs),
      colors: colors ? Float32Array.from(this.colors) : null,
      light: light && { ambient: Float32Array.from(this.ambient), sun: Float32Array.from(this.sun) },
      indices: Uint32Array.from(indices),
    };
  }
}
