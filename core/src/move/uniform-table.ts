import { hermite, monotoneSlope } from '../geometry/index.ts';

/** Values at equal spacing over [0, length], read with a cubic that passes through them. */
export interface UniformTable {
  values: Float64Array;
  length: number;
  /** The last value equals the first and the curve goes on through it. */
  closed: boolean;
}

/** Value at a position, clamped to the table (open) or wrapped round (closed). */
export function tableAt(table: UniformTable, position: number): number {
  const { values, length, closed } = table;
  const last = values.length - 1;
  if (last < 1) return values[0] ?? 0;
  const u = Math.min(Math.max((position / length) * last, 0), last);
  const i = Math.min(Math.floor(u), last - 1);
  const t = u - i;
  const turn = values[last]! - values[0]!;
  const at = (k: number): number => {
    if (k >= 0 && k <= last) return values[k]!;
    if (closed) return k < 0 ? values[k + last]! - turn : values[k - last]! + turn;
    return k < 0 ? 2 * values[0]! - values[-k]! : 2 * values[last]! - values[2 * last - k]!;
  };
  const p1 = values[i]!;
  const p2 = values[i + 1]!;
  const rise = p2 - p1;
  const m1 = monotoneSlope(p1 - at(i - 1), rise);
  const m2 = monotoneSlope(rise, at(i + 2) - p2);
  return hermite(p1, m1, p2, m2, t);
}

/**
 * Smooths by two running means, each as wide as `halfWidth`: a triangular window of ± halfWidth. Monotone in,
 * monotone out. Open ends continue point-symmetrically, so that a slope at the end stays; a closed table goes round,
 * keeping what it gains in one turn (pan angles).
 */
export function smoothTable(table: UniformTable, halfWidth: number): UniformTable {
  const { values, length, closed } = table;
  const last = values.length - 1;
  if (last < 2) return table;
  const reach = Math.min(Math.max(1, Math.round((halfWidth / length) * last)), last - 1);
  const turn = values[last]! - values[0]!;
  const weights = Float64Array.from({ length: 2 * reach + 1 }, (_, k) => reach - Math.abs(k - reach));
  const sum = weights.reduce((a, b) => a + b, 0);
  const at = (k: number): number => {
    if (k >= 0 && k <= last) return values[k]!;
    if (closed) return k < 0 ? values[k + last]! - turn : values[k - last]! + turn;
    return k < 0 ? 2 * values[0]! - values[-k]! : 2 * values[last]! - values[2 * last - k]!;
  };
  const out = new Float64Array(values.length);
  for (let i = 0; i <= last; i += 1) {
    let total = 0;
    for (let k = -reach; k <= reach; k += 1) total += weights[k + reach]! * at(i + k);
    out[i] = total / sum;
  }
  return { values: out, length, closed };
}
