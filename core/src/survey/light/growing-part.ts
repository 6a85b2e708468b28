import type { ScenePart } from '../../format/index.ts';

/** A part that is given more vertices, between those that it has. */
export class GrowingPart {
  readonly positions: number[];
  private readonly normals: number[];
  private readonly uvs: number[] | null;
  private readonly colors: number[] | null;

  constructor(private readonly part: ScenePart) {
    this.positions = Array.from(part.positions);
    this.normals = Array.from(part.normals);
    this.uvs = part.uvs ? Array.from(part.uvs) : null;
    this.colors = part.colors ? Array.from(part.colors) : null;
  }

  /** Number of a new vertex on the way from one to another. @param t how far on it, 0…1 */
  between(a: number, b: number, t = 0.5): number {
    const made = this.positions.length / 3;
    const { positions: p, normals } = this;
    for (let k = 0; k < 3; k += 1) p.push((1 - t) * p[3 * a + k]! + t * p[3 * b + k]!);
    const n = [0, 1, 2].map((k) => (1 - t) * normals[3 * a + k]! + t * normals[3 * b + k]!);
    const size = Math.hypot(...n) || 1;
    normals.push(...n.map((value) => value / size));
    for (const [values, count] of [
      [this.uvs, 2],
      [this.colors, 3],
    ] as const)
      if (values)
        for (let k = 0; k < count; k += 1) values.push((1 - t) * values[count * a + k]! + t * values[count * b + k]!);
    return made;
  }

  /** The same vertex once more. */
  copy(v: number): number {
    const made = this.positions.length / 3;
    for (const [values, count] of [
      [this.positions, 3],
      [this.normals, 3],
      [this.uvs, 2],
      [this.colors, 3],
    ] as const)
      if (values) for (let k = 0; k < count; k += 1) values.push(values[count * v + k]!);
    return made;
  }

  /** Distance of two vertices, metres. */
  length(a: number, b: number): number {
    const { positions: p } = this;
    return Math.hypot(p[3 * a]! - p[3 * b]!, p[3 * a + 1]! - p[3 * b + 1]!, p[3 * a + 2]! - p[3 * b + 2]!);
  }

  /** The part on other triangles. Its light is not known yet. */
  made(indices: readonly number[]): ScenePart {
    return {
      ...this.part,
      positions: Float32Array.from(this.positions),
      normals: Float32Array.from(this.normals),
      uvs: this.uvs && Float32Array.from(this.uvs),
      colors: this.colors && Float32Array.from(this.colors),
      light: null,
      indices: Uint32Array.from(indices),
    };
  }
}
