/** Linear 0…1 to sRGB 0…1 (IEC 61966-2-1). */
export function encodeSrgb(linear: number): number {
  return linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;
}

/** sRGB 0…1 to linear 0…1 (IEC 61966-2-1). */
export function decodeSrgb(encoded: number): number {
  return encoded <= 0.04045 ? encoded / 12.92 : ((encoded + 0.055) / 1.055) ** 2.4;
}
