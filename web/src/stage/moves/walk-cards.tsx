import type { Row, Walk } from '@eskovan/core/document';
import { editBody } from '../../data/edit-row.ts';
import type { CompiledWalk } from '@eskovan/core/move';
import { memo } from 'react';
import { useItems } from '../../desk/selection.ts';
import { EyeLensCard } from '../shared/eye-lens-card.tsx';
import { ChecksCard } from './checks-card.tsx';

import { GazeCard } from './gaze-card.tsx';
import { PaceCard } from './pace-card.tsx';
import { NodeCard, PathCard } from './path-cards.tsx';

interface WalkCardsProps {
  row: Row<'move'>;
  body: Walk;
  walk: CompiledWalk | null;
  aspect: number;
  frames: number;
}

/** What the selected walk is made of, in numbers. */
export const WalkCards = memo(function WalkCards({ row, body, walk, aspect, frames }: WalkCardsProps) {
  const { lead } = useItems('node', row.id);
  const node = body.path.nodes.find((n) => n.id === lead);
  return (
    <div className="grid gap-2.5 p-3">
      {walk && <ChecksCard walk={walk} />}
      {node && <NodeCard row={row} body={body} node={node} />}
      <EyeLensCard
        eyeHeight={body.eyeHeight}
        onEyeHeight={(eyeHeight) => editBody('move', row, 'Eye height', (now) => ({ ...now, eyeHeight }))}
        lens={body.lens}
        onLens={(lens) => editBody('move', row, 'Lens', (now) => ({ ...now, lens }))}
        aspect={aspect}
      />
      <PaceCard row={row} body={body} walk={walk} frames={frames} />
      <GazeCard row={row} body={body} />
      <PathCard row={row} body={body} walk={walk} />
    </div>
  );
});
