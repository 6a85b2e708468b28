/** Triangles that hide what is behind them. */
export interface OccluderFaces {
  /** Nine numbers each, metres; counter-clockwise as seen from the side that is drawn. */
  soup: Float32Array;
  /** 1 where both sides are drawn. */
  twoSided: Uint8Array;
  /** Side of a square of the area of each, metres. */
  sizes: Float32Array;
}

/** Places across and up and down a picture where depth is known: the middles of so many equal fields. */
export interface Grid {
  width: number;
  height: number;
}

/** Enough for a picture in passing. */
const PASSING: Grid = { width: 128, height: 72 };

/** A face is counted where it is so many steps of the grid large: smaller ones cost more than they hide. */
const LARGE = 2;

/** Depth, −1…1, within which two things are at one place: a picture on a wall is not behind the wall. */
const SAME_DEPTH = 1e-7;

/**
 * Tells what need not be drawn, because nearer faces cover it: depths of large faces at a grid of places, against which
 * boxes are held. Whatever shows at a place of the grid is never missed. With a picture's own pixels for a grid that is
 * all there is; with a coarser one, what shows only through a gap narrower than a step of it is left out, which serves
 * pictures in passing.
 */
export class Occlusion {
  private width = 0;
  private height = 0;
  private depths = new Float64Array(0);
  private readonly matrix = new Float64Array(16);
  /** A face cut at the near plane: at most four corners, each x, y, z and w. */
  private readonly corners = new Float64Array(16);
  private readonly cut = new Float64Array(16);
  /** What a face has of a line of the grid: from, to. */
  private readonly line = new Float64Array(2);

  private readonly middles: Float64Array;

  constructor(private readonly faces: OccluderFaces) {
    this.middles = middlesOf(faces.soup);
  }

  /**
   * Looks from another place: whatever is asked after it is seen from there.
   * @param matrix from metres to clip space, column by column (16), as WebGL has it: z from −w to w
   */
  look(matrix: ArrayLike<number>, { width, height }: Grid = PASSING): void {
    this.matrix.set(matrix);
    if (this.depths.length !== width * height) this.depths = new Float64Array(width * height);
    Object.assign(this, { width, height });
    this.depths.fill(Infinity);
    const { matrix: m, middles } = this;
    const { soup, twoSided, sizes } = this.faces;
    // What a metre across is, in steps of the grid at a depth of one.
    const metre = (Math.hypot(m[0]!, m[4]!, m[8]!) * width) / 2;
    for (let face = 0; face < twoSided.length; face += 1) {
      const at = 3 * face;
      const depth = m[3]! * middles[at]! + m[7]! * middles[at + 1]! + m[11]! * middles[at + 2]! + m[15]!;
      if (sizes[face]! * metre >= LARGE * depth) this.cover(soup, 9 * face, twoSided[face] === 1);
    }
  }

  /**
   * May anything in a box be in the picture?
   * @param boxes least x, y and z, greatest x, y and z of each, metres
   * @param from where in them the box begins
   */
  shows(boxes: ArrayLike<number>, from = 0): boolean {
    const { matrix: m } = this;
    let left = Infinity;
    let right = -Infinity;
    let bottom = Infinity;
    let top = -Infinity;
    let nearest = Infinity;
    // Corners beyond each side of the picture, and those before the near plane.
    let offLeft = 0;
    let offRight = 0;
    let offBottom = 0;
    let offTop = 0;
    let before = 0;
    for (let corner = 0; corner < 8; corner += 1) {
      const px = boxes[from + (corner & 1 ? 3 : 0)]!;
      const py = boxes[from + (corner & 2 ? 4 : 1)]!;
      const pz = boxes[from + (corner & 4 ? 5 : 2)]!;
      const x = m[0]! * px + m[4]! * py + m[8]! * pz + m[12]!;
      const y = m[1]! * px + m[5]! * py + m[9]! * pz + m[13]!;
      const z = m[2]! * px + m[6]! * py + m[10]! * pz + m[14]!;
      const w = m[3]! * px + m[7]! * py + m[11]! * pz + m[15]!;
      if (x < -w) offLeft += 1;
      if (x > w) offRight += 1;
      if (y < -w) offBottom += 1;
      if (y > w) offTop += 1;
      if (z <= -w) {
        before += 1;
        continue;
      }
      left = Math.min(left, x / w);
      right = Math.max(right, x / w);
      bottom = Math.min(bottom, y / w);
      top = Math.max(top, y / w);
      nearest = Math.min(nearest, z / w);
    }
    if (offLeft === 8 || offRight === 8 || offBottom === 8 || offTop === 8 || before === 8) return false;
    if (before > 0) return true;
    const { depths, width, height } = this;
    const x0 = Math.max(0, Math.floor(place(left, width)));
    const x1 = Math.min(width - 1, Math.ceil(place(right, width)));
    const y0 = Math.max(0, Math.floor(place(bottom, height)));
    const y1 = Math.min(height - 1, Math.ceil(place(top, height)));
    const behind = nearest - SAME_DEPTH;
    for (let y = y0; y <= y1; y += 1)
      for (let at = y * width + x0, end = y * width + x1; at <= end; at += 1) if (depths[at]! >= behind) return true;
    return false;
  }

  /** Puts a face into the grid, cut off at the near plane. */
  private cover(soup: Float32Array, from: number, twoSided: boolean): void {
    const { matrix: m, corners: c } = this;
    let before = 0;
    for (let corner = 0; corner < 3; corner += 1) {
      const px = soup[from + 3 * corner]!;
      const py = soup[from + 3 * corner + 1]!;
      const pz = soup[from + 3 * corner + 2]!;
      for (let k = 0; k < 4; k += 1) c[4 * corner + k] = m[k]! * px + m[4 + k]! * py + m[8 + k]! * pz + m[12 + k]!;
      if (c[4 * corner + 2]! <= -c[4 * corner + 3]!) before += 1;
    }
    if (before === 3 || isOff(c)) return;
    let count = 3;
    let shape = c;
    if (before > 0) {
      count = cutAtNear(c, this.cut);
      shape = this.cut;
    }
    for (let corner = 0; corner < count; corner += 1) {
      const w = shape[4 * corner + 3]!;
      shape[4 * corner] = place(shape[4 * corner]! / w, this.width);
      shape[4 * corner + 1] = place(shape[4 * corner + 1]! / w, this.height);
      shape[4 * corner + 2] = shape[4 * corner + 2]! / w;
    }
    for (let corner = 2; corner < count; corner += 1) this.fill(shape, 4 * (corner - 1), 4 * corner, twoSided);
  }

  /**
   * Fills the triangle of the first corner of a shape and two others, in steps of the grid. Written plainly: it is run ten
   * thousand times a picture, from the first one on.
   */
  private fill(s: Float64Array, b: number, c: number, twoSided: boolean): void {
    const ax = s[0]!;
    const ay = s[1]!;
    const bx = s[b]! - ax;
    const by = s[b + 1]! - ay;
    const cx = s[c]! - ax;
    const cy = s[c + 1]! - ay;
    const area = bx * cy - by * cx;
    if (twoSided ? area === 0 : !(area > 0)) return;
    const { depths, line, width, height } = this;
    const y0 = Math.max(0, Math.ceil(ay + Math.min(0, by, cy)));
    const y1 = Math.min(height - 1, Math.floor(ay + Math.max(0, by, cy)));
    if (y0 > y1) return;
    // Depth over the picture is a plane: over its width it changes by …, over its height by ….
    const bz = s[b + 2]! - s[2]!;
    const cz = s[c + 2]! - s[2]!;
    const perColumn = (bz * cy - by * cz) / area;
    const perRow = (bx * cz - bz * cx) / area;
    for (let y = y0; y <= y1; y += 1) {
      const at = y - ay;
      line[0] = Infinity;
      line[1] = -Infinity;
      meet(line, 0, 0, bx, by, at);
      meet(line, bx, by, cx, cy, at);
      meet(line, cx, cy, 0, 0, at);
      const x0 = Math.max(0, Math.ceil(ax + line[0]));
      const x1 = Math.min(width - 1, Math.floor(ax + line[1]));
      let depth = s[2]! + (x0 - ax) * perColumn + at * perRow;
      const end = y * width + x1;
      for (let i = y * width + x0; i <= end; i += 1, depth += perColumn) if (depth < depths[i]!) depths[i] = depth;
    }
  }
}

/** Widens what a triangle has of a line of the grid by where one of its sides, from p to q, meets it. */
function meet(line: Float64Array, px: number, py: number, qx: number, qy: number, at: number): void {
  if ((py > at && qy > at) || (py < at && qy < at)) return;
  const x = py === qy ? px : px + ((qx - px) * (at - py)) / (qy - py);
  const other = py === qy ? qx : x;
  line[0] = Math.min(line[0]!, x, other);
  line[1] = Math.max(line[1]!, x, other);
}

/** Three numbers a face, metres. */
function middlesOf(soup: Float32Array): Float64Array {
  const middles = new Float64Array(soup.length / 3);
  for (let i = 0; i < middles.length; i += 1) {
    const at = 9 * Math.floor(i / 3) + (i % 3);
    middles[i] = (soup[at]! + soup[at + 3]! + soup[at + 6]!) / 3;
  }
  return middles;
}

/** From −1…1 to places of the grid: fields have their place in the middle. */
const place = (at: number, count: number): number => ((at + 1) / 2) * count - 0.5;

/** Are three corners all beyond one side of the picture? */
function isOff(c: Float64Array): boolean {
  for (let k = 0; k < 2; k += 1) {
    if (c[k]! < -c[3]! && c[4 + k]! < -c[7]! && c[8 + k]! < -c[11]!) return true;
    if (c[k]! > c[3]! && c[4 + k]! > c[7]! && c[8 + k]! > c[11]!) return true;
  }
  return false;
}

/** Cuts a triangle in clip space where z = −w (Sutherland and Hodgman, 1974). @returns corners of what is left */
function cutAtNear(from: Float64Array, to: Float64Array): number {
  let count = 0;
  for (let corner = 0; corner < 3; corner += 1) {
    const a = 4 * corner;
    const b = 4 * ((corner + 1) % 3);
    const beyondA = from[a + 2]! + from[a + 3]!;
    const beyondB = from[b + 2]! + from[b + 3]!;
    if (beyondA > 0) {
      for (let k = 0; k < 4; k += 1) to[4 * count + k] = from[a + k]!;
      count += 1;
    }
    if (beyondA > 0 === beyondB > 0) continue;
    const part = beyondA / (beyondA - beyondB);
    for (let k = 0; k < 4; k += 1) to[4 * count + k] = from[a + k]! + part * (from[b + k]! - from[a + k]!);
    count += 1;
  }
  return count;
}
