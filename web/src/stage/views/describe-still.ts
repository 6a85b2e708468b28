import type { StillFinding } from '@eskovan/core/check';
import { lengthText, type LengthUnit } from '@eskovan/core/document';

/** A finding in a sentence: what, how much, and what to do; and a word or two for the button that shows its mend. */
export function describeStill(
  { rule, worst, limit }: StillFinding,
  lengths: LengthUnit,
): { says: string; mend: string } {
  switch (rule) {
    case 'off level':
      return { says: `The horizon is ${worst!.toFixed(1)}° off level.`, mend: 'Try it level' };
    case 'converging':
      return {
        says: `Verticals lean by ${worst!.toFixed(1)}° towards each other.`,
        mend: 'Try a shifted lens',
      };
    case 'stretched':
      return {
        says: `Things at the edge are drawn out by ${Math.round(100 * worst!)} % (up to ${Math.round(100 * limit!)} % here).`,
        mend: 'Try a longer lens',
      };
    case 'eye too low':
      return { says: `The eye is ${worst!.toFixed(2)} m above the floor, lower than people’s.`, mend: 'Try it higher' };
    case 'eye too high':
      return { says: `The eye is ${worst!.toFixed(2)} m above the floor, higher than people’s.`, mend: 'Try it lower' };
    case 'too near':
      return {
        says: `Something is ${lengthText(worst!, lengths)} before the camera and covers a part of the picture. Step aside, or hide it.`,
        mend: '',
      };
    case 'eye inside':
      return { says: 'The camera is inside a wall or a thing. Step out of it.', mend: '' };
    case 'straight on':
      return {
        says: 'The facade is seen straight on: two sides say more of a building.',
        mend: 'Try it over a corner',
      };
    case 'subject cut':
      return {
        says: worst === null ? 'The subject is beside or behind the camera.' : 'The subject is cut by the frame.',
        mend: 'Try it whole',
      };
    case 'subject hidden':
      return {
        says: `Only ${Math.round(100 * worst!)} % of the subject can be seen: something stands before it. Step aside.`,
        mend: '',
      };
    case 'burnt out':
      return {
        says: `${Math.round(100 * worst!)} % of the picture burns out to white (up to ${Math.round(100 * limit!)} % here): nothing can be told apart there.`,
        mend: 'Try it darker',
      };
    case 'not looked at':
      return {
        says: 'What is near has not been looked at: this site was measured by an older program. It is measured again when its models are next opened.',
        mend: '',
      };
  }
}
