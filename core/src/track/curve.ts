import type { Anchor, Key, WayAnchor } from '../document/index.ts';
import { hermite, monotoneSlopes, pieceAt } from '../geometry/index.ts';
import type { ChannelKey } from './channel.ts';

/** How anchors find their time. */
export interface AnchorTimes {
  /** seconds */
  duration: number;
  /** Time at which a station is passed, seconds; null for a move without a path. */
  timeAt: ((station: number) => number) | null;
  /** Station of a node, metres; null where the path has no such node. */
  stationOf: ((node: string) => number | null) | null;
}

/** The station that an anchor of the path holds on to, metres; null where its node is gone. */
export function stationOf(anchor: WayAnchor, nodeAt: (node: string) => number | null): number | null {
  if (anchor.by === 'station') return anchor.station;
  const station = nodeAt(anchor.node);
  return station === null ? null : station + anchor.offset;
}

/** The time of an anchor, within the move; null where there is nothing that it could hold on to. */
export function timeOf(anchor: Anchor, { duration, timeAt, stationOf: nodeAt }: AnchorTimes): number | null {
  const within = (time: number) => Math.min(Math.max(time, 0), duration);
  if (anchor.by === 'time') return within(anchor.time);
  const station = stationOf(anchor, nodeAt ?? (() => null));
  return station === null || !timeAt ? null : within(timeAt(station));
}

/** A track that is ready to be asked: values between keys never leave the range of the two keys beside them. */
export class TrackCurve {
  readonly keys: readonly ChannelKey[];
  /** Keys that hold on to nothing any more: their nodes are gone. */
  readonly lost: number;
  private readonly times: Float64Array;
  private readonly values: Float64Array;
  private readonly slopes: Float64Array;
  private readonly eases: readonly Key['ease'][];

  /**
   * @param loops the value at the end is the one at the beginning, and the curve goes on through it
   */
  constructor(keys: readonly Key[], anchors: AnchorTimes, loops: boolean) {
    const placed = keys
      .flatMap(({ id, anchor, value, ease }) => {
        const time = timeOf(anchor, anchors);
        return time === null ? [] : [{ id, time, value, ease }];
      })
      .sort((a, b) => a.time - b.time);
    this.lost = keys.length - placed.length;
    this.keys = placed.map(({ id, time, value }) => ({ id, time, value }));
    // Of keys at one time the last one counts.
    let once = placed.filter(({ time }, i) => i + 1 === placed.length || placed[i + 1]!.time - time > 1e-9);
    const { duration } = anchors;
    if (loops && once.length > 1) {
      // The end of a loop is its beginning: a key there is the same instant.
      if (once.at(-1)!.time - once[0]!.time > duration - 1e-9) once = once.slice(0, -1);
      const before = once.slice(-2).map((key) => ({ ...key, time: key.time - duration }));
      const after = once.slice(0, 2).map((key) => ({ ...key, time: key.time + duration }));
      once = [...before, ...once, ...after];
    }
    this.times = Float64Array.from(once, ({ time }) => time);
    this.values = Float64Array.from(once, ({ value }) => value);
    this.eases = once.map(({ ease }) => ease);
    this.slopes = monotoneSlopes(this.times, this.values);
  }

  /** Value at a time in seconds; NaN without keys. */
  at(time: number): number {
    const { times, values, slopes } = this;
    const last = times.length - 1;
    if (last < 0) return Number.NaN;
    if (time <= times[0]!) return values[0]!;
    if (time >= times[last]!) return values[last]!;
    const low = pieceAt(times, time);
    const high = low + 1;
    const [a, b] = [values[low]!, values[high]!];
    const length = times[high]! - times[low]!;
    const t = (time - times[low]!) / length;
    const ease = this.eases[low]!;
    if (ease === 'hold') return a;
    if (ease === 'straight') return a + (b - a) * t;
    return hermite(a, length * slopes[low]!, b, length * slopes[high]!, t);
  }
}
