import type { Vec3 } from '@eskovan/core/document';
import { unpackFooting, Walkway, type Footing } from '@eskovan/core/survey';
import { findWay, type FoundWay, type NoWay, type WayWalker } from '@eskovan/core/wayfind';
import * as Comlink from 'comlink';

export interface WayOrder {
  floorUrl: string;
  walkwayUrl: string;
  /** On the floor, metres. */
  places: readonly Vec3[];
  walker: WayWalker;
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

const api = {
  /** A path through places, or between which there is none. */
  async find(order: WayOrder): Promise<FoundWay | NoWay> {
    const { footing, walkway } = await groundOf(order);
    return findWay(walkway, order.places, footing, order.walker, () => crypto.randomUUID());
  },
};

export type WayWorker = typeof api;
Comlink.expose(api);
