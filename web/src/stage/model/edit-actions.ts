import {
  isWithin,
  type ActionBody,
  type ModelBody,
  type PartPath,
  type ProjectDocument,
  type Row,
  type UpAxis,
  type Vec3,
} from '@eskovan/core/document';
import { makeRow } from '../../data/edit-row.ts';
import { selection } from '../../desk/selection.ts';
import { orderAfter } from '../../data/order.ts';
import { liveRows } from '../../data/changes.ts';
import type { PartInfo } from '../../worker/parts.ts';

/** Ways for an axis to lie, in the coordinates of a model whose `up` axis stands. */
export const AXES = ['Upright', 'Across', 'Along'] as const;
export type AxisName = (typeof AXES)[number];

export function axisOf(name: AxisName, up: UpAxis): Vec3 {
  if (name === 'Across') return [1, 0, 0];
  return (name === 'Upright') === (up === 'y') ? [0, 1, 0] : [0, 0, 1];
}

/** The way that an axis lies; null where it lies askew. */
export const axisName = (axis: Vec3, up: UpAxis): AxisName | null =>
  AXES.find((name) => axisOf(name, up).every((value, k) => Math.abs(value - axis[k]! / Math.hypot(...axis)) < 1e-6)) ??
  null;

/** A new spinning part makes a turn in this time, seconds. */
const FIRST_TURN = 8;

function create({ project, action }: ProjectDocument, label: string, name: string, body: ActionBody): void {
  const order = orderAfter(liveRows(action));
  selection.chooseRow('action', makeRow('action', project.id, label, { name, order, body }));
}

/** Lets a part turn about its own middle. */
export function addSpin(document: ProjectDocument, { model, name }: PartPath, up: UpAxis): void {
  const own = name.split(' / ').at(-1)!;
  create(document, `Spin ${own}`, own, {
    kind: 'spin',
    model,
    start: 0,
    part: name.slice(0, 500),
    axis: axisOf('Upright', up),
    rate: (2 * Math.PI) / FIRST_TURN,
  });
}

/** Uses a movement that came with a model's file. */
export function addMovement(document: ProjectDocument, model: string, movement: string): void {
  create(document, `Use ${movement}`, movement, {
    kind: 'recorded',
    model,
    start: 0,
    movement,
    speed: 1,
    repeat: 'once',
  });
}

export interface Offer {
  model: string;
  movement: ModelBody['movements'][number];
}

/** Movements of the shown models that no action uses. */
export function unusedMovements(actions: readonly Row<'action'>[], models: readonly Row<'model'>[]): Offer[] {
  const used = new Set(
    actions.map(({ body }) => (body.kind === 'recorded' ? `${body.model}\n${body.movement}` : undefined)),
  );
  return models
    .filter(({ body }) => !body.hidden)
    .flatMap(({ id, body }) => body.movements.map((movement) => ({ model: id, movement })))
    .filter(({ model, movement }) => !used.has(`${model}\n${movement.name}`));
}

/** Why an action does nothing just now, in plain words; null where it works. */
export function faultOf(body: ActionBody, models: readonly Row<'model'>[], parts: readonly PartInfo[]): string | null {
  const model = models.find(({ id }) => id === body.model);
  if (!model) return 'Its model is not in the project any more.';
  if (model.body.hidden) return 'Its model is hidden.';
  if (body.kind === 'recorded')
    return model.body.movements.some(({ name }) => name === body.movement)
      ? null
      : `“${model.body.fileName}” has no movement “${body.movement}” any more. Delete this, or bring a file that has it.`;
  // Parts are listed a moment later than the rest.
  const known = parts.length === 0 || parts.some((part) => part.model === body.model && isWithin(part.name, body.part));
  return known ? null : `“${model.body.fileName}” has no part “${body.part}” any more.`;
}

/** A look at movements lasts at least so long, seconds: something that spins has no end. */
const LEAST = 10;

/** Seconds until the last action has come to its end. */
export function playLength(actions: readonly Row<'action'>[], models: readonly Row<'model'>[]): number {
  const ends = actions.map(({ body }) => {
    if (body.kind === 'spin') return body.start;
    const movement = models
      .find(({ id }) => id === body.model)
      ?.body.movements.find(({ name }) => name === body.movement);
    const once = (movement?.duration ?? 0) / body.speed;
    return body.start + (body.repeat === 'to and fro' ? 2 * once : once);
  });
  return Math.max(LEAST, ...ends);
}
