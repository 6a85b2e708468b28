import { ownActions, SiteMotion } from '@eskovan/core/action';
import type { Frame, MoveBody, Rate, ReelBody, ShotBody, ViewBody } from '@eskovan/core/document';
import { compileMove, type CompiledMove, type MoveSite } from '@eskovan/core/move';
import {
  CompiledReel,
  frameTime,
  HOLDS,
  planReel,
  shownAt,
  type OwnShot,
  type PlannedShot,
  type RayCast,
  type ReelShot,
  type ShotCamera,
  type ShotSource,
} from '@eskovan/core/reel';
import { fingerprint } from '@eskovan/core/site';
import type { Footing } from '@eskovan/core/survey';
import type { PictureLayer, ReelPicture } from '@eskovan/render';
import type { CheckOrder } from './ground.worker.ts';

/** What moves are compiled in. */
export type ReelSite = Omit<CheckOrder, 'body'>;

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

const aspectOf = ({ width, height }: Frame): number => width / height;

/** How long a move is, and whether it goes round; null while there is not enough of it. */
export type Measured = ShotSource | null;

/**
 * A reel where it is worked on: moves compiled once for each change of one, and everything that is asked of the reel kept as
 * long as what it follows from stays. One way to a camera, for the player, small pictures, checks and the film.
 */
export class ReelWork {
  private readonly moves = new Map<string, { said: string; move: CompiledMove | null }>();
  private site: { order: ReelSite; footing: Footing; motion: SiteMotion | null } | null = null;
  private order: ReelOrder | null = null;
  private compiled: CompiledReel | null = null;

  /** Takes a site; moves are compiled again where it is another one. */
  setSite(order: ReelSite, footing: Footing): void {
    const { moving, ...site } = order;
    const motion = moving && new SiteMotion({ ...moving.site, parts: site.parts }, moving.actions);
    this.site = { order, footing, motion };
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
    if (!this.site) return null;
    const { order, footing, motion } = this.site;
    const { walker, parts, aspect, limits } = order;
    const site: MoveSite = { footing, walker, parts, motion, aspect, limits };
    return compileMove(body, site);
  }

  setReel(order: ReelOrder): CompiledReel {
    this.order = order;
    const shots = order.shots.map((shot): ReelShot => ({
      id: shot.id,
      body: shot.body,
      camera: this.cameraOf(shot),
      tied: isTied(shot, this.cameraOf(shot)),
    }));
    const byId = new Map(order.shots.map((shot) => [shot.id, shot]));
    const plan = planReel(order.shots, order.rate, ({ id }) => this.sourceOf(byId.get(id)!));
    this.compiled = new CompiledReel(plan, shots, {
      whole: aspectOf(order.whole),
      ratio: aspectOf(order.ratio),
      throughout: order.body.throughout ?? false,
      alike: (a, b, timesDiffer) => byId.get(a)!.scene === byId.get(b)!.scene && !(timesDiffer && order.moving),
    });
    return this.compiled;
  }

  private cameraOf({ move, view }: OrderedShot): ShotCamera | null {
    if (view) return { kind: 'view', view };
    const compiled = move && this.moveOf(move.id, move.body);
    return compiled && { kind: 'move', move: compiled };
  }

  sourceOf({ body, move, view }: OrderedShot): ShotSource | null {
    if (body.use.kind === 'move') {
      const compiled = move && this.moveOf(move.id, move.body);
      return compiled && { duration: compiled.duration, loops: compiled.loops };
    }
    return body.use.kind === 'view' && !view ? null : HOLDS;
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
  compiledOf(index: number): CompiledMove | null {
    const move = this.given.shots[index]?.move;
    return move ? this.moveOf(move.id, move.body) : null;
  }

  siteOf(): ReelSite {
    if (!this.site) throw new Error('No site has been given yet.');
    return this.site.order;
  }

  get footing(): Footing | null {
    return this.site?.footing ?? null;
  }

  /** A shot alone, as measuring its movement needs it. */
  ownShot(index: number): OwnShot | null {
    const shot = this.given.shots[index];
    const planned = this.reel.plan.shots[index];
    return shot && planned ? { body: shot.body, planned, camera: this.cameraOf(shot) } : null;
  }

  /** What a frame shows, with everything that it is drawn from. @param frame perhaps between two, while the shutter is open */
  pictureAt(frame: number): ReelPicture {
    const { layers, veil } = this.reel.frameAt(frame);
    return {
      layers: layers.map(({ shot, sample, part }) => this.layerOf(shot, sample, part)),
      veil,
      captions: this.captionsAt(frame),
    };
  }

  private layerOf(id: string, sample: PictureSample | null, part: number): PictureLayer {
    const shot = this.given.shots.find((one) => one.id === id)!;
    const { use } = shot.body;
    if (use.kind === 'title')
      return { kind: 'card', part, title: use.title, logo: (use.title.logo && this.given.body.logo?.sha256) ?? null };
    if (use.kind === 'picture') return { kind: 'still', part, file: use.file.sha256 };
    if (!sample || shot.scene === null) return { kind: 'gone', part, name: shot.name };
    // Two instants of a move that look the same are the same picture.
    const siteTime = this.given.moving || (shot.move && ownActions(shot.move.body).length > 0) ? sample.siteTime : 0;
    return { kind: 'scene', part, scene: shot.scene, sample: { ...sample, moveTime: 0, siteTime } };
  }

  private captionsAt(frame: number): ReelPicture['captions'] {
    const shown = shownAt(this.reel.plan, frame);
    if (!shown) return [];
    const { shot, next } = shown;
    const of = (planned: PlannedShot, part: number) => {
      const caption = this.given.shots[planned.index]!.body.caption;
      return caption && part > 0 ? [{ caption, part: part * this.faded(planned, frame) }] : [];
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
    return Array.from({ length: Math.max(0, to - from) }, (_, i) => fingerprint(this.pictureAt(from + i)));
  }
}

type PictureSample = NonNullable<ReturnType<CompiledReel['cameraOf']>>;

/** Captions come and go in so long, seconds. */
const CAPTION_FADE = 0.5;

/** A camera that goes with what moves has to be at the time of its move. */
function isTied({ move }: OrderedShot, camera: ShotCamera | null): boolean {
  if (!move) return false;
  const { body } = move;
  const follows = camera?.kind === 'move' && camera.move.looks.some(({ moves }) => moves);
  return body.kind === 'ride' || follows || ownActions(body).length > 0;
}
