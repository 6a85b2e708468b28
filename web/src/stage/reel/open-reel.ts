import { aspectOf, type Frame, type ProjectDocument, type Rate, type Row } from '@eskovan/core/document';
import {
  HOLDS,
  ownSource,
  planReel,
  type EditedShot,
  type ReelPlan,
  type ShotSource,
  type ShotToPlan,
} from '@eskovan/core/reel';
import { liveRows } from '../../data/changes.ts';
import { useReelFacts } from './reel-facts.ts';

/** A reel with its shots in their order, and when each of them is. */
export interface OpenReel {
  row: Row<'reel'>;
  shots: readonly Row<'shot'>[];
  plan: ReelPlan;
  rate: Rate;
  /** Width over height of its pictures. */
  frame: Frame;
  aspect: number;
}

/** Until a move has been measured it is taken for as long as a shot shows of it, and at least so long, seconds. */
const UNMEASURED = 8;

/** What shots take their pictures from, as far as it is known at this instant. */
function sourceIn({ move, view }: Pick<ProjectDocument, 'move' | 'view'>) {
  const { measured } = useReelFacts.getState();
  const there = (rows: readonly Row[], id: string) => rows.some((row) => row.id === id && row.deleted === null);
  return ({ body: { use } }: ShotToPlan): ShotSource | null => {
    if (use.kind === 'view') return there(view, use.view) ? HOLDS : null;
    if (use.kind !== 'move') return ownSource(use);
    if (!there(move, use.move)) return null;
    const known = measured[use.move];
    if (known !== undefined) return known;
    return { duration: Math.max(UNMEASURED, use.to ?? use.from + UNMEASURED), loops: false };
  };
}

/** The shots of a reel, in their order. */
export const shotsOf = (document: Pick<ProjectDocument, 'shot'>, reelId: string): Row<'shot'>[] =>
  liveRows(document.shot.filter(({ body }) => body.reel === reelId));

/** Shelf, strip and cards ask for the same reel of the same document: it is planned for the first of them. */
type Opened = Map<Row<'reel'>, { measured: unknown; open: OpenReel }>;
const opened = new WeakMap<ProjectDocument, Opened>();

export function openReel(document: ProjectDocument, row: Row<'reel'>): OpenReel {
  const reels = opened.get(document) ?? (new Map() as Opened);
  opened.set(document, reels);
  // Lengths of moves are in the plan.
  const { measured } = useReelFacts.getState();
  const before = reels.get(row);
  if (before?.measured === measured) return before.open;
  const shots = shotsOf(document, row.id);
  const rate = row.body.rate ?? document.project.body.rate;
  const frame = row.body.frame ?? document.project.body.frame;
  const open = {
    row,
    shots,
    rate,
    frame,
    aspect: aspectOf({ frame }),
    plan: planReel(shots, rate, sourceIn(document)),
  };
  reels.set(row, { measured, open });
  return open;
}

/** A shot of a reel with its plan. */
export function editedShot({ shots, plan }: OpenReel, index: number): EditedShot | null {
  const [row, planned] = [shots[index], plan.shots[index]];
  return row && planned ? { body: row.body, planned } : null;
}

/** What a shot shows, by name; empty for cards. */
export function sourceName(
  { move, view }: Pick<ProjectDocument, 'move' | 'view'>,
  { use }: Row<'shot'>['body'],
): string {
  if (use.kind === 'move') return move.find(({ id }) => id === use.move)?.name ?? '';
  if (use.kind === 'view') return view.find(({ id }) => id === use.view)?.name ?? '';
  return use.kind === 'title' ? '' : use.fileName;
}

/** The light that a shot is seen in: its own, else that of what it shows. */
export function lightOfShot(
  { move, view }: Pick<ProjectDocument, 'move' | 'view'>,
  { use, light }: Row<'shot'>['body'],
): string | null | undefined {
  if (light !== undefined) return light;
  if (use.kind === 'move') return move.find(({ id }) => id === use.move)?.body.light;
  return use.kind === 'view' ? view.find(({ id }) => id === use.view)?.body.light : null;
}
