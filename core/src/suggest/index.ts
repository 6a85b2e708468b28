export { suggestViews, SMALLEST_ROOM, type Suggestion, type SuggestSite } from './suggest.ts';
export type { Term, Thing } from './terms.ts';
export { thingsOf } from './things.ts';
