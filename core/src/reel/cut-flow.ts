import { smooth } from '../geometry/index.ts';
import type { ImageFlow } from './flow.ts';

/** What movement does at a join: it goes on, comes to a halt, is suddenly faster, or turns round. */
export type FlowWord = 'carries' | 'stops' | 'races' | 'turns back';

export interface CutFlow {
  /** 1 where the picture moves on as it did, 0 where nothing of it does. */
  score: number;
  word: FlowWord;
  /** Mean image speeds just before and just after, frame widths a second. */
  before: number;
  after: number;
  /** How much the directions agree at the same places of the picture: 1 the same, −1 against each other. */
  agreement: number;
}

/** A picture that moves less is still, frame widths a second (common practice, no source). */
const STILL = 0.02;
/** From here on it matters which way a picture moves, frame widths a second (common practice, no source). */
const DIRECTED = 0.05;
/** A join with a better score is not noticed (common practice, no source). */
export const CARRIES = 0.6;

/**
 * How movement carries over a cut: by the ratio of the image speeds, and by how well the directions agree place by place.
 * Where either hardly moves, there is no direction to disagree about.
 */
export function cutFlow(a: ImageFlow, b: ImageFlow): CutFlow {
  const [before, after] = [a.speed, b.speed];
  const slower = Math.min(before, after);
  const ratio = (slower + STILL) / (Math.max(before, after) + STILL);
  const agreement = agreementOf(a.velocities, b.velocities);
  // How much turning takes away: nothing where the picture hardly moves.
  const turned = (smooth(STILL, DIRECTED, slower) * (1 - agreement)) / 2;
  const score = ratio * (1 - turned);
  return { score, word: wordOf(score, ratio, turned, after > before), before, after, agreement };
}

/** The cosine between two fields of velocities; 1 where one of them is nothing. */
function agreementOf(a: Float64Array, b: Float64Array): number {
  let [product, aa, bb] = [0, 0, 0];
  for (let i = 0; i < a.length; i += 1) {
    product += a[i]! * b[i]!;
    aa += a[i]! * a[i]!;
    bb += b[i]! * b[i]!;
  }
  return aa * bb > 1e-18 ? Math.max(-1, Math.min(1, product / Math.sqrt(aa * bb))) : 1;
}

function wordOf(score: number, ratio: number, turned: number, faster: boolean): FlowWord {
  if (score >= CARRIES) return 'carries';
  // Whichever takes more of the score away names it.
  if (turned > 1 - ratio) return 'turns back';
  return faster ? 'races' : 'stops';
}
