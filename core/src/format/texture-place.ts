/** How a picture lies on a surface: its places are scaled, turned and moved, in that order (KHR_texture_transform). */
export interface TexturePlace {
  offset: readonly [number, number];
  scale: readonly [number, number];
  /** Counter-clockwise, radians. */
  turn: number;
}

/** Texture places with a picture's own place worked in: what is drawn needs to know of none. */
export function placeUvs(uvs: Float32Array | null, place: TexturePlace | null | undefined): Float32Array | null {
  if (!uvs || !place) return uvs;
  const { offset, scale, turn } = place;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const out = new Float32Array(uvs.length);
  for (let i = 0; i < uvs.length; i += 2) {
    const [u, v] = [uvs[i]! * scale[0], uvs[i + 1]! * scale[1]];
    out[i] = cos * u + sin * v + offset[0];
    out[i + 1] = -sin * u + cos * v + offset[1];
  }
  return out;
}
