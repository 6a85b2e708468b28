import { eyesOver, type Orbit } from '@eskovan/core/document';
import { CUT_HEIGHT } from '@eskovan/core/survey';
import { Crosshair } from 'lucide-react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button } from '../../kit/index.ts';
import { Plan } from '../../plan/plan.tsx';
import { RingHandles } from '../../plan/ring-handles.tsx';
import { RingLayer } from '../../plan/ring-layer.tsx';
import { editMove, radiusOf } from './edit-move.ts';
import type { MovePlanProps } from './move-props.ts';
import { roundPlace } from './pivot-card.tsx';
import { useMovePlan } from './use-move-plan.tsx';

/** A place that is pressed in the plan of a building is gone round from this far away, metres. */
const FIRST_RADIUS = 5;

/** The plan with the ring of the selected orbit on it. */
export function OrbitPlan({ row, body, move, site, aspect }: MovePlanProps<Orbit>) {
  const { plan, elevation, project } = useMovePlan({ row, body, move, site, aspect });
  const aiming = useWorkbench((state) => state.aiming === 'subject');
  const pivot = body?.pivot.point;
  const centre = move?.looks[0]?.at(0) ?? null;
  return (
    <Plan
      {...plan}
      takesKeys={aiming}
      {...(aiming ? { cursor: 'crosshair' } : {})}
      hands={
        aiming && row && body
          ? {
              onPress: (x, z) => {
                const floor = site.footing.surfaceUnder(x, z, elevation + CUT_HEIGHT) ?? elevation;
                // Somebody who presses a place on a floor means what a person looks at there.
                const eyes = eyesOver(site.survey.bounds, project.body.eyeHeight);
                const radius =
                  body.distance.by === 'radius' ? body.distance.radius : (eyes / project.body.eyeHeight) * FIRST_RADIUS;
                roundPlace(row, [x, floor + eyes, z], radius);
              },
              from: () => (pivot ? [pivot[0], pivot[2]] : null),
            }
          : {}
      }
      tools={
        <Button
          icon={<Crosshair size={14} />}
          pressed={aiming}
          onClick={() => workbench.set({ aiming: aiming ? null : 'subject', playing: false })}
        >
          Go round…
        </Button>
      }
    >
      {move?.path && (
        <RingLayer
          path={move.path}
          pivot={body?.pivot ?? null}
          onPress={(station) => workbench.set({ time: move.path!.timeAt(station), playing: false, scout: null })}
        />
      )}
      {row && body && centre && !aiming && (
        <RingHandles
          orbit={body}
          pivot={centre}
          radius={radiusOf(move!, centre)}
          bounds={move!.looks[0]!.bounds ?? null}
          onChange={(label, change) => editMove(row, 'orbit', label, (now) => ({ ...now, ...change }))}
        />
      )}
    </Plan>
  );
}
