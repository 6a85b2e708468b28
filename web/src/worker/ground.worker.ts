import { Movers, SiteMotion, type MovableSite, type SiteAction } from '@eskovan/core/action';
import { checkMove, coverageOf, type CoveredStorey, type Finding, type RoomCover } from '@eskovan/core/check';
import type { Drawn } from '@eskovan/core/format/drawn';
import type { CheckLimits, MoveBody, Vec3, Walker } from '@eskovan/core/document';
import { compileMove, type MoveSite } from '@eskovan/core/move';
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

export interface WayOrder {
  floorUrl: string;
  walkwayUrl: string;
  /** Storeys and rooms, for looking after what is in the way. */
  survey: WalkedSurvey;
  /** On the floor, metres. */
  places: readonly Vec3[];
  walker: WayWalker & Walker;
}

/** What a move is checked in, as far as the page knows it. */
export interface CheckOrder extends Omit<MoveSite, 'footing' | 'motion' | 'walker'> {
  floorUrl: string;
  body: MoveBody;
  walker: Walker;
  limits: CheckLimits;
  /** What moves of the site; null where nothing does, or the move is not about it. */
  moving: { site: Pick<MovableSite, 'joints' | 'movements'>; actions: readonly SiteAction[] } | null;
}

/** What was loaded last, kept for the next questions about it. */
class Latest<T> {
  private held: { url: string; loading: Promise<T> } | null = null;
  constructor(private readonly load: (url: string) => Promise<T>) {}
  of(url: string): Promise<T> {
    if (this.held?.url === url) return this.held.loading;
    const loading = this.load(url);
    this.held = { url, loading };
    // The next question tries again.
    loading.catch(() => (this.held = null));
    return loading;
  }
}

const footings = new Latest(async (url: string) => unpackFooting(await bytesOf(url)));
const walkways = new Latest(async (url: string) => Walkway.from(new Uint8Array(await bytesOf(url))));

async function bytesOf(url: string): Promise<ArrayBuffer> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`The floors could not be loaded (${answer.status}).`);
  return answer.arrayBuffer();
}

/** The move that was checked last. */
let checked: ReturnType<typeof compiled> | null = null;

async function compiled({ floorUrl, body, moving, ...site }: CheckOrder) {
  const footing = await footings.of(floorUrl);
  const motion = moving && new SiteMotion({ ...moving.site, parts: site.parts }, moving.actions);
  return { footing, move: compileMove(body, { ...site, footing, motion }), movers: new Movers(site.parts, motion) };
}

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
  /** What the checks know of a move; null while there is not enough of it. */
  async check(order: CheckOrder): Promise<Finding[] | null> {
    const { move, footing, movers } = await (checked = compiled(order));
    return move && checkMove(move, footing, order.limits, order.walker, order.aspect, movers);
  },
  /** How long the move that was checked last shows every room; null where none was. */
  async cover(storeys: readonly CoveredStorey[], aspect: number): Promise<RoomCover[] | null> {
    const last = await checked;
    return last?.move ? coverageOf(last.move, last.footing, storeys, aspect, last.movers) : null;
  },
};

export type GroundWorker = typeof api;
Comlink.expose(api);
