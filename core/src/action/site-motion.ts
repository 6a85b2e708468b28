import { Matrix4 } from 'three';
import { isWithin, type Bounds } from '../document/index.ts';
import type { SceneModel, SceneMovement, ScenePart } from '../format/index.ts';
import { boundsOf, cornersOf, joinBounds, planBoxOf, type PlanBox } from '../geometry/index.ts';
import { driveOf, inOrder, presenceOf, type Drive } from './driven.ts';
import { JointMotion, type MovementAt } from './joints.ts';
import { timeWithin, type DrivenAction, type SiteAction } from './site-action.ts';

/** A part, as far as moving it needs: its bounds, and what of it sticks out, may be known without its geometry. */
export type MovablePart = Pick<ScenePart, 'model' | 'name' | 'joint'> &
  ({ positions: Float32Array } | { bounds: Bounds; outline?: Float32Array });

/** What of a site can move. */
export interface MovableSite extends Pick<SceneModel, 'joints' | 'movements'> {
  parts: readonly MovablePart[];
}

type Recorded = Extract<SiteAction, { kind: 'recorded' }>;

/** Parts that move as one. */
interface MovingGroup {
  /** The moved joint that carries them, or null. */
  joint: number | null;
  /** What drives them, from the innermost out: indices into the drives. */
  driven: readonly number[];
}

/**
 * What the actions of a site do to its parts. Parts that always move together are one group; whatever stands still
 * is in none.
 */
export class SiteMotion {
  private readonly playing: { action: Recorded; movement: SceneMovement }[];
  private readonly drives: { action: DrivenAction; drive: Drive; matrix: Matrix4 }[];
  /** What fades, by the drive that it belongs to. */
  private readonly fades = new Map<number, (time: number) => number>();
  private readonly parents: readonly (number | null)[];
  private readonly moved: ReadonlySet<number>;
  private readonly joints: JointMotion;
  private readonly carried: Matrix4[];
  private readonly groups: MovingGroup[] = [];
  private readonly known = new Map<string, number>();
  private readonly now: MovementAt[];

  constructor(site: MovableSite, actions: readonly SiteAction[]) {
    const joints = site.joints ?? [];
    this.parents = joints.map(({ parent }) => parent);
    this.playing = actions.flatMap((action) => {
      if (action.kind !== 'recorded') return [];
      const movement = site.movements?.find(({ model, name }) => model === action.model && name === action.movement);
      return movement ? [{ action, movement }] : [];
    });
    this.now = this.playing.map(({ movement }) => ({ movement, time: 0 }));
    this.moved = new Set(this.playing.flatMap(({ movement }) => movement.tracks.map(({ joint }) => joint)));
    this.joints = new JointMotion(joints);
    this.carried = joints.map(() => new Matrix4());
    this.drives = actions.flatMap(eachAlone(site.parts)).flatMap((action) => {
      if (action.kind === 'recorded' || action.kind === 'dim') return [];
      const parts = partsMeant(site.parts, action);
      const bounds = joinBounds(parts.map(extentOf));
      const drive = bounds && driveOf(action, bounds, () => planBoxOf(parts.flatMap((part) => [...pointsOf(part)])));
      return drive ? [{ action, drive, matrix: new Matrix4() }] : [];
    });
    this.drives.forEach(({ action }, i) => {
      if (action.kind === 'appear' && action.how === 'fades') this.fades.set(i, presenceOf(action));
    });
    if (this.playing.length > 0 || this.drives.length > 0) for (const part of site.parts) this.enter(part);
  }

  /** Says which parts move together: equal for actions that differ only in when, how fast and about which axis. */
  get layout(): string {
    const playing = this.playing.map(({ action }) => [action.model, action.movement]);
    const driven = this.drives.map(({ action }) => [action.model, action.part]);
    const held = this.groups.map((_, group) => this.keepsLight(group));
    return JSON.stringify([[...this.known.keys()], playing, driven, held]);
  }

  /** How many groups there are. */
  get count(): number {
    return this.groups.length;
  }

  /** The group that a part moves with; −1 where it stands still. */
  groupOf(part: Pick<ScenePart, 'model' | 'name' | 'joint'>): number {
    return this.count === 0 ? -1 : (this.known.get(this.keyOf(this.describe(part))) ?? -1);
  }

  /** Does the light of a group go with it, as if the eye went round it instead? Else it is lit where it is. */
  keepsLight(group: number): boolean {
    const driven = this.groups[group]?.driven ?? [];
    return driven.map((i) => this.drives[i]!.action).some((one) => one.kind === 'turntable' && one.lightTurns);
  }

  /** The group of a part that is lit where it moves to; −1 for what stands still, or takes its light along. */
  litGroupOf(part: Parameters<SiteMotion['groupOf']>[0]): number {
    const group = this.groupOf(part);
    return group >= 0 && !this.keepsLight(group) ? group : -1;
  }

  /** Room for what {@link place} fills. */
  places(): Matrix4[] {
    return this.groups.map(() => new Matrix4());
  }

  /**
   * Fills `out`, one matrix a group, with what takes a point of the group from where it rests to where it is.
   * @param time seconds into the move
   */
  place(time: number, out: readonly Matrix4[]): void {
    if (this.count === 0) return;
    this.playing.forEach(({ action, movement }, i) => {
      this.now[i]!.time = timeWithin(action, movement.duration, time);
    });
    this.joints.moves(this.now, this.carried);
    for (const { drive, matrix } of this.drives) drive(time, matrix);
    this.groups.forEach(({ joint, driven }, i) => {
      const matrix = out[i]!;
      if (joint === null) matrix.identity();
      else matrix.copy(this.carried[joint]!);
      // The first one is the innermost: it is the last to be multiplied on.
      for (let k = driven.length - 1; k >= 0; k -= 1) matrix.multiply(this.drives[driven[k]!]!.matrix);
    });
  }

  /**
   * How much of each group is there, 0…1: what fades is there in part. Null where everything is there or not, as its place
   * says: most of the time, and wherever nothing fades.
   * @param time seconds into the move
   */
  presences(time: number): number[] | null {
    if (this.fades.size === 0) return null;
    const now = new Map([...this.fades].map(([i, presence]) => [i, presence(time)]));
    if ([...now.values()].every((part) => part === 0 || part === 1)) return null;
    return this.groups.map(({ driven }) => driven.reduce((part, i) => part * (now.get(i) ?? 1), 1));
  }

  private enter(part: MovablePart): void {
    const group = this.describe(part);
    const key = this.keyOf(group);
    if ((group.joint === null && group.driven.length === 0) || this.known.has(key)) return;
    this.known.set(key, this.groups.push(group) - 1);
  }

  private describe({ model, name, joint }: Pick<ScenePart, 'model' | 'name' | 'joint'>): MovingGroup {
    let carrier = joint ?? null;
    while (carrier !== null && !this.moved.has(carrier)) carrier = this.parents[carrier]!;
    const driven = this.drives
      .map(({ action }, i) => ({ action, i }))
      .filter(({ action }) => meant({ model, name }, action))
      // A part turns within its group, not the group within the part.
      .sort((a, b) => (b.action.part?.length ?? 0) - (a.action.part?.length ?? 0))
      .map(({ i }) => i);
    return { joint: carrier, driven };
  }

  private keyOf = ({ joint, driven }: MovingGroup): string => `${joint}|${driven.join()}`;
}

/** What several parts do for themselves, one by one. */
const eachAlone =
  (parts: readonly MovablePart[]) =>
  (action: SiteAction): SiteAction[] => {
    if (action.kind !== 'appear' || (!action.inOrder && action.how !== 'grows')) return [action];
    const theirs = parts
      .filter((part) => meant(part, action))
      .map((part) => ({ name: part.name, low: extentOf(part).min[1] }));
    // Each of them is drawn by itself: too many do it together.
    if (theirs.length > MOST_ALONE) return [action];
    const { start, seconds } = action;
    return inOrder(action, theirs).map((one) => (action.inOrder ? one : { ...one, start, seconds }));
  };

/** So many parts at most do something each for itself. */
export const MOST_ALONE = 200;

const extentOf = (part: MovablePart): Bounds => ('bounds' in part ? part.bounds : boundsOf(part.positions));

/** What of a part sticks out, three numbers a point. */
const pointsOf = (part: MovablePart): ArrayLike<number> & Iterable<number> =>
  'bounds' in part ? (part.outline ?? cornersOf(part.bounds).flat()) : part.positions;

/** The upright box about a part, turned as it is. */
export const planBoxOfPart = (part: MovablePart): PlanBox => planBoxOf(pointsOf(part));

/** Is a part one of those that an action means? */
const meant = ({ model, name }: Pick<MovablePart, 'model' | 'name'>, action: DrivenAction) =>
  model === action.model && (action.part === null || isWithin(name, action.part));

/**
 * The parts whose extent is that of an action. A leaf hangs by its own edge, and a subject turns about its own middle, whatever
 * else is on them.
 */
function partsMeant(parts: readonly MovablePart[], action: DrivenAction): MovablePart[] {
  const all = parts.filter((part) => meant(part, action));
  const own = action.kind === 'spin' ? [] : all.filter(({ name }) => name === action.part);
  return own.length > 0 ? own : all;
}
