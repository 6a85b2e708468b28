/**
 * Light gathered once more for the places of a picture, each where a ray through the middle of a pixel meets a surface:
 * by what factor the baked light there is to be corrected.
 */
export interface PixelGather {
  width: number;
  height: number;
  /** Red, green, blue a pixel, rows from the top; 1 where nothing is to be corrected. */
  factors: Float32Array<ArrayBuffer>;
  /** Distance from the eye, metres; 0 where nothing was gathered. */
  distances: Float32Array<ArrayBuffer>;
  /** Unit normals, and where the surface is: three numbers a pixel. */
  normals: Float32Array<ArrayBuffer>;
  places: Float32Array<ArrayBuffer>;
}

export function emptyGather(width: number, height: number): PixelGather {
  const size = 3 * width * height;
  return {
    width,
    height,
    factors: new Float32Array(size).fill(1),
    distances: new Float32Array(width * height),
    normals: new Float32Array(size),
    places: new Float32Array(size),
  };
}

/** Some rows of a gather as one of their own: to be carried from one thread to another. */
export function rowsOf({ width, ...gather }: PixelGather, from: number, to: number): PixelGather {
  const cut = (values: Float32Array, of: number) => values.slice(of * from * width, of * to * width);
  return {
    width,
    height: to - from,
    factors: cut(gather.factors, 3),
    distances: cut(gather.distances, 1),
    normals: cut(gather.normals, 3),
    places: cut(gather.places, 3),
  };
}

/** Puts rows back where they belong. */
export function putRows(gather: PixelGather, rows: PixelGather, from: number): void {
  gather.factors.set(rows.factors, 3 * from * gather.width);
  gather.distances.set(rows.distances, from * gather.width);
  gather.normals.set(rows.normals, 3 * from * gather.width);
  gather.places.set(rows.places, 3 * from * gather.width);
}

/** Steps of the filter, pixels: each widens what the one before made even. */
const STEPS = [1, 2, 4];
/** Weights of a row of five (a B-spline). */
const KERNEL = [1 / 16, 1 / 4, 3 / 8, 1 / 4, 1 / 16];
/** Neighbours farther than this off the plane of a place belong to something else: part of the distance from the eye. */
const OFF_PLANE = 0.004;
/** Logarithms of factors that differ by this are an edge of a shadow, not noise; each step believes less in noise. */
const SHADE = 1.8;

/** Single places that are brighter than all but one of their neighbours are sparks: they are taken for what that one is. */
function quench(gather: PixelGather): void {
  const { width, height, factors, distances } = gather;
  const before = factors.slice();
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const at = y * width + x;
      if (distances[at] === 0) continue;
      let [first, second] = [-1, -1];
      for (let j = -1; j <= 1; j += 1)
        for (let i = -1; i <= 1; i += 1) {
          const [u, v] = [x + i, y + j];
          const n = v * width + u;
          if ((i === 0 && j === 0) || u < 0 || v < 0 || u >= width || v >= height || distances[n] === 0) continue;
          if (first < 0 || before[3 * n + 1]! > before[3 * first + 1]!) [second, first] = [first, n];
          else if (second < 0 || before[3 * n + 1]! > before[3 * second + 1]!) second = n;
        }
      if (second < 0 || before[3 * at + 1]! <= before[3 * second + 1]!) continue;
      for (let k = 0; k < 3; k += 1) factors[3 * at + k] = Math.min(before[3 * at + k]!, before[3 * second + k]!);
    }
}

/** Makes a gather even where it is noise, sparks first: an edge-stopping wavelet (Dammertz et al. 2010). */
export function smoothGather(gather: PixelGather): void {
  quench(gather);
  const { width, height, distances, normals, places } = gather;
  let from = gather.factors;
  let to = new Float32Array(from.length);
  for (const [round, step] of STEPS.entries()) {
    const shade = SHADE / 2 ** round;
    for (let y = 0; y < height; y += 1)
      for (let x = 0; x < width; x += 1) {
        const at = y * width + x;
        if (distances[at] === 0) {
          to.set([1, 1, 1], 3 * at);
          continue;
        }
        const own = Math.log(from[3 * at + 1]!);
        let [r, g, b, whole] = [0, 0, 0, 0];
        for (let j = -2; j <= 2; j += 1)
          for (let i = -2; i <= 2; i += 1) {
            const [u, v] = [x + i * step, y + j * step];
            if (u < 0 || v < 0 || u >= width || v >= height) continue;
            const n = v * width + u;
            if (distances[n] === 0) continue;
            const facing =
              normals[3 * at]! * normals[3 * n]! +
              normals[3 * at + 1]! * normals[3 * n + 1]! +
              normals[3 * at + 2]! * normals[3 * n + 2]!;
            if (facing < 0.9) continue;
            const off =
              normals[3 * at]! * (places[3 * n]! - places[3 * at]!) +
              normals[3 * at + 1]! * (places[3 * n + 1]! - places[3 * at + 1]!) +
              normals[3 * at + 2]! * (places[3 * n + 2]! - places[3 * at + 2]!);
            if (Math.abs(off) > OFF_PLANE * distances[at]! * step) continue;
            const differs = (Math.log(from[3 * n + 1]!) - own) / shade;
            const weight = KERNEL[i + 2]! * KERNEL[j + 2]! * Math.exp(-differs * differs);
            r += weight * from[3 * n]!;
            g += weight * from[3 * n + 1]!;
            b += weight * from[3 * n + 2]!;
            whole += weight;
          }
        to[3 * at] = r / whole;
        to[3 * at + 1] = g / whole;
        to[3 * at + 2] = b / whole;
      }
    [from, to] = [to, from];
  }
  gather.factors = from;
}
