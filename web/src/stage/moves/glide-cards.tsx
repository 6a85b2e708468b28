import { GLIDE_LIMITS, type Glide, type GlideHeight } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { memo } from 'react';
import { useItems } from '../../desk/selection.ts';
import { Card, NumberField, Segmented } from '../../kit/index.ts';
import { useSite } from '../../site/use-site.ts';
import { ChecksCard } from './checks-card.tsx';
import { CoverCard } from './cover-card.tsx';
import { editMove, firstAbove } from './edit-move.ts';
import { GazeCard } from './gaze-card.tsx';
import { MoveLensCard } from './move-lens-card.tsx';
import type { MoveCardsProps } from './move-props.ts';
import { OverTimeCard } from './over-time-card.tsx';
import { PaceCard } from './pace-card.tsx';
import { NodeCard, PathCard } from './path-cards.tsx';
import { useMend } from './use-mend.ts';

/** What the selected glide is made of, in numbers. */
export const GlideCards = memo(function GlideCards(props: MoveCardsProps<Glide>) {
  const { row, body, move, findings, current, cover, aspect } = props;
  const mend = useMend(move);
  const { lead } = useItems('node', row.id);
  const node = body.path.nodes.find(({ id }) => id === lead);
  return (
    <div className="grid gap-2.5 p-3">
      {move && (
        <ChecksCard
          {...{ row, findings, current, ...(mend && { mend }) }}
          fine="Nothing is in the camera’s way, and it turns calmly."
        />
      )}
      {node && <NodeCard row={row} body={body} move={move} node={node} />}
      <HeightCard {...props} />
      <PaceCard row={row} body={body} move={move} />
      <GazeCard row={row} body={body} move={move} />
      <MoveLensCard row={row} body={body} move={move} aspect={aspect} />
      <OverTimeCard row={row} body={body} move={move} />
      {move && cover && cover.length > 0 && <CoverCard move={move} cover={cover} />}
      <PathCard row={row} body={body} move={move} />
    </div>
  );
});

function HeightCard({ row, body, move }: MoveCardsProps<Glide>) {
  const { height } = body;
  const site = useSite()?.bounds ?? null;
  const set = (next: GlideHeight) => editMove(row, 'glide', 'Height of the glide', (now) => ({ ...now, height: next }));
  const number = (
    label: string,
    value: number,
    [min, max]: readonly [number, number],
    onChange: (value: number) => void,
  ) => <NumberField {...{ label, value, min, max, onChange }} unit="m" measure="length" step={0.25} />;
  return (
    <Card
      title="Height"
      note={
        <Segmented
          label="Where its height comes from"
          value={height.by}
          options={[
            { value: 'drawn', label: 'As drawn' },
            { value: 'level', label: 'Level' },
            { value: 'ground', label: 'Above ground' },
          ]}
          onChange={(by) =>
            set(
              by === 'drawn'
                ? { by }
                : by === 'level'
                  ? { by, height: Number(firstHeight(body, move).toFixed(2)) }
                  : { by, ...firstAbove(site) },
            )
          }
        />
      }
    >
      {height.by === 'drawn' && (
        <p className="text-sm text-ink-soft">Pull the nodes up and down in the section, or type their heights.</p>
      )}
      {height.by === 'level' &&
        number('At', height.height, [-1000, 20_000], (value) => set({ by: 'level', height: value }))}
      {height.by === 'ground' && (
        <>
          {number('Above the ground', height.above, GLIDE_LIMITS.above, (above) => set({ ...height, above }))}
          {number('Clear of everything by', height.clearance, GLIDE_LIMITS.clearance, (clearance) =>
            set({ ...height, clearance }),
          )}
        </>
      )}
    </Card>
  );
}

const firstHeight = ({ path }: Glide, move: CompiledMove | null) =>
  move?.sampleAt(0).position[1] ?? path.nodes[0]?.y ?? 0;
