import type { Vec3 } from '../document/index.ts';
import type { Severity } from './severity.ts';
import type { WayFinding } from './way.ts';

/** What would mend something of a move. Nothing here is a person's decision: these are measures. */
export type Fix =
  /** Going all of it at this part of the speed. */
  | { kind: 'slower'; factor: number }
  /** Going a stretch of it at this part of the speed. */
  | { kind: 'slower here'; stretch: [from: number, to: number]; factor: number }
  /** Turning to and from what is looked at, or on the spot, at this part of the rate; seconds. */
  | { kind: 'softer turn'; from: number; to: number; factor: number }
  /** Giving the spans between kept poses that a stretch of time lies in so many times as long; seconds. */
  | { kind: 'more time'; from: number; to: number; factor: number }
  /** Leading the path clear of what is beside it. */
  | { kind: 'clear'; stretch: [from: number, to: number] }
  /** Holding the eye within these heights over the floor, metres. */
  | { kind: 'eyes'; low: number; high: number };

/** What jumps: where the camera is (m), where it looks (degrees), its focal length (a part of it), its speed (m/s), how fast it turns (degrees a second). */
export type JumpRule = 'jump' | 'turn jump' | 'lens jump' | 'jerk' | 'turn jerk';

/** Something that would spoil a move, before it is rendered. */
export interface Finding {
  rule:
    | WayFinding['rule']
    | JumpRule
    | 'clearance'
    | 'haste'
    | 'turn'
    | 'crossing'
    | 'gaze off'
    | 'hidden'
    | 'out of frame'
    | 'near'
    | 'eye height'
    | 'through'
    | 'met'
    | 'key lost'
    | 'not looked at';
  severity: Severity;
  /** seconds */
  from: number;
  to: number;
  /** Stations, metres; null for what is not a matter of place. */
  stretch: [from: number, to: number] | null;
  /** When it is worst, seconds; null for what holds all the time. */
  at: number | null;
  /** In the rule's own unit (metres, m/s, degrees a second, seconds); null where there is nothing to measure. */
  worst: number | null;
  limit: number | null;
  point: Vec3 | null;
  /** Null where only a person can mend it. */
  fix: Fix | null;
  /** The strip that it shows in. */
  channel: string | null;
}

/** A finding of which only what it has is said. */
export const finding = (said: Pick<Finding, 'rule' | 'severity' | 'from' | 'to'> & Partial<Finding>): Finding => ({
  stretch: null,
  at: null,
  worst: null,
  limit: null,
  point: null,
  fix: null,
  channel: null,
  ...said,
});
