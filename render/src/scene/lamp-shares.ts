import { DataUtils } from 'three';
import { floats, integers } from './growing.ts';

/** What of four half floats a vertex comes from lamps that can be dimmed: three numbers for each of them. */
export interface LampShares {
  /** Vertices that any of them lights. */
  vertices: Uint32Array;
  /** Their red, green and blue while all lamps give everything. A half float less another one would be mostly noise. */
  whole: Float32Array;
  /** The same of each dimmer alone; null where it lights none of them. */
  shares: (Float32Array | null)[];
}

/** A light that makes less of a difference is none. */
const NOTHING = 1e-4;

/** Collects the shares of a piece of a scene. */
export class GrowingShares {
  private readonly vertices = integers();
  private readonly whole = floats();
  private readonly shares = floats();
  private readonly used: boolean[];

  constructor(private readonly dimmers: number) {
    this.used = Array.from({ length: dimmers }, () => false);
  }

  /**
   * @param vertex its number in the piece
   * @param whole its three numbers
   * @param share of a dimmer in them
   */
  add(vertex: number, whole: (k: number) => number, share: (dimmer: number, k: number) => number): void {
    let differs = false;
    const at = this.shares.take(3 * this.dimmers);
    for (let i = 0; i < this.dimmers; i += 1)
      for (let k = 0; k < 3; k += 1) {
        const value = share(i, k);
        this.shares.array[at + 3 * i + k] = value;
        if (value > NOTHING) differs = this.used[i] = true;
      }
    if (!differs) {
      this.shares.length = at;
      return;
    }
    const place = this.whole.take(3);
    for (let k = 0; k < 3; k += 1) this.whole.array[place + k] = whole(k);
    this.vertices.push(vertex);
  }

  /** Null where no lamp makes a difference. */
  done(): LampShares | null {
    const count = this.vertices.length;
    if (count === 0) return null;
    const all = this.shares.array;
    const shareOf = (i: number) => {
      const own = new Float32Array(3 * count);
      for (let v = 0; v < count; v += 1)
        for (let k = 0; k < 3; k += 1) own[3 * v + k] = all[3 * (this.dimmers * v + i) + k]!;
      return own;
    };
    return {
      vertices: this.vertices.done(),
      whole: this.whole.done(),
      shares: this.used.map((used, i) => (used ? shareOf(i) : null)),
    };
  }
}

/** Writes the red, green and blue of what lamps light, four half floats a vertex. @param levels of the dimmers, 0…1 */
export function writeDimmed(
  { vertices, whole, shares }: LampShares,
  levels: readonly number[],
  out: Uint16Array,
): void {
  const dark = shares.flatMap((share, i) => (share && levels[i]! < 1 ? [{ share, missing: 1 - levels[i]! }] : []));
  for (let i = 0; i < vertices.length; i += 1)
    for (let k = 0; k < 3; k += 1) {
      let value = whole[3 * i + k]!;
      for (const { share, missing } of dark) value -= missing * share[3 * i + k]!;
      out[4 * vertices[i]! + k] = DataUtils.toHalfFloat(Math.max(0, value));
    }
}
