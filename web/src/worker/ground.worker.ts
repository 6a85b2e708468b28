import { checkMove, coverageOf, type CoveredStorey, type Finding, type RoomCover } from '@eskovan/core/check';
import type { Drawn } from '@eskovan/core/format/drawn';
import type { MoveBody, Vec3, Walker } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { unpackFooting, Walkway, type WalkedSurvey } from '@eskovan/core/survey';
import {
  findWay,
  otherWays,
  whyNoWay,
  type Block,
  type FoundWay,
  type NoWay,
  type WayWalker,
} from '@eskovan/core/wayfind';
import * as Comlink from 'comlink';
import { Latest } from './latest.ts';
import { compiledIn, readySite, type ReadySite, type SiteOrder } from './site-order.ts';

export interface WayOrder {
  floorUrl: string;
  walkwayUrl: string;
  /** Storeys and rooms, for looking after what is in the way. */
  survey: WalkedSurvey;
  /** On the floor, metres. */
  places: readonly Vec3[];
  walker: WayWalker & Walker;
}

const footings = new Latest(async (url: string) => unpackFooting(await bytesOf(url)));
const walkways = new Latest(async (url: string) => Walkway.from(new Uint8Array(await bytesOf(url))));

async function bytesOf(url: string): Promise<ArrayBuffer> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`The floors could not be loaded (${answer.status}).`);
  return answer.arrayBuffer();
}

/** What moves are checked in; null until somebody has said. */
let site: Promise<ReadySite> | null = null;
/** The move that was checked last. */
let checked: CompiledMove | null = null;

/** No way, and what is in it; null where nobody gets there at all. */
export type BlockedWay = NoWay & { block: Block | null };

const api = {
  /** A path through places, or between which there is none, and why. */
  async find(order: WayOrder): Promise<FoundWay | BlockedWay> {
    const { places, walker, survey } = order;
    const [footing, walkway] = await Promise.all([footings.of(order.floorUrl), walkways.of(order.walkwayUrl)]);
    const way = findWay(walkway, places, footing, walker, () => crypto.randomUUID());
    if (way.found) return way;
    return { ...way, block: await whyNoWay(walkway, footing, survey, [places[way.from]!, places[way.to]!], walker) };
  },
  /** Other ways through the same places, the shortest first. @param first the way that was found through them */
  async others({ places, walker, floorUrl, walkwayUrl }: WayOrder, first: FoundWay): Promise<FoundWay[]> {
    const [footing, walkway] = await Promise.all([footings.of(floorUrl), walkways.of(walkwayUrl)]);
    return otherWays(first, walkway, places, footing, walker, () => crypto.randomUUID());
  },
  /** Lines of a DXF, an SVG or a CSV. @throws FormatError with words for people */
  async drawn(bytes: Uint8Array, fileName: string): Promise<Drawn> {
    const { readDrawn } = await import('@eskovan/core/format/drawn');
    return readDrawn(bytes, fileName);
  },
  /** Takes what moves are checked in from now on. */
  async standIn(order: SiteOrder): Promise<void> {
    checked = null;
    site = footings.of(order.floorUrl).then((footing) => readySite(order, footing));
    await site;
  },
  /** What the checks know of a move; null while there is not enough of it. */
  async check(body: MoveBody): Promise<Finding[] | null> {
    if (!site) return null;
    const ready = await site;
    checked = compiledIn(ready, body);
    const { footing, movers, order } = ready;
    return checked && checkMove(checked, footing, order.limits, order.walker, order.aspect, movers);
  },
  /** How long the move that was checked last shows every room; null where none was. */
  async cover(storeys: readonly CoveredStorey[]): Promise<RoomCover[] | null> {
    const ready = await site;
    return ready && checked && coverageOf(checked, ready.footing, storeys, ready.order.aspect, ready.movers);
  },
};

export type GroundWorker = typeof api;
Comlink.expose(api);
