import { Movers, SiteMotion, type MovableSite, type SiteAction } from '@eskovan/core/action';
import type { CheckLimits, MoveBody, Walker } from '@eskovan/core/document';
import { compileMove, type CompiledMove, type MoveSite } from '@eskovan/core/move';
import type { Footing } from '@eskovan/core/survey';

/** What moves are compiled and checked in, as far as the page knows it. */
export interface SiteOrder extends Omit<MoveSite, 'footing' | 'motion'> {
  floorUrl: string;
  walker: Walker;
  limits: CheckLimits;
  /** What moves of the site; null where nothing does, or nothing that is asked is about it. */
  moving: { site: Pick<MovableSite, 'joints' | 'movements'>; actions: readonly SiteAction[] } | null;
}

/** The same where it is worked in. */
export interface ReadySite {
  order: SiteOrder;
  footing: Footing;
  motion: SiteMotion | null;
  movers: Movers;
}

export function readySite(order: SiteOrder, footing: Footing): ReadySite {
  const { moving, parts } = order;
  const motion = moving && new SiteMotion({ ...moving.site, parts }, moving.actions);
  return { order, footing, motion, movers: new Movers(parts, motion) };
}

/** @returns null while there is not enough of the move */
export function compiledIn({ order, footing, motion }: ReadySite, body: MoveBody): CompiledMove | null {
  const { walker, parts, aspect, limits } = order;
  return compileMove(body, { footing, walker, parts, motion, aspect, limits });
}
