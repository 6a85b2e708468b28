import type { Finding, RoomCover } from '@eskovan/core/check';
import type { MoveBody, Row } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import type { SiteData } from '../../site/use-site.ts';

export interface MoveCardsProps<B extends MoveBody> {
  row: Row<'move'>;
  body: B;
  move: CompiledMove | null;
  findings: readonly Finding[];
  /** Are the findings of what is shown now? */
  current: boolean;
  cover: readonly RoomCover[] | null;
  aspect: number;
}

export interface MovePlanProps<B extends MoveBody> {
  row: Row<'move'> | null;
  body: B | null;
  move: CompiledMove | null;
  site: SiteData;
  aspect: number;
  /** Takes up the pencil. */
  onDraw: () => void;
}
