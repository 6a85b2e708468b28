import type { Follow, Vec3 } from '@eskovan/core/document';
import { MapPin } from 'lucide-react';
import { memo } from 'react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, Card, Line, NumberField, Segmented } from '../../kit/index.ts';
import { ChecksCard } from './checks-card.tsx';
import { CoverCard } from './cover-card.tsx';
import { DurationField } from './duration-field.tsx';
import { editMove } from './edit-move.ts';
import { GazeCard } from './gaze-card.tsx';
import { MoveLensCard } from './move-lens-card.tsx';
import type { MoveCardsProps } from './move-props.ts';
import { OverTimeCard } from './over-time-card.tsx';
import { useMend } from './use-mend.ts';

/** What the selected camera that stands and follows is made of. */
export const FollowCards = memo(function FollowCards(props: MoveCardsProps<Follow>) {
  const { row, body, move, findings, current, cover, aspect } = props;
  const mend = useMend(move);
  const scout = useWorkbench((state) => state.scout);
  const held = body.gaze.kind === 'object' || body.gaze.kind === 'point';
  const set = (label: string, change: Partial<Follow>) =>
    editMove(row, 'follow', label, (now) => ({ ...now, ...change }));
  const axis = (label: string, k: 0 | 1 | 2) => (
    <NumberField
      label={label}
      unit="m"
      measure="length"
      value={body.position[k]}
      step={0.1}
      onChange={(value) =>
        set('Stand elsewhere', { position: body.position.map((old, n) => (n === k ? value : old)) as Vec3 })
      }
    />
  );
  return (
    <div className="grid gap-2.5 p-3">
      {move && (
        <ChecksCard
          {...{ row, findings, current, ...(mend && { mend }) }}
          fine="Nothing is in the camera’s way, and it turns calmly."
        />
      )}
      <GazeCard row={row} body={body} move={move} />
      <Card title="Stands">
        <div className="grid grid-cols-3 gap-x-3">
          {axis('x', 0)}
          {axis('y', 1)}
          {axis('z', 2)}
        </div>
        <div className="my-1.5">
          <Button
            small
            icon={<MapPin size={13} />}
            disabled={!scout}
            title="Look about in the picture first, or press a place in the plan"
            onClick={() => {
              if (scout) set('Stand here', { position: scout.position });
              workbench.set({ scout: null });
            }}
          >
            Stand where I look from
          </Button>
        </div>
        <DurationField row={row} body={body} />
        {held && (
          <Line label="Size of the subject">
            <Segmented
              label="Size of the subject"
              value={body.holdSize ? 'held' : 'free'}
              options={[
                { value: 'free', label: 'As it comes' },
                { value: 'held', label: 'Held by the lens' },
              ]}
              onChange={(value) =>
                editMove(row, 'follow', 'Size of the subject', ({ holdSize: _, ...now }) => ({
                  ...now,
                  ...(value === 'held' && { holdSize: true as const }),
                }))
              }
            />
          </Line>
        )}
      </Card>
      <MoveLensCard row={row} body={body} move={move} aspect={aspect} />
      <OverTimeCard row={row} body={body} move={move} />
      {move && cover && cover.length > 0 && <CoverCard move={move} cover={cover} />}
    </div>
  );
});
