import { ownName } from '@eskovan/core/document';
import { anglesOf, toDegrees } from '@eskovan/core/geometry';
import type { Suggestion } from '@eskovan/core/suggest';
import { windSpelt } from '../shared/winds.ts';

/** A term is worth a word from here on, 0…1. */
const GOOD = 0.6;
/** What a picture is about is worth naming sooner. */
const NAMED = 0.25;

/**
 * What views are called that somebody keeps of suggestions: by the side that they look from, or to; each by another name.
 * @param north of the project, radians
 */
export function suggestedNames(suggestions: readonly Suggestion[], north: number): string[] {
  const met = new Map<string, number>();
  return suggestions.map((suggestion) => {
    const name = suggestedName(suggestion, north);
    const count = (met.get(name) ?? 0) + 1;
    met.set(name, count);
    return count === 1 ? name : `${name} ${count}`;
  });
}

function suggestedName({ room, subject, land, camera }: Suggestion, north: number): string {
  if (room !== null) return subject ? `${room}, ${ownName(subject)}` : room;
  const to = toDegrees(-anglesOf(camera.pose.orientation).pan - north);
  if (land === 'ground') return `Over the land to the ${windSpelt(to)}`;
  return `${land ? 'From above' : 'From outside'}, ${windSpelt(to + 180)}`;
}

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
