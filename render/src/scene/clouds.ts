import { addSeamlessNoise, smooth } from '@eskovan/core/geometry';

/** Pixels of a side of the cloud field; it repeats. */
export const CLOUD_SIDE = 512;
/** Billows across the field in the coarsest of the octaves; each next one has twice as many and half the weight. */
const COARSEST = 4;
const OCTAVES = 6;
/** Fields of billows: below the first is clear sky, above the second the middle of a cloud. */
const EDGES = [0.51, 0.69] as const;
/** How far towards the sun a cloud looks for what shades it, parts of the field. */
const SHADED_OVER = 0.03;
const SHADE_STEPS = 4;

/** Billows: smooth noise in octaves, seamless at the edges, 0…1. */
function billows(side: number): Float32Array {
  const out = new Float32Array(side * side);
  for (let octave = 0, cells = COARSEST, weight = 0.5; octave < OCTAVES; octave += 1, cells *= 2, weight /= 2)
    addSeamlessNoise(out, cells, weight, octave);
  return out;
}

/**
 * Fair-weather clouds as seen from below: two bytes a pixel, how much of the sky they cover and how much of the sun they
 * are lit by. Seamless in both directions, the same every time: a film does not flicker.
 * @param towards where the sun stands, in the field's plane
 */
export function cloudField(towards: readonly [number, number], side = CLOUD_SIDE): Uint8Array {
  const field = billows(side);
  const cover = field.map((value) => smooth(EDGES[0], EDGES[1], value));
  const length = Math.hypot(...towards) || 1;
  const step = towards.map((value) => (value / length) * ((SHADED_OVER * side) / SHADE_STEPS));
  const wrap = (value: number) => ((Math.round(value) % side) + side) % side;
  const out = new Uint8Array(2 * side * side);
  for (let y = 0; y < side; y += 1)
    for (let x = 0; x < side; x += 1) {
      const own = cover[y * side + x]!;
      if (own === 0) continue;
      let before = 0;
      for (let k = 1; k <= SHADE_STEPS; k += 1)
        before += cover[wrap(y + k * step[1]!) * side + wrap(x + k * step[0]!)]!;
      // The middle of a cloud is thick and dark below; its rim towards the sun is bright.
      const lit = Math.exp(-1.1 * (before / SHADE_STEPS) - 0.5 * own);
      out[2 * (y * side + x)] = Math.round(255 * own);
      out[2 * (y * side + x) + 1] = Math.round(255 * lit);
    }
  return out;
}
