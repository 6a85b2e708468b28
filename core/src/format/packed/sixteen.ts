/** Light and colours as 16 bits in [0, 8). */
const LIGHT_SCALE = 65_535 / 8;

export function toSixteen(values: Float32Array): Uint16Array {
  const out = new Uint16Array(values.length);
  for (let i = 0; i < out.length; i += 1) out[i] = Math.min(65_535, Math.max(0, Math.round(values[i]! * LIGHT_SCALE)));
  return out;
}

export function fromSixteen(block: ArrayBuffer): Float32Array {
  const values = new Uint16Array(block);
  const out = new Float32Array(values.length);
  for (let i = 0; i < out.length; i += 1) out[i] = values[i]! / LIGHT_SCALE;
  return out;
}
