import type { MoveBody } from '../document/index.ts';
import { otherPace } from '../pace/index.ts';

/** The move without rest at its ends: at one pace all the way, ready for cuts; null where it is, or has no pace of its own. */
export function evenPaced(body: MoveBody): MoveBody | null {
  switch (body.kind) {
    case 'walk':
    case 'glide':
      return body.pace.shape === 'constant' && !body.pace.kept
        ? null
        : { ...body, pace: otherPace(body.pace, { shape: 'constant' }) };
    case 'orbit':
      return body.shape === 'constant' ? null : { ...body, shape: 'constant' };
    case 'travel':
      return body.ends === 'running' ? null : { ...body, ends: 'running' };
    default:
      return null;
  }
}
