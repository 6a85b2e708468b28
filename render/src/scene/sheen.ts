/**
 * What a metal throws back of a room that is bright above and to one side: strong where it faces that, dark between.
 * 1 for what is no metal. It does not follow the eye, which would need a picture of the room.
 */
export function sheen(metalness: number, normals: Float32Array, v: number): number {
  if (metalness === 0) return 1;
  const x = normals[3 * v]!;
  const y = normals[3 * v + 1]!;
  const z = normals[3 * v + 2]!;
  const bright = Math.max(0, 0.45 * x + 0.76 * y + 0.47 * z);
  const edge = Math.max(0, -0.8 * x + 0.2 * y - 0.56 * z);
  return 1 + metalness * (1.5 * bright ** 5 + 0.7 * edge ** 9 - 0.38);
}
