import { aspectOf, frameOf, type Lens, type Pose, type Row } from '@eskovan/core/document';
import { anglesOf, orientationOf } from '@eskovan/core/geometry';
import { standing, type CameraSample } from '@eskovan/core/move';
import { memo, useEffect, useMemo, useRef } from 'react';
import type { How } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
import { useProject } from '../../data/use-project.ts';
import { useLengthUnit, useSame, useStable } from '../../kit/index.ts';
import type { SiteData } from '../../site/use-site.ts';
import { lookAround, type Ground } from '../../picture/eye.ts';
import { blockingOf, storeyOfEye, type Blocking } from '@eskovan/core/survey';
import { CameraMark } from '../../plan/camera-mark.tsx';
import { Plan, usePlan } from '../../plan/plan.tsx';
import { spread } from '../../plan/spread.ts';
import { useStorey } from '../shared/use-storey.ts';
import { scoutAs, withPerspective } from './use-seen.ts';

interface StandPlanProps {
  site: SiteData;
  ground: Ground;
  views: readonly Row<'view'>[];
  row: Row<'view'> | null;
  sample: CameraSample;
  lens: Lens;
  aspect: number;
  eyeHeight: number;
}

/** Who drags so far from where they stand has said which way they look, metres. */
const LOOKS = 0.15;

/** Press to stand, drag to look, let go to see. Nothing kept changes by it. */
export function StandPlan({ site, ground, views, row, sample, lens, aspect, eyeHeight }: StandPlanProps) {
  const [storey, setStorey] = useStorey(site.survey);
  const { steps } = useLengthUnit();
  const stand = useRef<Pose | null>(null);
  const id = row?.id;
  const shown = site.survey.storeys[storey];
  // Glass stops nobody's eyes; on another storey nobody sees these walls.
  const walls = useMemo(() => (shown ? blockingOf({ ...shown.plan, glass: [] }) : null), [shown]);
  const onStorey = storeyOfEye(sample.position[1], site.survey.storeys) === storey;
  useEffect(() => {
    if (row) workbench.set({ storey: storeyOfEye(row.body.pose.position[1], site.survey.storeys) });
    // How a view asks for its storey once; whoever looks at another one then may.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  const focus = useMemo(() => {
    if (!row) return null;
    const [x, , z] = row.body.pose.position;
    return { key: row.id, area: { minX: x, maxX: x, minZ: z, maxZ: z } };
  }, [row]);
  const standAt = (x: number, z: number) => {
    const { pan } = anglesOf(sample.orientation);
    stand.current = ground.standIn(storey, x, z, eyeHeight, orientationOf({ pan, tilt: 0, roll: 0 }));
    scoutAs({ pose: stand.current, lens: withPerspective(lens) });
  };
  return (
    <Plan
      survey={site.survey}
      north={useProject().project.body.sun.north}
      storey={storey}
      onStorey={setStorey}
      label="Plan: press to stand, drag to look; Ctrl and arrows turn"
      cursor="crosshair"
      focus={focus}
      hands={{
        onPress: standAt,
        onDrag: (x, z) => {
          if (!stand.current) return;
          const [dx, dz] = [x - stand.current.position[0], z - stand.current.position[2]];
          if (Math.hypot(dx, dz) < LOOKS * steps) return;
          workbench.set({
            scout: { ...stand.current, orientation: orientationOf({ pan: Math.atan2(-dx, -dz), tilt: 0, roll: 0 }) },
          });
        },
        onRelease: () => (stand.current = null),
        onTurn: (angle) => workbench.set({ scout: lookAround(sample, angle, 0) }),
        from: () => [sample.position[0], sample.position[2]],
      }}
    >
      <ViewMarks {...{ views, row, sample, aspect }} walls={onStorey ? walls : null} />
    </Plan>
  );
}

/** Numbers of views keep so far from each other, pixels. */
const APART = 19;

/** All views with their numbers; those that would lie on each other step aside. */
function ViewMarks({
  views,
  row,
  sample,
  aspect,
  walls,
}: Pick<StandPlanProps, 'views' | 'row' | 'sample' | 'aspect'> & { walls: Blocking | null }) {
  const { scale, toScreen } = usePlan();
  const { body } = useProject().project;
  const others = views.filter(({ id }) => id !== row?.id);
  // The one that is shown keeps its place.
  const places = useSame(
    [sample.position, ...others.map(({ body }) => body.pose.position)].map(([x, , z]) => toScreen(x, z)),
  );
  const [, ...aside] = useMemo(() => spread(places, APART), [places]);
  const onPress = useStable((id: string, how: How) =>
    workbench.selectView(
      id,
      how,
      views.map((view) => view.id),
    ),
  );
  return (
    <>
      {others.map((view, i) => (
        <OtherMark
          key={view.id}
          id={view.id}
          pose={view.body.pose}
          lens={view.body.lens}
          aspect={aspectOf({ frame: frameOf(view.body, body) })}
          label={String(views.indexOf(view) + 1)}
          right={aside[i]![0] / scale}
          down={aside[i]![1] / scale}
          onPress={onPress}
        />
      ))}
      <CameraMark
        {...{ sample, aspect }}
        {...(row && { label: String(views.indexOf(row) + 1) })}
        {...(walls && { walls })}
      />
    </>
  );
}

/** A view that is not the one shown: with hundreds of them only those that have changed are drawn again. */
const OtherMark = memo(function OtherMark({
  id,
  pose,
  lens,
  right,
  down,
  onPress,
  ...shown
}: {
  id: string;
  pose: Pose;
  lens: Lens;
  aspect: number;
  label: string;
  /** How far it steps aside, metres. */
  right: number;
  down: number;
  onPress: (id: string, how: How) => void;
}) {
  const sample = useMemo(() => standing(pose, lens), [pose, lens]);
  return <CameraMark {...shown} sample={sample} aside={[right, down]} faint onPress={(how) => onPress(id, how)} />;
});
