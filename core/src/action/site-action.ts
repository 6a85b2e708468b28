import { Matrix4, Vector3 } from 'three';
import type { ActionBody, ModelBody, RecordedAction, Repeat, SpinAction, Vec3 } from '../document/index.ts';
import { placementMatrix } from '../site/index.ts';

/** An action with its model in its place: axes are unit vectors in the site's axes. */
export type SiteAction = RecordedAction | SpinAction;

/** The actions of those models that are shown, in their order, as the site needs them. */
export function placeActions(
  actions: readonly ActionBody[],
  models: readonly { id: string; body: Pick<ModelBody, 'placement' | 'hidden'> }[],
): SiteAction[] {
  return actions.flatMap((action): SiteAction[] => {
    const model = models.find(({ id }) => id === action.model);
    if (!model || model.body.hidden) return [];
    if (action.kind !== 'spin') return [action];
    const turn = new Matrix4().extractRotation(placementMatrix(model.body.placement));
    const axis = new Vector3(...action.axis).normalize().applyMatrix4(turn).toArray() as Vec3;
    return [{ ...action, axis }];
  });
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
