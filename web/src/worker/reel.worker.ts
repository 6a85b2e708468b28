import { aspectOf, type PromisedObject } from '@eskovan/core/document';
import {
  joinCovers,
  joinObjectCovers,
  objectCover,
  shotCover,
  unseenObjects,
  unseenRooms,
  type CoveredStorey,
  type ObjectCover,
  type RoomCover,
} from '@eskovan/core/check';
import {
  cutNotes,
  flowAtFrame,
  flowOverJoin,
  frameTime,
  matchJoin,
  replanned,
  type CutFlow,
  type CutNote,
  type FlowMeasure,
  type Match,
  type OwnShot,
} from '@eskovan/core/reel';
import { writeSamplesCsv } from '@eskovan/core/exchange';
import { fingerprint } from '@eskovan/core/site';
import { unpackFooting, type Footing } from '@eskovan/core/survey';
import type { ReelPicture } from '@eskovan/render';
import * as Comlink from 'comlink';
import { evenPaced, type CameraSample } from '@eskovan/core/move';
import { Latest } from './latest.ts';
import { fetchBytes } from './load-scene.ts';
import { ReelWork, type Measured, type ReelOrder } from './reel-work.ts';
import type { SiteOrder } from './site-order.ts';
import { findingsOfShots, type ShotFinding } from './shot-findings.ts';

/** How fast the picture moves through a shot: evenly spread, its first and its last frame included. */
export interface ShotFlow {
  shot: string;
  /** Frame widths a second. */
  speeds: Float32Array;
}

/** What a join does: by the shot that it leads to. */
export interface JoinFlow {
  shot: string;
  flow: CutFlow;
  notes: CutNote[];
  /** Places that the blended camera passes through something, frames of the reel; empty for other joins. */
  through: number[];
}

/** Names of the frames of a shot that no other has named before it; null where the page has them. */
export interface ShotKeys {
  shot: string;
  keys: string[] | null;
}

/** A stretch in which what a shot looks at is outside its cut-out, seconds of the reel. */
export interface OutsideCut {
  shot: string;
  from: number;
  to: number;
}

/** The flow line is asked so often, seconds; of long shots more seldom. */
const FLOW_STEP = 0.25;
const MOST_FLOW = 160;

const work = new ReelWork();
const footings = new Latest((url: string) => fetchBytes(url).then(unpackFooting));

/** Kept by what they follow from: an edit of one shot leaves what is known of the others. */
class Kept<T> {
  private known = new Map<string, T>();
  private used = new Map<string, T>();
  of(what: unknown, make: () => T): T {
    const key = fingerprint(what);
    const value = this.used.get(key) ?? this.known.get(key) ?? make();
    this.used.set(key, value);
    return value;
  }
  /** Nothing of it holds any more. */
  clear(): void {
    this.known = new Map();
    this.used = new Map();
  }
  /** What was not used since the last round goes. */
  round(): void {
    this.known = this.used;
    this.used = new Map();
  }
}

const flows = new Kept<Float32Array>();
const joins = new Kept<Omit<JoinFlow, 'shot'>>();
const keys = new Kept<string[]>();
/** The names that the page has, by shot. */
const told = new Map<string, string[]>();
const covers = new Kept<RoomCover[]>();
const objectCovers = new Kept<ObjectCover[]>();

const measureNow = (): FlowMeasure => ({
  rate: work.given.rate,
  aspect: aspectOf({ frame: work.given.ratio }),
  whole: aspectOf({ frame: work.given.whole }),
  cast: work.cast,
});

/** What the camera of a shot follows from, as it is shown. */
const saidOf = (index: number) => {
  const { move, view, body, motion } = work.given.shots[index]!;
  const { from, to, backwards, speed, frames } = work.reel.plan.shots[index]!;
  const { rate, whole, ratio } = work.given;
  return [
    move?.body ?? null,
    view,
    body.use,
    from,
    to,
    backwards,
    speed,
    frames,
    rate,
    whole,
    ratio,
    body.aside,
    motion !== null,
  ];
};

const api = {
  /** Takes the site that moves are in. */
  async setSite(site: SiteOrder): Promise<void> {
    work.setSite(site, await footings.of(site.floorUrl));
    // The same moves may be others in another site.
    for (const kept of [flows, joins, keys, covers, objectCovers]) kept.clear();
  },

  measure: (moves: ReelOrder['shots'][number]['move'][]): Record<string, Measured> =>
    work.measure(moves.flatMap((move) => (move ? [move] : []))),

  setReel(order: ReelOrder): void {
    work.setReel(order);
  },

  /** What frames show. */
  pictures: (frames: readonly number[]): { key: string; picture: ReelPicture }[] =>
    frames.map((frame) => {
      const picture = work.pictureAt(frame);
      return { key: work.nameOf(picture), picture };
    }),

  /**
   * Names of all frames, shot by shot; null for a shot whose names are those that were told before. Shots whose frames are
   * the same as before are not looked at again.
   */
  keys(): ShotKeys[] {
    const { plan } = work.reel;
    const { body, moving, shots } = work.given;
    const saidOfPicture = (i: number) => {
      const [shot, planned] = [shots[i], plan.shots[i]];
      return shot && planned
        ? [saidOf(i), shot.name, shot.scene, shot.number, shot.body, planned.overlap, planned.join]
        : null;
    };
    const named = plan.shots.map((planned, i): ShotKeys => {
      const end = planned.start + planned.frames;
      // What it shares with the one before it was named there.
      const first = planned.start + planned.overlap;
      // Where time runs through the whole reel, a picture is also a matter of when it is.
      const when = body.throughout ? planned.start : 0;
      const said = [saidOfPicture(i), saidOfPicture(i + 1), body, moving, when];
      const list = keys.of(said, () => work.keysOf(first, end));
      const before = told.get(planned.id);
      told.set(planned.id, list);
      return { shot: planned.id, keys: before === list ? null : list };
    });
    keys.round();
    const there = new Set(plan.shots.map(({ id }) => id));
    for (const id of told.keys()) if (!there.has(id)) told.delete(id);
    return named;
  },

  /** How the picture moves, through the reel and at its joins. */
  flow(): { shots: ShotFlow[]; joins: JoinFlow[] } {
    const measure = measureNow();
    const { plan } = work.reel;
    const shots = plan.shots.map((planned, i) => ({
      shot: planned.id,
      speeds: flows.of(saidOf(i), () => speedsOf(work.ownShot(i)!, measure)),
    }));
    const found = plan.shots.slice(1).map((planned, k) => {
      const i = k + 1;
      const said = [saidOf(i - 1), saidOf(i), planned.overlap, planned.join];
      return { shot: planned.id, ...joins.of(said, () => joinOf(i, measure)) };
    });
    flows.round();
    joins.round();
    return { shots, joins: found };
  },

  /** What would let movement carry over the join before a shot better. */
  match(index: number, keepLength: boolean): Match[] {
    const [before, after] = [work.ownShot(index - 1), work.ownShot(index)];
    if (!before || !after) return [];
    return matchJoin({
      before,
      after,
      outer: { before: work.ownShot(index - 2), after: work.ownShot(index + 1) },
      sourceOf: (id) => work.sourceOf(id),
      measure: measureNow(),
      keepLength,
      evenPaced: evenly,
    });
  },

  /** How long each room is seen in the whole reel; null while the site is not known. */
  cover: (storeys: readonly CoveredStorey[]): RoomCover[] | null =>
    work.footing &&
    joinCovers([
      // Those that no shot has a camera for are in the site all the same.
      { start: 0, cover: unseenRooms(storeys) },
      ...overShots(covers, storeys, (shot, ground, aspect) => shotCover(shot, ground, storeys, aspect, work.movers)),
    ]),

  /** How long objects are seen in it; those that are not in the site are left out. */
  objects(wanted: readonly PromisedObject[]): ObjectCover[] {
    const objects = work.objectsOf(wanted);
    return joinObjectCovers([
      { start: 0, cover: unseenObjects(objects) },
      ...overShots(objectCovers, wanted, (shot, ground, aspect) =>
        objectCover(shot, ground, objects, aspect, work.movers),
      ),
    ]);
  },

  /** When what shots look at is outside their cut-out. */
  outside: (): OutsideCut[] =>
    work.reel.plan.shots.flatMap((planned) =>
      work.reel.outsideOf(planned).map(([from, to]) => ({ shot: planned.id, from, to })),
    ),

  /** What the checks know of its shots. */
  findings: (): ShotFinding[] => findingsOfShots(work),

  /** The camera of every frame as a table. */
  samplesCsv: (): string => writeSamplesCsv(work.reel),
};

function speedsOf(shot: OwnShot, measure: FlowMeasure): Float32Array {
  const { frames } = shot.planned;
  const seconds = frameTime(frames, measure.rate);
  const count = Math.max(2, Math.min(MOST_FLOW, Math.ceil(seconds / FLOW_STEP) + 1));
  const frameAt = (i: number) => Math.max(0, Math.min(frames - 2, Math.round(((frames - 1) * i) / (count - 1))));
  return Float32Array.from({ length: count }, (_, i) => flowAtFrame(shot, frameAt(i), measure).speed);
}

function joinOf(index: number, measure: FlowMeasure): Omit<JoinFlow, 'shot'> {
  const [before, after] = [work.ownShot(index - 1)!, work.ownShot(index)!];
  const cut = !after.planned.join || after.planned.join.kind === 'dip';
  return {
    flow: flowOverJoin(before, after, measure),
    notes: cut ? cutNotes(before, after, measure) : [],
    through: after.planned.join?.kind === 'blend' ? throughOf(after.planned.start, after.planned.overlap) : [],
  };
}

/** What every shot shows, each asked again only when what it follows from changes. */
function overShots<T>(
  kept: Kept<T[]>,
  about: unknown,
  look: (shot: { duration: number; sampleAt: (at: number) => CameraSample }, ground: Footing, aspect: number) => T[],
): { start: number; cover: T[] }[] {
  const { footing: ground } = work;
  const { plan } = work.reel;
  const { ratio, body } = work.given;
  const aspect = aspectOf({ frame: ratio });
  const perSecond = plan.rate.num / plan.rate.den;
  const seen = plan.shots.map((planned, i) => {
    const when = body.throughout ? planned.start : 0;
    const cover = kept.of([saidOf(i), about, when], () => {
      if (!ground || !work.reel.cameraOf(planned, planned.start)) return [];
      // What is cut away is not seen.
      const sampleAt = (at: number) => work.reel.cameraOf(planned, planned.start + at * perSecond)!;
      return look({ duration: frameTime(planned.frames, plan.rate), sampleAt }, ground, aspect);
    });
    return { start: frameTime(planned.start, plan.rate), cover };
  });
  kept.round();
  return seen;
}

/** A shot whose move goes at one pace all the way. */
function evenly({ planned, body }: OwnShot): OwnShot | null {
  const { move } = work.shotOf(planned.id);
  const paced = move && evenPaced(move.body);
  const compiled = paced && work.compile(paced);
  if (!compiled) return null;
  return {
    body,
    camera: { kind: 'move', move: compiled },
    planned: replanned(planned, body, compiled, work.given.rate),
  };
}

/** Frames between which the blended camera goes through something solid. */
function throughOf(start: number, overlap: number): number[] {
  const out: number[] = [];
  let last = work.reel.frameAt(start).layers[0]?.sample?.position;
  for (let k = 1; k <= overlap; k += 1) {
    const next = work.reel.frameAt(start + k).layers[0]?.sample?.position;
    if (last && next && work.footing?.hiding(last, next)) out.push(start + k - 1);
    last = next;
  }
  return out;
}

export type ReelWorker = typeof api;
Comlink.expose(api);
