import { ownActions, type Movers } from '@eskovan/core/action';
import type { CoveredObject } from '@eskovan/core/check';
import {
  aspectOf,
  type Frame,
  type MoveBody,
  type PromisedObject,
  type Rate,
  type ReelBody,
  type ShotBody,
  type ViewBody,
} from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import {
  CompiledReel,
  frameTime,
  ownSource,
  planReel,
  shownAt,
  type ClipMotion,
  type Layer,
  type OwnShot,
  type PlannedShot,
  type RayCast,
  type ReelShot,
  type ShotCamera,
  type ShotSource,
} from '@eskovan/core/reel';
import { fingerprint } from '@eskovan/core/site';
import type { Footing } from '@eskovan/core/survey';
import type { PictureLayer, ReelPicture, Words } from '@eskovan/render';
import { compiledIn, readySite, type ReadySite, type SiteOrder } from './site-order.ts';

/** A shot with what it shows, as far as the page has it. */
export interface OrderedShot {
  id: string;
  name: string;
  body: ShotBody;
  /** The move that it uses, by its row; null where it uses none, or that is gone. */
  move: { id: string; body: MoveBody } | null;
  view: Pick<ViewBody, 'pose' | 'lens'> | null;
  /** Names the scene that it is seen in. */
  scene: string | null;
  /** Stands in its pictures; null for none. */
  number: number | null;
  /** How it moves by itself: of a clip that has been looked at. */
  motion: ClipMotion | null;
}

/** A reel as the page has it. */
export interface ReelOrder {
  shots: readonly OrderedShot[];
  rate: Rate;
  /** Of the project's pictures, and of the reel's. */
  whole: Frame;
  ratio: Frame;
  body: Pick<ReelBody, 'throughout' | 'logo'>;
  /** Does anything in the scenes move by itself? Then a picture is a matter of its time too. */
  moving: boolean;
}

/** A shot as it was given, and its move, compiled. */
interface ReadyShot {
  shot: OrderedShot;
  move: CompiledMove | null;
}

/** How long a move is, and whether it goes round; null while there is not enough of it. */
export type Measured = ShotSource | null;

/**
 * A reel where it is worked on: moves compiled once for each change of one, and everything that is asked of the reel kept as
 * long as what it follows from stays. One way to a camera, for the player, small pictures, checks and the film.
 */
export class ReelWork {
  private readonly moves = new Map<string, { said: string; move: CompiledMove | null }>();
  private site: ReadySite | null = null;
  private order: ReelOrder | null = null;
  private ready: ReadonlyMap<string, ReadyShot> = new Map();
  private compiled: CompiledReel | null = null;

  /** Takes a site; moves are compiled again where it is another one. */
  setSite(order: SiteOrder, footing: Footing): void {
    this.site = readySite(order, footing);
    this.moves.clear();
  }

  /** How long moves are, by their rows. */
  measure(moves: readonly { id: string; body: MoveBody }[]): Record<string, Measured> {
    return Object.fromEntries(
      moves.map(({ id, body }) => {
        const move = this.moveOf(id, body);
        return [id, move && { duration: move.duration, loops: move.loops }];
      }),
    );
  }

  private moveOf(id: string, body: MoveBody): CompiledMove | null {
    const said = JSON.stringify(body);
    const before = this.moves.get(id);
    if (before?.said === said) return before.move;
    const move = this.compile(body);
    this.moves.set(id, { said, move });
    return move;
  }

  compile(body: MoveBody): CompiledMove | null {
    return this.site && compiledIn(this.site, body);
  }

  setReel(order: ReelOrder): CompiledReel {
    this.order = order;
    // Each move is looked up once: telling whether it is still the same one reads all of it.
    const ready = order.shots.map((shot) => ({ shot, move: shot.move && this.moveOf(shot.move.id, shot.move.body) }));
    this.ready = new Map(ready.map((one) => [one.shot.id, one]));
    const shots = ready.map((one): ReelShot => ({
      id: one.shot.id,
      body: one.shot.body,
      camera: cameraOf(one),
      tied: isTied(one),
    }));
    const plan = planReel(order.shots, order.rate, ({ id }) => this.sourceOf(id));
    const sceneOf = (id: string) => this.shotOf(id).scene;
    this.compiled = new CompiledReel(plan, shots, {
      whole: aspectOf({ frame: order.whole }),
      ratio: aspectOf({ frame: order.ratio }),
      throughout: order.body.throughout ?? false,
      alike: (a, b, timesDiffer) => sceneOf(a) === sceneOf(b) && !(timesDiffer && order.moving),
    });
    return this.compiled;
  }

  private readyShot(id: string): ReadyShot {
    const one = this.ready.get(id);
    if (!one) throw new Error(`there is no shot ${id} in the reel that was given`);
    return one;
  }
  shotOf(id: string): OrderedShot {
    return this.readyShot(id).shot;
  }

  /** What a shot takes its pictures from; null where that is gone. */
  sourceOf(id: string): ShotSource | null {
    const { shot, move } = this.readyShot(id);
    if (shot.body.use.kind === 'move') return move && { duration: move.duration, loops: move.loops };
    return shot.body.use.kind === 'view' && !shot.view ? null : ownSource(shot.body.use);
  }

  get reel(): CompiledReel {
    if (!this.compiled) throw new Error('No reel has been given yet.');
    return this.compiled;
  }
  get given(): ReelOrder {
    if (!this.order) throw new Error('No reel has been given yet.');
    return this.order;
  }

  /** What rays meet; nothing while the site is not known. */
  get cast(): RayCast {
    const footing = this.site?.footing;
    return (from, direction, far) => {
      const to = from.map((value, k) => value + direction[k]! * far) as typeof from;
      return footing?.hiding(from, to)?.distance ?? null;
    };
  }
  /** The move that a shot uses; null where it uses none. */
  compiledOf(id: string): CompiledMove | null {
    return this.readyShot(id).move;
  }

  /** Objects of the site as looking for them needs them; those that are not there are left out. */
  objectsOf(wanted: readonly PromisedObject[]): CoveredObject[] {
    if (!this.site) return [];
    const { order, motion } = this.site;
    const places = motion?.places() ?? [];
    return wanted.flatMap(({ model, name }) => {
      const part = order.parts.find((one) => one.model === model && one.name === name);
      if (!part) return [];
      const group = motion?.groupOf(part) ?? -1;
      const placeAt = (siteTime: number) => {
        motion!.place(siteTime, places);
        return places[group]!;
      };
      return [{ model, name, bounds: part.bounds, ...(group >= 0 && { placeAt }) }];
    });
  }

  siteOf(): SiteOrder {
    if (!this.site) throw new Error('No site has been given yet.');
    return this.site.order;
  }

  get footing(): Footing | null {
    return this.site?.footing ?? null;
  }

  /** What moves of the site. */
  get movers(): Movers | null {
    return this.site?.movers ?? null;
  }

  /** A shot alone, as measuring its movement needs it. */
  ownShot(index: number): OwnShot | null {
    const shot = this.given.shots[index];
    const planned = this.reel.plan.shots[index];
    return shot && planned
      ? { body: shot.body, planned, camera: cameraOf(this.readyShot(shot.id)), motion: shot.motion }
      : null;
  }

  /** What a frame shows, with everything that it is drawn from. @param frame perhaps between two, while the shutter is open */
  pictureAt(frame: number): ReelPicture {
    const { layers, veil } = this.reel.frameAt(frame);
    return {
      layers: layers.map((layer) => this.layerOf(layer)),
      veil,
      words: this.wordsAt(frame),
    };
  }

  private layerOf({ shot: id, sample, part, sourceTime }: Layer): PictureLayer {
    const shot = this.shotOf(id);
    const { use } = shot.body;
    if (use.kind === 'title')
      return { kind: 'card', part, title: use.title, logo: (use.title.logo && this.given.body.logo?.sha256) ?? null };
    if (use.kind === 'picture') return { kind: 'still', part, file: use.file.sha256 };
    if (use.kind === 'clip') return { kind: 'clip', part, file: use.file.sha256, time: sourceTime };
    if (!sample || shot.scene === null) return { kind: 'gone', part, name: shot.name };
    // Two instants of a move that look the same are the same picture.
    const siteTime = this.given.moving || (shot.move && ownActions(shot.move.body).length > 0) ? sample.siteTime : 0;
    return { kind: 'scene', part, scene: shot.scene, sample: { ...sample, moveTime: 0, siteTime } };
  }

  private wordsAt(frame: number): ReelPicture['words'] {
    const shown = shownAt(this.reel.plan, frame);
    if (!shown) return [];
    const { shot, next } = shown;
    const of = (planned: PlannedShot, part: number) => {
      const { body, number } = this.given.shots[planned.index]!;
      const words: Words[] = [
        ...(body.caption ? [body.caption] : []),
        ...(number === null ? [] : [{ text: String(number), place: 'corner' as const }]),
      ];
      return part > 0 ? words.map((one) => ({ words: one, part: part * this.faded(planned, frame) })) : [];
    };
    return [...of(shot, 1 - (next?.part ?? 0)), ...(next ? of(next.shot, next.part) : [])];
  }

  /** Words come and go in a moment. */
  private faded({ start, frames }: PlannedShot, frame: number): number {
    const { rate } = this.reel.plan;
    const [since, until] = [frameTime(frame - start, rate), frameTime(start + frames - 1 - frame, rate)];
    return Math.min(1, Math.max(0, (Math.min(since, until) + CAPTION_FADE / 6) / CAPTION_FADE));
  }

  /** Names of what each frame shows: equal for equal pictures. */
  keysOf(from: number, to: number): string[] {
    return Array.from({ length: Math.max(0, to - from) }, (_, i) => this.nameOf(this.pictureAt(from + i)));
  }

  /** The name of what a frame shows. A card fills its picture, whatever that is. */
  nameOf = (picture: ReelPicture): string => fingerprint([picture, aspectOf({ frame: this.given.ratio }).toFixed(6)]);
}

/** Captions come and go in so long, seconds. */
const CAPTION_FADE = 0.5;

function cameraOf({ shot, move }: ReadyShot): ShotCamera | null {
  if (shot.view) return { kind: 'view', view: shot.view };
  return move && { kind: 'move', move };
}

/** A camera that goes with what moves has to be at the time of its move. */
function isTied({ shot, move }: ReadyShot): boolean {
  if (!shot.move) return false;
  const { body } = shot.move;
  return body.kind === 'ride' || (move?.looks ?? []).some(({ moves }) => moves) || ownActions(body).length > 0;
}
