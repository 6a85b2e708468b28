import { eyesOver, type Follow, type Ride, type Travel } from '@eskovan/core/document';
import { replacePose } from '@eskovan/core/move';
import { CUT_HEIGHT } from '@eskovan/core/survey';
import { MapPin } from 'lucide-react';
import { useState } from 'react';
import { useCommands } from '../../desk/commands.ts';
import { selection, useItems, type How } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button } from '../../kit/index.ts';
import { Plan } from '../../plan/plan.tsx';
import { PoseLayer } from '../../plan/pose-layer.tsx';
import { RingLayer } from '../../plan/ring-layer.tsx';
import { editMove } from './edit-move.ts';
import { editPoses } from './edit-poses.ts';
import type { MovePlanProps } from './move-props.ts';
import { useMovePlan } from './use-move-plan.tsx';

const COLOURS = { travel: 'var(--indigo)', ride: 'var(--rust)', follow: 'var(--rust)' };

/** The plan with a camera on it that is placed by time: its way, its poses, where it stands. */
export function TimedPlan({ row, body, move, site, aspect }: MovePlanProps<Travel | Ride | Follow>) {
  const { plan, elevation, project, gazes, lineHands } = useMovePlan({ row, body, move, site, aspect });
  const [standing, setStanding] = useState(false);
  const chosen = useItems('pose', row?.id);
  const poses = body?.kind === 'travel' ? body.poses : [];
  const follows = body?.kind === 'follow';
  const stands = standing && follows && row !== null;
  useCommands([
    {
      id: 'follow.stand.leave',
      label: 'Leave it as it is',
      group: 'Moves',
      keys: 'Escape',
      hidden: true,
      when: () => stands,
      run: () => setStanding(false),
    },
  ]);
  const choose = (id: string, how: How) => {
    if (!row) return;
    selection.chooseItem(
      'pose',
      row.id,
      id,
      how,
      poses.map((pose) => pose.id),
    );
    const pose = poses.find((one) => one.id === id);
    if (pose) workbench.set({ time: pose.time - poses[0]!.time, playing: false, scout: null });
  };
  return (
    <Plan
      {...plan}
      takesKeys={stands || lineHands !== null}
      {...(stands || lineHands ? { cursor: 'crosshair' } : {})}
      hands={
        lineHands ??
        (stands
          ? {
              onPress: (x, z) => {
                const floor = site.footing.surfaceUnder(x, z, elevation + CUT_HEIGHT) ?? elevation;
                editMove(row, 'follow', 'Stand here', (now) => ({
                  ...now,
                  position: [x, floor + eyesOver(site.survey.bounds, project.body.eyeHeight), z],
                }));
                setStanding(false);
              },
              from: () => [body.position[0], body.position[2]],
            }
          : {})
      }
      tools={
        follows && (
          <Button icon={<MapPin size={14} />} pressed={standing} onClick={() => setStanding(!standing)}>
            Stand here…
          </Button>
        )
      }
    >
      {move?.path && body && (
        <RingLayer
          path={move.path}
          pivot={null}
          colour={COLOURS[body.kind]}
          onPress={(station) => workbench.set({ time: move.path!.timeAt(station), playing: false, scout: null })}
        />
      )}
      {row && (
        <PoseLayer
          poses={poses}
          chosen={chosen.ids}
          onChoose={choose}
          onMove={(id, x, z) =>
            editPoses(row, 'Move a pose', (now) => {
              const pose = now.find((one) => one.id === id);
              return pose ? replacePose(now, id, { position: [x, pose.position[1], z] }) : now;
            })
          }
          onDelete={(id) => editPoses(row, 'Delete a pose', (now) => now.filter((one) => one.id !== id))}
        />
      )}
      {/* Who rides or follows looks at what moves: its place is not one of the plan. */}
      {body?.kind === 'travel' && gazes}
    </Plan>
  );
}
