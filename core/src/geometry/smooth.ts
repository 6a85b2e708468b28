/** 0 up to one value, 1 from another on, and softly between: a cubic that is level at both. */
export function smooth(from: number, to: number, x: number): number {
  const t = Math.min(1, Math.max(0, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
}
