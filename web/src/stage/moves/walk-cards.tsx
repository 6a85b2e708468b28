import type { Walk } from '@eskovan/core/document';
import { memo } from 'react';
import { useItems } from '../../desk/selection.ts';
import { CoverCard } from './cover-card.tsx';
import { ChecksCard } from './checks-card.tsx';
import { editMove } from './edit-move.ts';
import { GazeCard } from './gaze-card.tsx';
import { MoveLensCard } from './move-lens-card.tsx';
import type { MoveCardsProps } from './move-props.ts';
import { OverTimeCard } from './over-time-card.tsx';
import { PaceCard } from './pace-card.tsx';
import { OpenDoor } from './open-door.tsx';
import { useMend } from './use-mend.ts';
import { NodeCard, PathCard } from './path-cards.tsx';

/** What the selected walk is made of, in numbers. */
export const WalkCards = memo(function WalkCards({
  row,
  body,
  move,
  findings,
  current,
  cover,
  aspect,
}: MoveCardsProps<Walk>) {
  const mend = useMend(move);
  const { lead } = useItems('node', row.id);
  const node = body.path.nodes.find((n) => n.id === lead);
  return (
    <div className="grid gap-2.5 p-3">
      {move && (
        <ChecksCard
          row={row}
          findings={findings}
          {...{ current, ...(mend && { mend }) }}
          more={(finding) =>
            finding.rule === 'closed door' && move.path && <OpenDoor finding={finding} path={move.path} />
          }
          fine="There is floor all the way and nothing in it, the pace is a walk, and the eye turns calmly."
        />
      )}
      {node && <NodeCard row={row} body={body} move={move} node={node} />}
      <MoveLensCard
        row={row}
        body={body}
        move={move}
        aspect={aspect}
        eyeHeight={body.eyeHeight}
        onEyeHeight={(eyeHeight) => editMove(row, 'walk', 'Eye height', (now) => ({ ...now, eyeHeight }))}
      />
      <PaceCard row={row} body={body} move={move} />
      <GazeCard row={row} body={body} move={move} />
      <OverTimeCard row={row} body={body} move={move} />
      {move && <CoverCard move={move} cover={cover} />}
      <PathCard row={row} body={body} move={move} />
    </div>
  );
});
