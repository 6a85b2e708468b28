import { FIRST_OPENING, isOvershadowed, MOST_ALONE, MOST_DIMMERS, placeActions } from '@eskovan/core/action';
import {
  ownName,
  isWithin,
  type ActionBody,
  type ModelBody,
  type PartPath,
  type Path,
  type ProjectDocument,
  type Row,
  type UpAxis,
  type Vec3,
} from '@eskovan/core/document';
import { selection } from '../../desk/selection.ts';
import type { PartInfo } from '../../worker/parts.ts';
import { makeAction } from '../shared/make-action.ts';

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

const create = (...made: Parameters<typeof makeAction>): void => selection.chooseRow('action', makeAction(...made));

/** Lets a part turn about its own middle. */
export function addSpin(document: ProjectDocument, { model, name }: PartPath, up: UpAxis): void {
  const own = ownName(name);
  create(document, `Spin ${own}`, own, {
    kind: 'spin',
    model,
    start: 0,
    part: name.slice(0, 500),
    axis: axisOf('Upright', up),
    rate: (2 * Math.PI) / FIRST_TURN,
  });
}

/** A part that goes along a path takes so long, seconds. */
const FIRST_WAY = 10;

/** Lets a part open about an upright edge of its own. */
export function addHinge(document: ProjectDocument, { model, name }: PartPath): void {
  const own = ownName(name);
  create(document, `Open ${own}`, own, {
    kind: 'hinge',
    model,
    start: 0,
    part: name.slice(0, 500),
    end: 'low',
    ...FIRST_OPENING,
    shape: 'ease both',
    repeat: 'once',
  });
}

/**
 * Lets a part go along the path of a move, brought to where the part rests.
 * @param middle of the part, metres
 */
export function addAlong(document: ProjectDocument, { model, name }: PartPath, path: Path, middle: Vec3): void {
  const own = ownName(name);
  create(document, `Send ${own} along a path`, own, {
    kind: 'along',
    model,
    start: 0,
    part: name.slice(0, 500),
    path: broughtTo(path, middle),
    faces: true,
    seconds: FIRST_WAY,
    shape: 'ease both',
    repeat: 'once',
  });
}

/** A path that begins at a place; its nodes are its own. */
function broughtTo(path: Path, [x, y, z]: Vec3): Path {
  const [first] = path.nodes;
  if (!first) return path;
  const [dx, dy, dz] = [x - first.x, y - first.y, z - first.z];
  return {
    ...path,
    nodes: path.nodes.map(({ surface: _, ...node }) => ({
      ...node,
      id: crypto.randomUUID(),
      x: node.x + dx,
      y: node.y + dy,
      z: node.z + dz,
    })),
  };
}

/** Something appears in this time, one part after another, seconds. */
const FIRST_APPEARING = 3;

/** Lets a part, or a group of parts in order, appear. */
export function addAppear(document: ProjectDocument, { model, name }: PartPath, several: boolean): void {
  const own = ownName(name);
  create(document, `Let ${own} appear`, own, {
    kind: 'appear',
    model,
    start: 1,
    part: name.slice(0, 500),
    how: 'grows',
    ...(several && { inOrder: true as const }),
    seconds: FIRST_APPEARING,
    shape: 'ease both',
  });
}

/** A lamp dims in this time to this part of its light, seconds. */
const FIRST_DIMMING = { start: 2, seconds: 3, from: 1, to: 0.2 };

/** Lets a lamp, or a group of them, dim. */
export function addDim(document: ProjectDocument, { model, name }: PartPath): void {
  const own = ownName(name);
  create(document, `Dim ${own}`, own, {
    kind: 'dim',
    model,
    part: name.slice(0, 500),
    ...FIRST_DIMMING,
    shape: 'ease both',
    repeat: 'once',
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

/**
 * Why an action does nothing just now, in plain words; null where it works.
 * @param all actions of the project
 */
export function faultOf(
  body: ActionBody,
  models: readonly Row<'model'>[],
  parts: readonly PartInfo[],
  all: readonly ActionBody[],
): string | null {
  const model = models.find(({ id }) => id === body.model);
  if (!model) return 'Its model is not in the project any more.';
  if (model.body.hidden) return 'Its model is hidden.';
  if (body.kind === 'recorded')
    return model.body.movements.some(({ name }) => name === body.movement)
      ? null
      : `“${model.body.fileName}” has no movement “${body.movement}” any more. Delete this, or bring a file that has it.`;
  const own = parts.filter((part) => part.model === body.model && isWithin(part.name, body.part));
  if (body.kind === 'appear' && own.length > MOST_ALONE)
    return `“${body.part}” has ${own.length.toLocaleString('en')} parts: more than ${MOST_ALONE} appear together, not one by one.`;
  if (body.kind === 'dim') {
    if (own.length > 0 && !own.some(glows)) return `Nothing in “${body.part}” gives off light.`;
    if (!body.off && isOvershadowed(body, placeActions(all, models)))
      return `Another action dims these lamps, or a group that they belong to; or there are more than ${MOST_DIMMERS} groups of lamps that dim.`;
  }
  // Parts are listed a moment later than the rest.
  const known = parts.length === 0 || own.length > 0;
  return known ? null : `“${model.body.fileName}” has no part “${body.part}” any more.`;
}

/** Does a part give off light? */
export const glows = ({ materials }: PartInfo): boolean => materials.some((material) => material.glows);

/** A look at movements lasts at least so long, seconds: something that spins has no end. */
const LEAST = 10;

/** Seconds until the last action has come to its end. */
export function playLength(actions: readonly Row<'action'>[], models: readonly Row<'model'>[]): number {
  const ends = actions.map(({ body }) => {
    if (body.kind === 'spin') return body.start + (body.turn?.seconds ?? 0);
    if (body.kind === 'appear') return body.start + body.seconds;
    if (body.kind !== 'recorded') return body.start + (body.repeat === 'to and fro' ? 2 : 1) * body.seconds;
    const movement = models
      .find(({ id }) => id === body.model)
      ?.body.movements.find(({ name }) => name === body.movement);
    const once = (movement?.duration ?? 0) / body.speed;
    return body.start + (body.repeat === 'to and fro' ? 2 * once : once);
  });
  return Math.max(LEAST, ...ends);
}
