import type { PlacedMark, PlacedPause, PlacedPin } from './paced-way.ts';

/** Station and speed as functions of time. Times outside the move are clamped to its ends. */
export interface PaceProfile {
  /** metres */
  length: number;
  /** seconds */
  duration: number;
  /** Highest speed reached, m/s. */
  cruise: number;
  /** Metres along the path at a time in seconds; never decreases. */
  stationAt(time: number): number;
  /** m/s */
  speedAt(time: number): number;
  /** What is in it besides its shape, where anything is. */
  marks?: readonly PlacedMark[];
  /** With the time at which they begin, seconds. */
  pauses?: readonly (PlacedPause & { from: number })[];
  pins?: readonly PlacedPin[];
  /** Marks, pauses and pins whose nodes are gone. */
  lost?: number;
}
