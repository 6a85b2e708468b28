import type { StillCamera, Vec3 } from '../document/index.ts';
import type { Severity } from './severity.ts';

/** Something that would spoil a still, before it is rendered. */
export interface StillFinding {
  rule:
    | 'converging'
    | 'off level'
    | 'stretched'
    | 'eye too low'
    | 'eye too high'
    | 'too near'
    | 'eye inside'
    | 'straight on'
    | 'subject cut'
    | 'subject hidden'
    | 'burnt out'
    | 'not looked at';
  severity: Severity;
  /** In the rule's own unit (degrees, metres, or a part of one); null where there is nothing to measure. */
  worst: number | null;
  limit: number | null;
  /** A place of the scene that it is about, metres. */
  point: Vec3 | null;
  /** The camera that would be fine. Null where only a person can tell. */
  fix: StillCamera | null;
}
