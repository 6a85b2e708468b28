import {
  hasStretch,
  type BodyOf,
  type Change,
  type Join,
  type ProjectDocument,
  type Row,
  type ShotBody,
  type ShotUse,
} from '@eskovan/core/document';
import {
  atItsPace,
  reversed,
  rolled,
  slipped,
  splitRoom,
  splitShot,
  stretchedTo,
  trimEnd,
  trimStart,
  within,
  type EditedShot,
} from '@eskovan/core/reel';
import { queryClient, currentRow, projectKey } from '../../data/edits.ts';
import { changing, liveRows, making, removing } from '../../data/changes.ts';
import { makeRow } from '../../data/edit-row.ts';
import { orderAfter, orderBetween } from '../../data/order.ts';
import { dispatch } from '../../data/undo.ts';
import { selection, type How } from '../../desk/selection.ts';
import { editedShot, openReel, type OpenReel } from './open-reel.ts';
import { reelDesk } from './reel-desk.ts';

/** The reel as it is at this instant, all edits so far included: what the next edit must build on. */
export function reelNow({ row: { projectId, id } }: Pick<OpenReel, 'row'>): OpenReel | null {
  const document = queryClient.getQueryData<ProjectDocument>(projectKey(projectId));
  const row = currentRow(projectId, 'reel', id);
  return document && row && row.deleted === null ? openReel(document, row) : null;
}

/** Makes a reel and shows it. @param body what is known of it */
export function makeReel(document: ProjectDocument, name: string, body: BodyOf<'reel'> = {}): string {
  const reels = liveRows(document.reel);
  const id = makeRow('reel', document.project.id, `New reel ${name}`, { name, order: orderAfter(reels), body });
  selection.chooseRow('reel', id);
  return id;
}

export interface NewShot {
  name: string;
  use: ShotUse;
  /** seconds */
  seconds?: number;
}

/** Puts shots into a reel. @param at before the shot at this place; absent: after the last */
export function addShots(open: OpenReel, added: readonly NewShot[], at?: number): void {
  const now = reelNow(open);
  if (!now || added.length === 0) return;
  const orders = ordersAt(now.shots, at ?? now.shots.length, added.length);
  const ids = added.map(() => crypto.randomUUID());
  const changes = added.map(({ name, use, seconds }, i) =>
    making('shot', {
      id: ids[i]!,
      name,
      order: orders[i]!,
      body: { reel: open.row.id, use, ...(seconds !== undefined && { seconds }) },
    }),
  );
  const label = added.length === 1 ? `Bring in ${added[0]!.name}` : `Bring in ${added.length} shots`;
  dispatch(open.row.projectId, label, changes);
  chooseShot(ids.at(-1)!);
}

/** Order numbers for so many rows before the one at a place. */
function ordersAt(rows: readonly { order: number }[], at: number, count: number): number[] {
  const [before, after] = [rows[at - 1]?.order, rows[at]?.order];
  const from = before ?? (after ?? 1) - count - 1;
  const step = after === undefined ? 1 : (after - from) / (count + 1);
  return Array.from({ length: count }, (_, i) => from + step * (i + 1));
}

export function chooseShot(id: string | null, how: How = 'only', order: readonly string[] = []): void {
  reelDesk.set({ join: null });
  selection.chooseRow('shot', id, how, order);
}

const shotRows = (now: OpenReel, ids: readonly string[]) => now.shots.filter(({ id }) => ids.includes(id));
const about = (rows: readonly Row<'shot'>[]) => (rows.length === 1 ? rows[0]!.name : `${rows.length} shots`);

/** Puts shots before the one at a place of the reel as it is, in their order; everything after them moves along. */
export function moveShots(open: OpenReel, ids: readonly string[], at: number): void {
  const now = reelNow(open);
  const moved = now ? shotRows(now, ids) : [];
  if (!now || moved.length === 0) return;
  const others = now.shots.filter(({ id }) => !ids.includes(id));
  const place = others.filter((row) => now.shots.indexOf(row) < at).length;
  const orders = ordersAt(others, place, moved.length);
  dispatch(
    open.row.projectId,
    `Move ${about(moved)}`,
    moved.flatMap((row, i) => changing('shot', row, { order: orders[i]! })),
  );
}

/** One place earlier or later. */
export function stepShots(open: OpenReel, ids: readonly string[], by: -1 | 1): void {
  const now = reelNow(open);
  if (!now) return;
  const places = now.shots.flatMap(({ id }, i) => (ids.includes(id) ? [i] : []));
  const [first, last] = [places[0], places.at(-1)];
  if (first === undefined || last === undefined) return;
  if (by < 0 ? first === 0 : last === now.shots.length - 1) return;
  moveShots(open, ids, by < 0 ? first - 1 : last + 2);
}

export function removeShots(open: OpenReel, ids: readonly string[]): void {
  const now = reelNow(open);
  const gone = now ? shotRows(now, ids) : [];
  if (!now || gone.length === 0) return;
  const next = now.shots[now.shots.indexOf(gone.at(-1)!) + 1] ?? now.shots[now.shots.indexOf(gone[0]!) - 1];
  dispatch(
    open.row.projectId,
    `Delete ${about(gone)}`,
    gone.map(({ id }) => removing('shot', id)),
  );
  chooseShot(next?.id ?? null);
}

export function duplicateShots(open: OpenReel, ids: readonly string[]): void {
  const now = reelNow(open);
  const rows = now ? shotRows(now, ids) : [];
  if (!now || rows.length === 0) return;
  const orders = ordersAt(now.shots, now.shots.indexOf(rows.at(-1)!) + 1, rows.length);
  const copies = rows.map((row, i) => ({ id: crypto.randomUUID(), name: row.name, order: orders[i]!, body: row.body }));
  dispatch(
    open.row.projectId,
    `Duplicate ${about(rows)}`,
    copies.map((copy) => making('shot', copy)),
  );
  chooseShot(copies[0]!.id);
}

/** Changes a shot as it is at this instant. @param change null leaves it */
function editShot(
  open: OpenReel,
  id: string,
  label: string,
  change: (shot: EditedShot, now: OpenReel) => ShotBody | null,
): void {
  const now = reelNow(open);
  const index = now?.shots.findIndex((row) => row.id === id) ?? -1;
  const shot = now && editedShot(now, index);
  const body = shot && change(shot, now);
  if (body) dispatch(open.row.projectId, label, changing('shot', now.shots[index]!, { body }));
}

/** Changes what is said of a shot. */
export const setShot = (open: OpenReel, row: Row<'shot'>, label: string, change: (body: ShotBody) => ShotBody): void =>
  editShot(open, row.id, `${label} of ${row.name}`, ({ body }) => change(body));

/** An edge of a shot so many frames on from where it is in `from`, with ripple: what comes after it moves along. */
export function trimShot(
  open: OpenReel,
  row: Row<'shot'>,
  edge: 'start' | 'end',
  frames: number,
  from?: EditedShot,
): void {
  const trim = edge === 'start' ? trimStart : trimEnd;
  editShot(open, row.id, `Trim ${row.name}`, (shot) => trim(from ?? shot, frames, open.rate));
}

/** The cut before a shot so many frames on: nothing else moves. @param from the two shots as they were taken hold of */
export function rollCut(open: OpenReel, index: number, frames: number, from?: readonly [EditedShot, EditedShot]): void {
  const now = reelNow(open);
  const [before, after] = from ?? [now && editedShot(now, index - 1), now && editedShot(now, index)];
  if (!now || !before || !after) return;
  const bodies = rolled(before, after, frames, now.rate);
  const rows = [now.shots[index - 1]!, now.shots[index]!];
  dispatch(open.row.projectId, `Move the cut before ${rows[1]!.name}`, [
    ...changing('shot', rows[0]!, { body: bodies.before }),
    ...changing('shot', rows[1]!, { body: bodies.after }),
  ]);
}

export const slipShot = (open: OpenReel, row: Row<'shot'>, frames: number, from?: EditedShot): void =>
  editShot(open, row.id, `Slip ${row.name}`, (shot) => slipped(from ?? shot, frames, open.rate));

/** Cuts a shot in two before one of its own frames. */
export function splitAt(open: OpenReel, id: string, frame: number): void {
  const now = reelNow(open);
  const index = now?.shots.findIndex((row) => row.id === id) ?? -1;
  const shot = now && editedShot(now, index);
  if (!shot) return;
  const room = splitRoom(shot, now.plan.shots[index + 1]);
  if (room.later < room.earlier) return;
  const [first, second] = splitShot(shot, within(frame, room), now.rate);
  const row = now.shots[index]!;
  const [order] = ordersAt(now.shots, index + 1, 1);
  const made = crypto.randomUUID();
  dispatch(open.row.projectId, `Split ${row.name}`, [
    ...changing('shot', row, { body: first }),
    making('shot', { id: made, name: row.name, order: order!, body: second }),
  ]);
  chooseShot(made);
}

/** A length to the frame: by going faster or slower, or by showing less or more. */
export function setFrames(open: OpenReel, row: Row<'shot'>, frames: number, by: 'pace' | 'trim'): void {
  editShot(open, row.id, `Length of ${row.name}`, (shot) =>
    by === 'pace' || !hasStretch(shot.body.use)
      ? stretchedTo(shot, frames, open.rate)
      : trimEnd(shot, frames - shot.planned.frames, open.rate),
  );
}

export const setItsPace = (open: OpenReel, row: Row<'shot'>): void => setShot(open, row, 'Pace', atItsPace);
export const turnRound = (open: OpenReel, row: Row<'shot'>): void => setShot(open, row, 'Direction', reversed);

/** How a shot follows on the one before it. @param join null: a cut */
export const setJoin = (open: OpenReel, row: Row<'shot'>, join: Join | null): void =>
  setShot(open, row, 'Join', ({ join: _, ...body }) => (join ? { ...body, join } : body));

/** A new join takes so long, seconds. */
const JOIN_SECONDS = 1;

/** Another kind of join; it takes as long as the one before it. */
export function joinAs(open: OpenReel, row: Row<'shot'>, kind: Join['kind'] | 'cut'): void {
  const { seconds = JOIN_SECONDS, to = 'black' } = row.body.join ?? {};
  setJoin(open, row, kind === 'cut' ? null : { kind, seconds, ...(kind === 'dip' && { to }) });
}

/** Several shots at once, as one step of undo. */
export function setBodies(open: OpenReel, label: string, bodies: ReadonlyMap<string, ShotBody>): void {
  const now = reelNow(open);
  if (!now) return;
  const changes = now.shots.flatMap((row): Change[] => {
    const body = bodies.get(row.id);
    return body ? changing('shot', row, { body }) : [];
  });
  dispatch(open.row.projectId, label, changes);
}

/** Two neighbours change places. @param index of the second */
export function swapBefore(open: OpenReel, index: number): void {
  const now = reelNow(open);
  const row = now?.shots[index];
  if (row) moveShots(open, [row.id], index - 1);
}

/** The shots of a reel in another order; those that are not named stay at its end. */
export function orderShots(
  open: OpenReel,
  label: string,
  ids: readonly string[],
  bodies: ReadonlyMap<string, ShotBody>,
): void {
  const now = reelNow(open);
  if (!now) return;
  const rank = (id: string) => (ids.includes(id) ? ids.indexOf(id) : ids.length);
  const order = [...now.shots].sort((a, b) => rank(a.id) - rank(b.id));
  const places = now.shots.map((row) => row.order);
  const changes = order.flatMap((row, i) =>
    changing('shot', row, { order: places[i]!, body: bodies.get(row.id) ?? row.body }),
  );
  dispatch(open.row.projectId, label, changes);
}

/** A move of its own for a shot: what is changed there from now on changes nothing else. */
export function makeIndependent(document: ProjectDocument, open: OpenReel, row: Row<'shot'>): void {
  const { use } = row.body;
  if (use.kind !== 'move' && use.kind !== 'view') return;
  const id = crypto.randomUUID();
  const rows = use.kind === 'move' ? document.move : document.view;
  const source = rows.find((one) => one.id === (use.kind === 'move' ? use.move : use.view));
  if (!source) return;
  const name = `${source.name.slice(0, 90)} for ${open.row.name.slice(0, 25)}`;
  const at = liveRows(rows as Row[]);
  const order = orderBetween(at, -1, at.findIndex((one) => one.id === source.id) + 1);
  dispatch(open.row.projectId, `Make ${row.name} independent`, [
    making(use.kind, { id, name, order, body: source.body as never }),
    ...changing('shot', row, {
      body: { ...row.body, use: use.kind === 'move' ? { ...use, move: id } : { ...use, view: id } },
    }),
  ]);
}

/** Takes a reel away, with its shots. */
export const reelChanges = (document: ProjectDocument, reel: Row<'reel'>): Change[] => [
  removing('reel', reel.id),
  ...document.shot
    .filter(({ body, deleted }) => body.reel === reel.id && deleted === null)
    .map(({ id }) => removing('shot', id)),
];

/** A reel with copies of its shots. */
export function duplicateReel(
  document: ProjectDocument,
  reel: Row<'reel'>,
  change: { name: string; body?: BodyOf<'reel'> },
): void {
  const id = crypto.randomUUID();
  const shots = liveRows(document.shot).filter(({ body }) => body.reel === reel.id);
  dispatch(reel.projectId, `Duplicate ${reel.name}`, [
    making('reel', {
      id,
      name: change.name,
      order: orderAfter(liveRows(document.reel)),
      body: change.body ?? reel.body,
    }),
    ...shots.map(({ name, order, body }) =>
      making('shot', { id: crypto.randomUUID(), name, order, body: { ...body, reel: id } }),
    ),
  ]);
  selection.chooseRow('reel', id);
}
