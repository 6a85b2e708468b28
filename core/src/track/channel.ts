import type { TrackName } from '../document/index.ts';

/** A key of a channel, where its anchor has put it. */
export interface ChannelKey {
  id: string;
  /** seconds */
  time: number;
  value: number;
}

/** A stretch or an instant of a channel that a hand may take hold of. */
export interface ChannelItem {
  id: string;
  kind: 'pause' | 'mark' | 'pin' | 'gaze';
  /** seconds */
  from: number;
  to: number;
  /** In the channel's unit; null where it has none. */
  value: number | null;
  /** What it is about, in a word or two. */
  about: string;
}

/** Something that a move does over time: what a strip draws, whatever it is. */
export interface Channel {
  id: string;
  title: string;
  unit: 'm' | 'm/s' | 'mm' | '°/s' | '°' | 'f/' | 'stops';
  /** Value at a time in seconds. */
  at(time: number): number;
  /** A second line under the first: the floor under the eye. */
  under?: { title: string; at(time: number): number };
  /** What lies in it. */
  items?: readonly ChannelItem[];
  /** Values that feel right. */
  band?: readonly [number, number];
  /** Where a hand may put keys and between which values; a channel without is a result. */
  track?: {
    name: TrackName;
    keys: readonly ChannelKey[];
    limits: readonly [number, number];
    step: number;
    /** What the value of a key is added to at a time: a lift rides on the eye line. */
    base?: (time: number) => number;
  };
}
