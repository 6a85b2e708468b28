import { joinCovers, shotCover, type CoveredStorey, type RoomCover } from '@eskovan/core/check';
import {
  cutNotes,
  flowAtFrame,
  flowOverJoin,
  frameTime,
  matchJoin,
  planReel,
  sampleShot,
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
import { evenPaced } from '@eskovan/core/move';
import { fetchBytes } from './load-scene.ts';
import { ReelWork, type Measured, type OrderedShot, type ReelOrder, type ReelSite } from './reel-work.ts';
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

/** The flow line is asked so often, seconds; of long shots more seldom. */
const FLOW_STEP = 0.25;
const MOST_FLOW = 160;

const work = new ReelWork();
let footing: { url: string; loading: Promise<Footing> } | null = null;

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
const covers = new Kept<RoomCover[]>();

const measureNow = (): FlowMeasure => ({
  rate: work.given.rate,
  aspect: work.given.whole.width / work.given.whole.height,
  cast: work.cast,
});

/** What the camera of a shot follows from. */
const saidOf = (index: number) => {
  const { move, view, body } = work.given.shots[index]!;
  const { from, to, backwards, speed, frames } = work.reel.plan.shots[index]!;
  return [move?.body ?? null, view, body.use, from, to, backwards, speed, frames, work.given.rate];
};

const api = {
  /** Takes the site that moves are in. */
  async setSite(site: ReelSite): Promise<void> {
    if (footing?.url !== site.floorUrl) {
      const loading = fetchBytes(site.floorUrl).then(unpackFooting);
      footing = { url: site.floorUrl, loading };
      loading.catch(() => (footing = null));
    }
    work.setSite(site, await footing.loading);
    // The same moves may be others in another site.
    for (const kept of [flows, joins, keys, covers]) kept.clear();
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
      return { key: fingerprint(picture), picture };
    }),

  /** Names of all frames. Shots whose frames are the same as before are not looked at again. */
  keys(): string[] {
    const { plan } = work.reel;
    const { body, moving, ratio, shots } = work.given;
    const out: string[] = [];
    plan.shots.forEach((planned, i) => {
      const after = plan.shots[i + 1];
      const end = planned.start + planned.frames;
      const first = i === 0 ? planned.start : planned.start + planned.overlap;
      const neighbours = [i - 1, i + 1]
        .filter((k) => shots[k])
        .map((k) => [saidOf(k), shots[k]!.scene, shots[k]!.body, plan.shots[k]!.overlap, plan.shots[k]!.join]);
      // Where time runs through the whole reel, a picture is also a matter of when it is.
      const when = body.throughout ? planned.start : 0;
      const said = [
        saidOf(i),
        shots[i]!.scene,
        shots[i]!.body,
        planned.overlap,
        planned.join,
        after?.overlap ?? 0,
        neighbours,
        body,
        moving,
        ratio,
        when,
      ];
      out.push(...keys.of(said, () => work.keysOf(first, end)));
    });
    keys.round();
    return out;
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
    const byId = new Map(work.given.shots.map((shot) => [shot.id, shot]));
    return matchJoin({
      before,
      after,
      outer: { before: work.ownShot(index - 2), after: work.ownShot(index + 1) },
      sourceOf: (id) => work.sourceOf(byId.get(id)!),
      measure: measureNow(),
      keepLength,
      evenPaced: (shot) => evenly(shot, byId.get(shot.planned.id)!),
    });
  },

  /** How long each room is seen in the whole reel; null while the site is not known. */
  cover(storeys: readonly CoveredStorey[]): RoomCover[] | null {
    const { footing: ground } = work;
    if (!ground) return null;
    const { plan } = work.reel;
    const { aspect } = measureNow();
    const seen = plan.shots.map((planned, i) => {
      const seconds = frameTime(planned.frames, plan.rate);
      const cover = covers.of([saidOf(i), storeys, footing?.url], () => {
        const shot = work.ownShot(i)!;
        const { camera } = shot;
        if (!camera) return [];
        const sampleAt = (at: number) => sampleShot(shot.body, planned, camera, at, plan.rate);
        return shotCover({ duration: seconds, sampleAt }, ground, storeys, aspect);
      });
      return { start: frameTime(planned.start, plan.rate), cover };
    });
    covers.round();
    return joinCovers(seen);
  },

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

/** A shot whose move goes at one pace all the way. */
function evenly(shot: OwnShot, { id, body, move }: OrderedShot): OwnShot | null {
  const paced = move && evenPaced(move.body);
  const compiled = paced && work.compile(paced);
  if (!compiled) return null;
  const [planned] = planReel([{ id, body }], work.given.rate, () => compiled).shots;
  const { overlap, start, index, join } = shot.planned;
  return { body, camera: { kind: 'move', move: compiled }, planned: { ...planned!, overlap, start, index, join } };
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
