import { Matrix4, Vector3 } from 'three';
import { isWithin, type Bounds } from '../document/index.ts';
import type { SceneModel, SceneMovement, ScenePart } from '../format/index.ts';
import { boundsOf, joinBounds, middle } from '../geometry/index.ts';
import { JointMotion, type MovementAt } from './joints.ts';
import { timeWithin, type SiteAction } from './site-action.ts';

/** A part, as far as moving it needs: its bounds may be known without its geometry. */
export type MovablePart = Pick<ScenePart, 'model' | 'name' | 'joint'> &
  ({ positions: Float32Array } | { bounds: Bounds });

/** What of a site can move. */
export interface MovableSite extends Pick<SceneModel, 'joints' | 'movements'> {
  parts: readonly MovablePart[];
}

type Recorded = Extract<SiteAction, { kind: 'recorded' }>;
type Spin = Extract<SiteAction, { kind: 'spin' }>;

/** Parts that move as one. */
interface MovingGroup {
  /** The moved joint that carries them, or null. */
  joint: number | null;
  /** Spins that they take part in, from the innermost out: indices into the spins. */
  spins: readonly number[];
}

/**
 * What the actions of a site do to its parts. Parts that always move together are one group; whatever stands still
 * is in none. Light and shadows that were baked stay as they were at rest.
 */
export class SiteMotion {
  private readonly playing: { action: Recorded; movement: SceneMovement }[];
  private readonly spins: { action: Spin; centre: Vector3; matrix: Matrix4 }[];
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
    this.spins = actions.flatMap((action) => {
      const centre = action.kind === 'spin' ? middleOf(site.parts, action) : null;
      return action.kind === 'spin' && centre ? [{ action, centre, matrix: new Matrix4() }] : [];
    });
    if (this.playing.length > 0 || this.spins.length > 0) for (const part of site.parts) this.enter(part);
  }

  /** Says which parts move together: equal for actions that differ only in when, how fast and about which axis. */
  get layout(): string {
    const playing = this.playing.map(({ action }) => [action.model, action.movement]);
    const spins = this.spins.map(({ action }) => [action.model, action.part]);
    return JSON.stringify([[...this.known.keys()], playing, spins]);
  }

  /** How many groups there are. */
  get count(): number {
    return this.groups.length;
  }

  /** The group that a part moves with; −1 where it stands still. */
  groupOf(part: Pick<ScenePart, 'model' | 'name' | 'joint'>): number {
    return this.count === 0 ? -1 : (this.known.get(this.keyOf(this.describe(part))) ?? -1);
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
    for (const { action, centre, matrix } of this.spins) {
      axis.fromArray(action.axis);
      matrix.makeRotationAxis(axis, action.rate * Math.max(0, time - action.start));
      // Turns about the centre: what the turn alone would do to the centre is taken back.
      matrix.setPosition(point.copy(centre).applyMatrix4(matrix).negate().add(centre));
    }
    this.groups.forEach(({ joint, spins }, i) => {
      const matrix = out[i]!;
      if (joint === null) matrix.identity();
      else matrix.copy(this.carried[joint]!);
      // The first spin is the innermost: it is the last to be multiplied on.
      for (let k = spins.length - 1; k >= 0; k -= 1) matrix.multiply(this.spins[spins[k]!]!.matrix);
    });
  }

  private enter(part: MovablePart): void {
    const group = this.describe(part);
    const key = this.keyOf(group);
    if ((group.joint === null && group.spins.length === 0) || this.known.has(key)) return;
    this.known.set(key, this.groups.push(group) - 1);
  }

  private describe({ model, name, joint }: Pick<ScenePart, 'model' | 'name' | 'joint'>): MovingGroup {
    let carrier = joint ?? null;
    while (carrier !== null && !this.moved.has(carrier)) carrier = this.parents[carrier]!;
    const spins = this.spins
      .map(({ action }, i) => ({ action, i }))
      .filter(({ action }) => action.model === model && isWithin(name, action.part))
      // A part turns within its group, not the group within the part.
      .sort((a, b) => b.action.part.length - a.action.part.length)
      .map(({ i }) => i);
    return { joint: carrier, spins };
  }

  private keyOf = ({ joint, spins }: MovingGroup): string => `${joint}|${spins.join()}`;
}

const axis = new Vector3();
const point = new Vector3();

/** Middle of the parts that an action means; null where there are none. */
function middleOf(parts: readonly MovablePart[], { model, part }: Spin): Vector3 | null {
  const meant = parts.filter((one) => one.model === model && isWithin(one.name, part));
  const bounds = joinBounds(meant.map((one) => ('bounds' in one ? one.bounds : boundsOf(one.positions))));
  return bounds && new Vector3(...middle(bounds));
}
