import type { Pose, Row } from '@eskovan/core/document';
import { anglesOf, orientationOf } from '@eskovan/core/geometry';
import type { CameraSample } from '@eskovan/core/move';
import { useRef } from 'react';
import { workbench } from '../../app/workbench.ts';
import { useProject } from '../../data/use-project.ts';
import type { SiteData } from '../../site/use-site.ts';
import type { Ground } from '../../picture/eye.ts';
import { CameraMark } from '../../plan/camera-mark.tsx';
import { Plan } from '../../plan/plan.tsx';
import { useStorey } from '../moves/use-storey.ts';

interface StandPlanProps {
  model: SiteData;
  ground: Ground;
  views: readonly Row<'view'>[];
  row: Row<'view'> | null;
  sample: CameraSample;
  aspect: number;
  eyeHeight: number;
}

/** Press to stand, drag to look, let go to see. Nothing kept changes by it. */
export function StandPlan({ model, ground, views, row, sample, aspect, eyeHeight }: StandPlanProps) {
  const [storey, setStorey] = useStorey(model.survey);
  const stand = useRef<Pose | null>(null);
  const elevation = model.survey.storeys[storey]?.elevation ?? 0;
  return (
    <Plan
      survey={model.survey}
      north={useProject().project.body.sun.north}
      storey={storey}
      onStorey={setStorey}
      label="Plan: press to stand, drag to look"
      cursor="crosshair"
      hands={{
        onPress: (x, z) => {
          const { pan } = anglesOf(sample.orientation);
          stand.current = ground.standAt(x, z, elevation, eyeHeight, orientationOf({ pan, tilt: 0, roll: 0 }));
          workbench.set({ scout: stand.current });
        },
        onDrag: (x, z) => {
          if (!stand.current) return;
          const [dx, dz] = [x - stand.current.position[0], z - stand.current.position[2]];
          if (Math.hypot(dx, dz) < 0.15) return;
          workbench.set({
            scout: { ...stand.current, orientation: orientationOf({ pan: Math.atan2(-dx, -dz), tilt: 0, roll: 0 }) },
          });
        },
        onRelease: () => (stand.current = null),
      }}
    >
      {views.map((view, i) =>
        view.id === row?.id ? null : (
          <CameraMark
            key={view.id}
            sample={{ ...view.body.pose, lens: view.body.lens }}
            aspect={aspect}
            label={String(i + 1)}
            faint
            onPress={() => workbench.selectView(view.id)}
          />
        ),
      )}
      <CameraMark sample={sample} aspect={aspect} {...(row ? { label: String(views.indexOf(row) + 1) } : {})} />
    </Plan>
  );
}
