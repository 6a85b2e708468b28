import type { Bounds, Vec3 } from '@eskovan/core/document';
import { suggestViews, type Suggestion, type Thing } from '@eskovan/core/suggest';
import { unpackFooting, type Survey } from '@eskovan/core/survey';
import * as Comlink from 'comlink';

export interface SuggestOrder {
  /** Where the floors and everything else that one comes up against are. */
  floorUrl: string;
  survey: Survey;
  bounds: Bounds;
  things: readonly Thing[];
  sun: Vec3 | null;
  wish: Parameters<typeof suggestViews>[1];
}

const api = {
  /** Views that are worth keeping, best first. Rays by the hundred thousand: nothing for a page. */
  async suggest({ floorUrl, wish, ...site }: SuggestOrder): Promise<Suggestion[]> {
    const answer = await fetch(floorUrl);
    if (!answer.ok) throw new Error(`The floors could not be loaded (${answer.status}).`);
    return suggestViews({ ...site, footing: unpackFooting(await answer.arrayBuffer()) }, wish);
  },
};

export type SuggestWorker = typeof api;
Comlink.expose(api);
