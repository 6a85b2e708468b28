import type { Vec3, Walker } from '@eskovan/core/document';
import { unpackFooting, Walkway, type Footing, type WalkedSurvey } from '@eskovan/core/survey';
import { findWay, whyNoWay, type Block, type FoundWay, type NoWay, type WayWalker } from '@eskovan/core/wayfind';
import * as Comlink from 'comlink';

export interface WayOrder {
  floorUrl: string;
  walkwayUrl: string;
  /** Storeys and rooms, for looking after what is in the way. */
  survey: WalkedSurvey;
  /** On the floor, metres. */
  places: readonly Vec3[];
  walker: WayWalker & Walker;
}

interface Ground {
  key: string;
  footing: Footing;
  walkway: Walkway;
}
let ground: Promise<Ground> | null = null;
let key = '';

async function bytesOf(url: string): Promise<ArrayBuffer> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`The floors could not be loaded (${answer.status}).`);
  return answer.arrayBuffer();
}

/** The site is loaded once for all questions about it. */
function groundOf({ floorUrl, walkwayUrl }: WayOrder): Promise<Ground> {
  const wanted = `${floorUrl} ${walkwayUrl}`;
  if (ground && key === wanted) return ground;
  key = wanted;
  const loading = Promise.all([bytesOf(floorUrl), bytesOf(walkwayUrl)]).then(async ([floor, walkway]) => ({
    key: wanted,
    footing: unpackFooting(floor),
    walkway: await Walkway.from(new Uint8Array(walkway)),
  }));
  ground = loading;
  loading.catch(() => (ground = null));
  return loading;
}

/** No way, and what is in it; null where nobody gets there at all. */
export type BlockedWay = NoWay & { block: Block | null };

const api = {
  /** A path through places, or between which there is none, and why. */
  async find(order: WayOrder): Promise<FoundWay | BlockedWay> {
    const { places, walker, survey } = order;
    const { footing, walkway } = await groundOf(order);
    const way = findWay(walkway, places, footing, walker, () => crypto.randomUUID());
    if (way.found) return way;
    return { ...way, block: await whyNoWay(footing, survey, [places[way.from]!, places[way.to]!], walker) };
  },
};

export type WayWorker = typeof api;
Comlink.expose(api);
