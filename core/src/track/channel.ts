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
  kind: 'pause' | 'mark' | 'pin' | 'gaze' | 'pose' | 'action';
  /** seconds */
  from: number;
  to: number;
  /** In the channel's unit; null where it has none. */
  value: number | null;
  /** What it is about, in a word or two. */
  about: string;
}

/** What a vertical cut along the way lays open at one place, metres; NaN where there is nothing. */
export interface SectionCut {
  /** Underside of what is overhead, and the upper side of that. */
  ceiling: number;
  top: number;
  /** Height of what stands close beside the way, and how near it is in the plan. */
  beside: number;
  free: number;
}

/** Where there is the least room along a way. */
export interface TightPlace {
  kind: 'overhead' | 'beside';
  /** seconds */
  time: number;
  /** metres */
  value: number;
}

/** What is drawn about a line of heights besides what is under it. */
export interface ChannelCut {
  at(time: number): SectionCut;
  readonly tightest: readonly TightPlace[];
}

/** Something that a move does over time: what a strip draws, whatever it is. */
export interface Channel {
  id: string;
  title: string;
  unit: 'm' | 'm/s' | 'mm' | '°/s' | '°' | 'f/' | 'stops' | '';
  /** It is no line: values are rows, from 1, for what lies in it. */
  rows?: number;
  /** Value at a time in seconds. */
  at(time: number): number;
  /** A second line under the first: the floor under the eye. */
  under?: { title: string; at(time: number): number };
  /** What is overhead and beside; worked out when first asked. */
  readonly cut?: ChannelCut | undefined;
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
