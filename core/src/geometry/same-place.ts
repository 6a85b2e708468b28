/**
 * For every vertex the number of the first one at the same place.
 * @param grain side of the cubes that are one place, metres; 0 for exactly the same
 */
export function samePlace(positions: Float32Array, grain = 0): Uint32Array {
  const count = positions.length / 3;
  const places = new Float32Array(3 * count);
  // Adding nothing makes minus zero zero: they are one place.
  for (let i = 0; i < places.length; i += 1)
    places[i] = (grain > 0 ? Math.round(positions[i]! / grain) : positions[i]!) + 0;
  const bits = new Int32Array(places.buffer);
  let size = 16;
  while (size < 2 * count) size *= 2;
  const table = new Int32Array(size).fill(-1);
  const out = new Uint32Array(count);
  for (let v = 0; v < count; v += 1) {
    const [a, b, c] = [bits[3 * v]!, bits[3 * v + 1]!, bits[3 * v + 2]!];
    let slot = (Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b) ^ Math.imul(c, 0xc2b2ae35)) >>> 0;
    for (slot = (slot ^ (slot >>> 15)) & (size - 1); ; slot = (slot + 1) & (size - 1)) {
      const other = table[slot]!;
      if (other < 0) {
        table[slot] = v;
        out[v] = v;
        break;
      }
      if (bits[3 * other] === a && bits[3 * other + 1] === b && bits[3 * other + 2] === c) {
        out[v] = other;
        break;
      }
    }
  }
  return out;
}
