import { layOn } from './lay.ts';
import { MATERIALS, type DemoMaterial, type MaterialName } from './materials.ts';
import type { Point } from './point.ts';

/** Triangles of one material within one part: positions and flat normals, four corners a quad. */
export interface Batch {
  positions: number[];
  normals: number[];
  /** Linear vertex colours that multiply the material's; empty where it has none. */
  colors: number[];
  /** Where the material's picture lies, two numbers a corner; empty where it has none. */
  uvs: number[];
  indices: number[];
}

export type Rgb = readonly [number, number, number];

/** How a part, or a group of parts whose names begin alike, moves by itself. */
export interface Movement {
  name: string;
  part: string;
  /** What it turns about and is carried by, metres. */
  pivot: Point;
  keys: readonly {
    /** seconds */
    time: number;
    /** Where the pivot is. */
    at: Point;
    /** Unit quaternion. */
    turn: readonly [number, number, number, number];
  }[];
}

/** Collects geometry by part and material. Metres, y up; faces are counter-clockwise seen from outside. */
export class Builder {
  readonly parts = new Map<string, Map<MaterialName, Batch>>();
  readonly movements: Movement[] = [];
  private part = 'Building';

  /** Everything built inside `build` belongs to the named part. */
  within(part: string, build: () => void): void {
    const outer = this.part;
    this.part = part;
    try {
      build();
    } finally {
      this.part = outer;
    }
  }

  get triangles(): number {
    let sum = 0;
    for (const batches of this.parts.values()) for (const batch of batches.values()) sum += batch.indices.length / 3;
    return sum;
  }

  /** A flat convex polygon; its own normal at all corners unless others are given. */
  face(material: MaterialName, corners: readonly Point[], given?: readonly Point[]): void {
    const batch = this.batch(material);
    const [a, b, c] = corners as [Point, Point, Point];
    const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
    const v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]] as const;
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
    const length = Math.hypot(...n) || 1;
    const first = batch.positions.length / 3;
    const flat: Point = [n[0] / length, n[1] / length, n[2] / length];
    this.lay(batch, material, corners, flat);
    corners.forEach((p, i) => {
      batch.positions.push(...p);
      batch.normals.push(...(given?.[i] ?? flat));
    });
    for (let k = 1; k < corners.length - 1; k += 1) batch.indices.push(first, first + k, first + k + 1);
  }

  /** A smooth surface of shared corners, each with a colour of its own: ground. Its material is used for nothing else. */
  surface(
    material: MaterialName,
    corners: readonly Point[],
    colors: readonly Rgb[],
    triangles: readonly (readonly [number, number, number])[],
  ): void {
    const batch = this.batch(material);
    const first = batch.positions.length / 3;
    const normals = corners.map((): [number, number, number] => [0, 0, 0]);
    for (const [a, b, c] of triangles) {
      const [p, q, r] = [corners[a]!, corners[b]!, corners[c]!];
      const u = [q[0] - p[0], q[1] - p[1], q[2] - p[2]] as const;
      const v = [r[0] - p[0], r[1] - p[1], r[2] - p[2]] as const;
      const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
      for (const corner of [a, b, c]) for (let k = 0; k < 3; k += 1) normals[corner]![k]! += n[k]!;
      batch.indices.push(first + a, first + b, first + c);
    }
    this.lay(batch, material, corners, [0, 1, 0]);
    corners.forEach((corner, i) => {
      const n = normals[i]!;
      const length = Math.hypot(...n) || 1;
      batch.positions.push(...corner);
      batch.normals.push(n[0] / length, n[1] / length, n[2] / length);
      batch.colors.push(...colors[i]!);
    });
  }

  /** A solid of revolution about the line between two points. `outline` goes [part of the way 0…1, radius]. */
  turned(
    material: MaterialName,
    from: Point,
    to: Point,
    outline: readonly (readonly [number, number])[],
    sides = 24,
  ): void {
    const d = [to[0] - from[0], to[1] - from[1], to[2] - from[2]] as const;
    const length = Math.hypot(...d);
    const axis = d.map((value) => value / length) as [number, number, number];
    // Any direction square to the axis.
    const help: Point = Math.abs(axis[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0];
    const cross = (a: Point, b: Point): Point => [
      a[1] * b[2] - a[2] * b[1],
      a[2] * b[0] - a[0] * b[2],
      a[0] * b[1] - a[1] * b[0],
    ];
    const side = cross(axis, help);
    const size = Math.hypot(...side);
    const u = side.map((value) => value / size) as [number, number, number];
    const v = cross(axis, u);
    const at = (part: number, radius: number, turn: number): Point => {
      const [c, s] = [radius * Math.cos(turn), radius * Math.sin(turn)];
      return [0, 1, 2].map((k) => from[k]! + d[k]! * part + u[k]! * c + v[k]! * s) as unknown as Point;
    };
    for (let k = 0; k < sides; k += 1) {
      const [a0, a1] = [(2 * Math.PI * k) / sides, (2 * Math.PI * (k + 1)) / sides];
      for (let i = 0; i + 1 < outline.length; i += 1) {
        const [[p0, r0], [p1, r1]] = [outline[i]!, outline[i + 1]!];
        const ring = [at(p0, r0, a0), at(p0, r0, a1), at(p1, r1, a1), at(p1, r1, a0)] as const;
        // Round about the axis, flat along it: edges of the outline stay edges.
        const [run, rise] = [(p1 - p0) * length, r1 - r0];
        const slope = Math.hypot(run, rise) || 1;
        const normal = (turn: number): Point => {
          const [c, s] = [(Math.cos(turn) * run) / slope, (Math.sin(turn) * run) / slope];
          return [0, 1, 2].map((j) => u[j]! * c + v[j]! * s - (axis[j]! * rise) / slope) as unknown as Point;
        };
        const [n0, n1] = [normal(a0), normal(a1)];
        if (r0 < 1e-6) this.face(material, [ring[0], ring[2], ring[3]], [n0, n1, n0]);
        else if (r1 < 1e-6) this.face(material, [ring[0], ring[1], ring[2]], [n0, n1, n1]);
        else this.face(material, ring, [n0, n1, n1, n0]);
      }
    }
  }

  /** An upright box between two opposite corners, in any order. */
  box(material: MaterialName, from: Point, to: Point, skip: { bottom?: boolean; top?: boolean } = {}): void {
    const [x0, x1] = [Math.min(from[0], to[0]), Math.max(from[0], to[0])];
    const [y0, y1] = [Math.min(from[1], to[1]), Math.max(from[1], to[1])];
    const [z0, z1] = [Math.min(from[2], to[2]), Math.max(from[2], to[2])];
    this.hexahedron(
      material,
      [
        [x0, y0, z0],
        [x1, y0, z0],
        [x1, y0, z1],
        [x0, y0, z1],
        [x0, y1, z0],
        [x1, y1, z0],
        [x1, y1, z1],
        [x0, y1, z1],
      ],
      skip,
    );
  }

  /** A box turned about the vertical through its own centre. Size is [along x, height, along z] before turning. */
  turnedBox(material: MaterialName, foot: Point, size: Point, turn: number): void {
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const corner = (dx: number, y: number, dz: number): Point => {
      const [x, z] = [(dx * size[0]) / 2, (dz * size[2]) / 2];
      return [foot[0] + x * c + z * s, y, foot[2] - x * s + z * c];
    };
    const [low, high] = [foot[1], foot[1] + size[1]];
    this.hexahedron(material, [
      corner(-1, low, -1),
      corner(1, low, -1),
      corner(1, low, 1),
      corner(-1, low, 1),
      corner(-1, high, -1),
      corner(1, high, -1),
      corner(1, high, 1),
      corner(-1, high, 1),
    ]);
  }

  /** A straight bar with a rectangular section between two points; `depth` is measured upright, `width` level. */
  bar(material: MaterialName, from: Point, to: Point, width: number, depth: number): void {
    const d = [to[0] - from[0], to[1] - from[1], to[2] - from[2]] as const;
    const flat = Math.hypot(d[0], d[2]);
    const [sx, sz] = flat > 1e-6 ? [-d[2] / flat, d[0] / flat] : [1, 0];
    const length = Math.hypot(...d);
    // "Up" of the section: square to the bar and to its level side.
    const up: Point =
      flat > 1e-6 ? [(-d[1] * d[0]) / (flat * length), flat / length, (-d[1] * d[2]) / (flat * length)] : [0, 0, 1];
    const at = (p: Point, side: number, rise: number): Point => [
      p[0] + (sx * side * width) / 2 + (up[0] * rise * depth) / 2,
      p[1] + (up[1] * rise * depth) / 2,
      p[2] + (sz * side * width) / 2 + (up[2] * rise * depth) / 2,
    ];
    this.hexahedron(material, [
      at(from, -1, -1),
      at(to, -1, -1),
      at(to, 1, -1),
      at(from, 1, -1),
      at(from, -1, 1),
      at(to, -1, 1),
      at(to, 1, 1),
      at(from, 1, 1),
    ]);
  }

  /** A solid of revolution about a vertical axis. `outline` goes [radius, height] from the bottom up. */
  lathe(material: MaterialName, centre: Point, outline: readonly (readonly [number, number])[], sides = 12): void {
    for (let k = 0; k < sides; k += 1) {
      const a0 = (2 * Math.PI * k) / sides;
      const a1 = (2 * Math.PI * (k + 1)) / sides;
      const at = (r: number, y: number, a: number): Point => [
        centre[0] + r * Math.cos(a),
        centre[1] + y,
        centre[2] - r * Math.sin(a),
      ];
      for (let i = 0; i + 1 < outline.length; i += 1) {
        const [r0, y0] = outline[i]!;
        const [r1, y1] = outline[i + 1]!;
        const corners = [at(r0, y0, a0), at(r0, y0, a1), at(r1, y1, a1), at(r1, y1, a0)];
        if (r0 < 1e-6) this.face(material, [corners[0]!, corners[2]!, corners[3]!]);
        else if (r1 < 1e-6) this.face(material, [corners[0]!, corners[1]!, corners[2]!]);
        else this.face(material, corners);
      }
    }
  }

  /** Eight corners: the lower four counter-clockwise from above … then the upper four in the same order. */
  private hexahedron(
    material: MaterialName,
    p: readonly Point[],
    skip: { bottom?: boolean; top?: boolean } = {},
  ): void {
    const quad = (a: number, b: number, c: number, d: number) => this.face(material, [p[a]!, p[b]!, p[c]!, p[d]!]);
    if (!skip.bottom) quad(0, 1, 2, 3);
    if (!skip.top) quad(4, 7, 6, 5);
    quad(0, 4, 5, 1);
    quad(1, 5, 6, 2);
    quad(2, 6, 7, 3);
    quad(3, 7, 4, 0);
  }

  /** Lays the material's picture on corners, where it has one. */
  private lay(batch: Batch, material: MaterialName, corners: readonly Point[], normal: Point): void {
    const { texture }: DemoMaterial = MATERIALS[material];
    if (texture) batch.uvs.push(...layOn(texture, corners, normal));
  }

  private batch(material: MaterialName): Batch {
    let batches = this.parts.get(this.part);
    if (!batches) this.parts.set(this.part, (batches = new Map()));
    let batch = batches.get(material);
    if (!batch) batches.set(material, (batch = { positions: [], normals: [], colors: [], uvs: [], indices: [] }));
    return batch;
  }
}
