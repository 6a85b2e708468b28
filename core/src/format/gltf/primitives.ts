/** Kinds of primitives by their numbers (glTF 2.0 §5.24.4): everything below triangles has no surface. */
export const MODE = { POINTS: 0, LINES: 1, TRIANGLES: 4, STRIP: 5, FAN: 6 } as const;

/** The triangles of a list, a strip or a fan (glTF 2.0 §3.7.2.1), all turning the same way. */
export function trianglesOf(list: Uint32Array, mode: number): Uint32Array {
  if (mode === MODE.TRIANGLES) return list.subarray(0, list.length - (list.length % 3));
  const count = Math.max(0, list.length - 2);
  const out = new Uint32Array(3 * count);
  for (let i = 0; i < count; i += 1)
    out.set(
      mode === MODE.FAN
        ? [list[i + 1]!, list[i + 2]!, list[0]!]
        : [list[i]!, list[i + 1 + (i % 2)]!, list[i + 2 - (i % 2)]!],
      3 * i,
    );
  return out;
}
