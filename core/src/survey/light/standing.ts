import { seesThrough, type SceneModel, type ScenePart } from '../../format/index.ts';
import { cornerNormal } from '../../geometry/index.ts';

/** What reaches less far over a surface parts no light that one would see, metres: a wall does, and a cupboard. */
const REACH = 1.2;
/** A triangle of it that touches the surface with its tip alone adds nothing to the line, metres. */
const LEAST_LINE = 0.01;
/** What ends so near to a surface stands on it, metres; it is seen where it passes this far over its end. */
const OVER = 0.02;
const HAIR = 0.002;
/** Where a face is looked for, metres. */
const CELL = 1.5;
/** A face that reaches through more cells than this is ground, not a wall. */
const MOST_CELLS = 3000;
/** Faces stand on a surface that they leave more steeply than this: cosine of the angle between both. */
const STEEP = 0.7;

/** Where a face stands on a surface. */
export interface Line {
  /** Its ends, metres. */
  from: readonly [number, number, number];
  to: readonly [number, number, number];
  /** Where the face looks. */
  facing: readonly [number, number, number];
}

/** The large faces of a model that stop light, found by where they are. */
export class StandingFaces {
  /** Nine coordinates, three of the unit normal, its extent, and that of all of its part in the same plane: six each. */
  private readonly faces: Float64Array;
  private readonly cells = new Map<number, number[]>();
  private readonly asked: Uint32Array;
  private round = 0;
  private readonly low = new Float64Array(3);
  private readonly high = new Float64Array(3);
  /** How far the corners of a face are over a triangle. */
  private readonly over = new Float64Array(3);

  constructor(model: SceneModel) {
    const found = model.parts.flatMap((part) => (seesThrough(model.materials[part.material]!) ? [] : [facesOf(part)]));
    this.faces = new Float64Array(found.reduce((sum, list) => sum + list.length, 0));
    found.reduce((at, list) => (this.faces.set(list, at), at + list.length), 0);
    const count = this.faces.length / STRIDE;
    this.asked = new Uint32Array(count);
    for (let face = 0; face < count; face += 1) this.enter(face);
  }

  private enter(face: number): void {
    const { faces: f } = this;
    const o = STRIDE * face + OWN;
    const low = [0, 1, 2].map((k) => cellOf(f[o + k]! - OVER));
    const high = [0, 1, 2].map((k) => cellOf(f[o + 3 + k]! + OVER));
    if ([0, 1, 2].reduce((product, k) => product * (high[k]! - low[k]! + 1), 1) > MOST_CELLS) return;
    for (let x = low[0]!; x <= high[0]!; x += 1)
      for (let y = low[1]!; y <= high[1]!; y += 1)
        for (let z = low[2]!; z <= high[2]!; z += 1) {
          const key = cellKey(x, y, z);
          const cell = this.cells.get(key);
          if (cell) cell.push(face);
          else this.cells.set(key, [face]);
        }
  }

  /**
   * Where faces stand on a triangle, seen from its front.
   * @param at nine coordinates, metres
   * @param normal unit vector
   */
  on(at: ArrayLike<number>, normal: ArrayLike<number>, tell: (line: Line) => void): void {
    this.round += 1;
    const { low, high, faces: f, asked, round } = this;
    for (let k = 0; k < 3; k += 1) {
      low[k] = Math.min(at[k]!, at[3 + k]!, at[6 + k]!) - OVER;
      high[k] = Math.max(at[k]!, at[3 + k]!, at[6 + k]!) + OVER;
    }
    const [lowY, highY, lowZ, highZ] = [cellOf(low[1]!), cellOf(high[1]!), cellOf(low[2]!), cellOf(high[2]!)];
    for (let x = cellOf(low[0]!); x <= cellOf(high[0]!); x += 1)
      for (let y = lowY; y <= highY; y += 1)
        for (let z = lowZ; z <= highZ; z += 1) {
          const cell = this.cells.get(cellKey(x, y, z));
          if (!cell) continue;
          for (const face of cell) {
            if (asked[face] === round) continue;
            asked[face] = round;
            const o = STRIDE * face + OWN;
            if (f[o]! > high[0]! || f[o + 1]! > high[1]! || f[o + 2]! > high[2]!) continue;
            if (f[o + 3]! < low[0]! || f[o + 4]! < low[1]! || f[o + 5]! < low[2]!) continue;
            const line = this.lineOn(face, at, normal);
            if (line) tell(line);
          }
        }
  }

  private lineOn(face: number, at: ArrayLike<number>, n: ArrayLike<number>): Line | null {
    const { faces: f, over } = this;
    const o = STRIDE * face;
    if (Math.abs(f[o + 9]! * n[0]! + f[o + 10]! * n[1]! + f[o + 11]! * n[2]!) > STEEP) return null;
    const away = n[0]! * at[0]! + n[1]! * at[1]! + n[2]! * at[2]!;
    for (let c = 0; c < 3; c += 1)
      over[c] = f[o + 3 * c]! * n[0]! + f[o + 3 * c + 1]! * n[1]! + f[o + 3 * c + 2]! * n[2]! - away;
    const least = Math.min(over[0]!, over[1]!, over[2]!);
    if (least > OVER || Math.max(over[0]!, over[1]!, over[2]!) < HAIR) return null;
    // How far the plane of it reaches over the surface: a piece over a door is a wall's.
    let reach = -away;
    for (let k = 0; k < 3; k += 1) reach += n[k]! * f[o + PLANE + (n[k]! > 0 ? 3 : 0) + k]!;
    if (reach < REACH) return null;
    // Where the face passes a hair over the surface, or over its own end, put down onto it.
    const level = Math.max(0, least) + HAIR;
    const ends: [number, number, number][] = [];
    for (let c = 0; c < 3; c += 1) {
      const next = (c + 1) % 3;
      const [d, e] = [over[c]!, over[next]!];
      if (d > level === e > level) continue;
      const t = (level - d) / (e - d);
      const end = (k: number) => f[o + 3 * c + k]! + t * (f[o + 3 * next + k]! - f[o + 3 * c + k]!) - level * n[k]!;
      ends.push([end(0), end(1), end(2)]);
    }
    const [from, to] = ends;
    if (!from || !to || Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]) < LEAST_LINE) return null;
    return { from, to, facing: [f[o + 9]!, f[o + 10]!, f[o + 11]!] };
  }
}

/** The faces of a part, {@link STRIDE} numbers each. */
function facesOf({ positions: p, normals, indices }: ScenePart): number[] {
  const out: number[] = [];
  const planes = new Map<string, Plane>();
  const own: Plane[] = [];
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!];
    cornerNormal(p, a, b, c, normal);
    const size = Math.hypot(normal[0]!, normal[1]!, normal[2]!);
    if (size < SMALLEST) continue;
    // Which side is the front is said by the normals of the vertices: files wind their faces as they like.
    const said = [0, 1, 2].reduce(
      (sum, k) => sum + normal[k]! * (normals[a + k]! + normals[b + k]! + normals[c + k]!),
      0,
    );
    const n = [0, 1, 2].map((k) => ((said < 0 ? -1 : 1) * normal[k]!) / size);
    const away = n[0]! * p[a]! + n[1]! * p[a + 1]! + n[2]! * p[a + 2]!;
    const key = [...n.map((value) => Math.round(20 * value)), Math.round(100 * away)].join();
    let plane = planes.get(key);
    if (!plane)
      planes.set(key, (plane = { area: 0, extent: [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity] }));
    plane.area += size / 2;
    const { extent } = plane;
    for (const o of [a, b, c])
      for (let k = 0; k < 3; k += 1) {
        out.push(p[o + k]!);
        extent[k] = Math.min(extent[k]!, p[o + k]!);
        extent[3 + k] = Math.max(extent[3 + k]!, p[o + k]!);
      }
    out.push(...n);
    own.push(plane);
  }
  return own.flatMap((plane, face) =>
    parts(plane) ? [...out.slice(OWN * face, OWN * face + OWN), ...extentOf(out, OWN * face), ...plane.extent] : [],
  );
}

/** What of a part lies in one plane. */
interface Plane {
  /** Square metres. */
  area: number;
  /** Least and greatest coordinates, metres. */
  extent: number[];
}

/** Does it part light, as a wall does, also one with doors and windows in it? A truss, a railing and a row of posts do not. */
function parts({ area, extent }: Plane): boolean {
  const [x, y, z] = [0, 1, 2].map((k) => extent[3 + k]! - extent[k]!) as [number, number, number];
  const about = Math.max(x * z, Math.hypot(x, z) * y);
  return area > LEAST_AREA && area > FULL * about;
}
/** Square metres. */
const LEAST_AREA = 1.2;
const FULL = 0.35;

const normal = new Float64Array(3);
/** Twice the area of the smallest face that is looked at, square metres. */
const SMALLEST = 0.02;
/** Where the extents of the face and of its plane are among the numbers of a face. */
const OWN = 12;
const PLANE = 18;
const STRIDE = 24;

const extentOf = (f: readonly number[], o: number): number[] =>
  [Math.min, Math.max].flatMap((of) => [0, 1, 2].map((k) => of(f[o + k]!, f[o + 3 + k]!, f[o + 6 + k]!)));
const cellOf = (value: number): number => Math.floor(value / CELL);
const cellKey = (x: number, y: number, z: number): number => (x + 32768) * 4294967296 + (y + 32768) * 65536 + z + 32768;
