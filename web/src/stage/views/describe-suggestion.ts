import { ownName } from '@eskovan/core/document';
import type { Suggestion } from '@eskovan/core/suggest';

/** A term is worth a word from here on, 0…1. */
const GOOD = 0.6;
/** What a picture is about is worth naming sooner. */
const NAMED = 0.25;

/** What a view is called that somebody keeps of a suggestion. */
export const suggestedName = ({ room, subject, land }: Suggestion): string =>
  land === 'above'
    ? 'From above'
    : land
      ? 'Over the land'
      : room === null
        ? 'From outside'
        : subject
          ? `${room}, ${ownName(subject)}`
          : room;

/** Why it is suggested, best reason first. */
export function whySuggested({ room, terms, depth, subject, land }: Suggestion): string {
  const reasons: [value: number, words: string][] = land
    ? [
        [terms.depth >= GOOD && depth !== null ? terms.depth : 0, `${farText(depth ?? 0)} deep`],
        [depth !== null && terms['two sides'] >= GOOD ? terms['two sides'] : 0, 'hills against the sky'],
        [terms.light >= GOOD ? terms.light : 0, 'the sunny side'],
        [depth === null ? GOOD : 0, 'all of it'],
      ]
    : [
        [terms.depth >= GOOD && depth !== null ? terms.depth : 0, `${(depth ?? 0).toFixed(0)} m deep`],
        [
          terms['two sides'] >= GOOD ? terms['two sides'] : 0,
          room === null ? 'two sides of it' : 'two walls at an angle',
        ],
        [terms.light >= GOOD ? terms.light : 0, room === null ? 'the sunny side' : 'light from a window'],
        [
          subject !== null && terms.subject >= NAMED ? terms.subject + GOOD : 0,
          `${ownName(subject ?? '')} in the picture`,
        ],
        [room === null && terms.subject === 1 ? GOOD : 0, 'nothing in between'],
      ];
  const said = reasons
    .filter(([value]) => value > 0)
    .sort(([a], [b]) => b - a)
    .map(([, words]) => words);
  return said.length > 0 ? said.join(', ') : land ? 'one of the highest places' : 'the freest place there is';
}

const farText = (metres: number): string =>
  metres < 1000 ? `${metres.toFixed(0)} m` : `${(metres / 1000).toFixed(1)} km`;
