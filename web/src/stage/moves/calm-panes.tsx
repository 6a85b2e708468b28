import type { MoveBody, Rate, Row } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { memo } from 'react';
import { liveRows } from '../../data/changes.ts';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import type { UnkeptPose } from '../../desk/unkept.ts';
import { workbench } from '../../desk/workbench.ts';
import type { StripMark } from '../../strips/strip-chart.tsx';
import { Strips } from '../../strips/strips.tsx';
import { LightCard } from '../shared/light-card.tsx';
import { editActionItem, useActionStrip } from './action-strip.ts';
import { CardsSettled } from './checks-card.tsx';
import { editItem } from './edit-items.ts';
import { editTrack } from './edit-move.ts';
import { kindOf } from './kinds.tsx';
import { lookAgain } from './unkept-actions.ts';
import type { Checked } from './use-findings.ts';

/*
 * What of the Moves stage follows a hand more calmly: each is drawn again only when what it was given has changed, so that
 * a step of a dragged node costs plan and picture, and nothing else.
 */

interface MoveStripsProps {
  row: Row<'move'> | null;
  /** The move that hands in the strips take hold of. */
  move: CompiledMove;
  /** The same with what its strips show besides. */
  shown: CompiledMove;
  current: boolean;
  rate: Rate;
  marks: readonly StripMark[];
  held: readonly UnkeptPose[];
}

/** The strips of a move; the actions of the project under them, where that is wished for. */
export const MoveStrips = memo(function MoveStrips({ row, move, shown, current, rate, marks, held }: MoveStripsProps) {
  const actions = liveRows(useProject().action);
  const actionsShown = useActionStrip((state) => state.shown);
  return (
    <Strips
      move={shown}
      {...{ current, rate, marks, held }}
      {...(actions.length > 0 && {
        extra: {
          label: 'Actions',
          shown: actionsShown,
          onShown: () => useActionStrip.setState({ shown: !actionsShown }),
        },
      })}
      onLook={(id) => held.filter((one) => one.id === id).forEach(lookAgain)}
      onTime={(next) => workbench.set({ time: next, playing: false, scout: null })}
      {...(row && {
        onKeys: (label, track, change) => editTrack(row, label, track, change),
        onItem: (item, change) => {
          const acting = item.kind === 'action' && actions.find(({ id }) => id === item.id);
          if (acting) editActionItem(acting, item, change);
          else editItem(row, move, item, change);
        },
      })}
    />
  );
});

interface MoveSideProps extends Checked {
  row: Row<'move'> | null;
  body: MoveBody | null;
  move: CompiledMove | null;
  /** Have the cards come to what a hand has just made? */
  settled: boolean;
  aspect: number;
}

/** The cards of a move. */
export const MoveSide = memo(function MoveSide({ row, body, settled, ...given }: MoveSideProps) {
  const { cards: MoveCards } = kindOf(body);
  return (
    <CardsSettled value={settled}>
      <div className="h-full overflow-y-auto bg-desk">
        {row && body && (
          <>
            <MoveCards row={row} body={body} {...given} />
            <MoveLight row={row} />
          </>
        )}
      </div>
    </CardsSettled>
  );
});

/** The light that a move is seen in. */
const MoveLight = memo(function MoveLight({ row }: { row: Row<'move'> }) {
  return (
    <div className="px-2.5 pb-2.5">
      <LightCard
        light={row.body.light}
        onLight={(light) => editBody('move', row, 'Light', (now) => ({ ...now, light }))}
      />
    </div>
  );
});
