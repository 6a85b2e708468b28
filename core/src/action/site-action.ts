import { Matrix4, Vector3 } from 'three';
import type {
  ActionBody,
  AlongAction,
  AppearAction,
  DimAction,
  HingeAction,
  ModelBody,
  MoveBody,
  RecordedAction,
  Repeat,
  SpinAction,
  Vec3,
} from '../document/index.ts';
import { placementMatrix } from '../site/index.ts';
import type { Turning } from './turning.ts';

/** What turns before a camera instead of the camera going round it: derived from an orbit, never kept. */
export interface TurntableAction {
  kind: 'turntable';
  model: string;
  /** Null for the whole model. */
  part: string | null;
  turning: Turning;
  /** Its light turns along. */
  lightTurns: boolean;
}

/** An action that our own computation drives, in the site's axes. */
export type DrivenAction = SpinAction | HingeAction | AlongAction | AppearAction | TurntableAction;

/** An action with its model in its place: axes are unit vectors in the site's axes. */
export type SiteAction = RecordedAction | DrivenAction | DimAction;

/** The actions of those models that are shown, in their order, as the site needs them. */
export function placeActions(
  actions: readonly ActionBody[],
  models: readonly { id: string; body: Pick<ModelBody, 'placement' | 'hidden'> }[],
): SiteAction[] {
  return actions.flatMap((action): SiteAction[] => {
    const model = models.find(({ id }) => id === action.model);
    if (!model || model.body.hidden || action.off) return [];
    if (action.kind !== 'spin') return [action];
    const turn = new Matrix4().extractRotation(placementMatrix(model.body.placement));
    const axis = new Vector3(...action.axis).normalize().applyMatrix4(turn).toArray() as Vec3;
    return [{ ...action, axis }];
  });
}

/** What a move makes of the site besides the project's actions: its subject turns, where it is to. */
export function ownActions(body: MoveBody): SiteAction[] {
  if (body.kind !== 'orbit' || body.turns !== 'subject' || body.pivot.kind !== 'object') return [];
  const { model, name, whole } = body.pivot;
  const { sweep, duration, shape, carry, stops, swings, lightStands } = body;
  const turning = { sweep, duration, shape, carry, stops, swings };
  return [{ kind: 'turntable', model, part: whole ? null : name, turning, lightTurns: !lightStands }];
}

/**
 * Where in a movement one is.
 * @param time seconds into the move
 * @param duration of the movement, seconds
 */
export function timeWithin(
  { start, speed, repeat }: { start: number; speed: number; repeat: Repeat },
  duration: number,
  time: number,
): number {
  const gone = Math.max(0, time - start) * speed;
  if (repeat === 'once' || duration <= 0) return Math.min(gone, duration);
  if (repeat === 'again') return gone % duration;
  const there = gone % (2 * duration);
  return there <= duration ? there : 2 * duration - there;
}

/** Does an action move anything, or let it come or go? Lamps stay where they are. */
export const movesParts = ({ kind }: SiteAction): boolean => kind !== 'dim';
