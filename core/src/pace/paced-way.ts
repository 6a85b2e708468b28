import type { WayAnchor } from '../document/index.ts';

/** The path that a pace is for. */
export interface PacedWay {
  /** metres */
  length: number;
  /** Station that an anchor holds on to, metres; null where its node is gone. */
  stationOf?: (anchor: WayAnchor) => number | null;
  /** What turns along it, by station, radians: the direction of travel, and that of the eye where the way tells it. */
  headings?: readonly ((station: number) => number)[];
}

/** A mark of a pace where its anchor has put it. */
export interface PlacedMark {
  id: string;
  /** Stations, metres. */
  from: number;
  to: number;
  /** m/s, as it was asked for. */
  speed: number;
  /** The same as a part of the walking speed. */
  part: number;
}

/** A pause where its anchor has put it. */
export interface PlacedPause {
  id: string;
  /** metres */
  station: number;
  seconds: number;
}

/** A pin where its anchor has put it, and when it is really reached. */
export interface PlacedPin {
  id: string;
  /** metres */
  station: number;
  /** Wanted, seconds. */
  time: number;
  /** The nearest that limits allow, seconds. */
  reached: number;
}
