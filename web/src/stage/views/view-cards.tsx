import { checkStill } from '@eskovan/core/check';
import { aspectOf, frameOf, type Frame, type Pose, type Row } from '@eskovan/core/document';
import { largestOf } from '@eskovan/core/geometry';
import { memo, useMemo } from 'react';
import { toast } from 'sonner';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { useSame, useStable, useThrottled } from '../../kit/index.ts';
import { useBurnt } from '../../picture/burnt.ts';
import { useSite, type SiteData } from '../../site/use-site.ts';
import { LightCard } from '../shared/light-card.tsx';
import { AboutViewCard } from './about-view-card.tsx';
import { ManyViewsCard } from './many-views-card.tsx';
import { FramingCard } from './framing-card.tsx';
import { PoseCard } from './pose-card.tsx';
import { StillChecksCard } from './still-checks-card.tsx';
import { SubjectCard, type NamedCamera } from './subject-card.tsx';
import { stateOf, withFrame } from './view-body.ts';
import { changeCamera, seenNow, useSeenLens } from './use-seen.ts';
import { ViewLensCard } from './view-lens-card.tsx';

interface ViewCardsProps {
  row: Row<'view'> | null;
  /** All that are chosen together. */
  rows: readonly Row<'view'>[];
  /** Where the eye is, or where its flight ends. */
  pose: Pose;
  site: SiteData | null;
  /** Asks for what the view was before. */
  onEarlier: () => void;
  /** Puts states of the view beside each other. */
  onCompare: (states: readonly Row<'view'>[]) => void;
}

/** How often numbers and checks follow a moving eye, milliseconds. */
const EVERY = 250;

/** Everything that makes a still, in numbers and words. While one moves they follow a few times a second. */
export function ViewCards({ pose, ...others }: ViewCardsProps) {
  return <Cards {...others} pose={useThrottled(pose, EVERY)} />;
}

const Cards = memo(function Cards({ row, rows, pose, site, onEarlier, onCompare }: ViewCardsProps) {
  const { project } = useProject();
  const lens = useSeenLens(row);
  const { width, height } = frameOf(row?.body ?? null, project.body);
  const aspect = aspectOf({ frame: { width, height } });
  const measured = useSite();
  const subject = useWorkbench((state) => state.subject);
  const burnt = useSame(useBurnt({ pose, lens }, aspect, project.body.limits.burntOut));
  const findings = useMemo(() => {
    const size = measured ? largestOf(measured.bounds) : 0;
    return checkStill(
      { pose, lens },
      aspect,
      site ? { footing: site.footing, size } : null,
      project.body.limits,
      subject?.bounds ?? null,
      burnt,
    );
  }, [pose, lens, aspect, site, measured, project.body.limits, subject, burnt]);
  // These cards follow a moving eye a moment later; what is done in them begins from where it is.
  const seen = useStable(() => seenNow(row, { pose, lens }));
  const now = useStable(() => seen().pose);
  const setFrame = (frame: Frame | undefined) => {
    if (row?.body.locked) toast('This view is locked. Unlock it to give it another frame.');
    else if (row) editBody('view', row, 'Ratio', (body) => withFrame(body, frame));
  };
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] content-start gap-2.5 overflow-y-auto p-3">
      {rows.length > 1 ? (
        <ManyViewsCard rows={rows} />
      ) : (
        row && <AboutViewCard key={row.id} row={row} onEarlier={onEarlier} />
      )}
      <ViewLensCard
        pose={pose}
        now={seen}
        lens={lens}
        aspect={aspect}
        site={site}
        onCamera={(label, camera) => changeCamera(row, label, camera)}
      />
      <StillChecksCard findings={findings} />
      <SubjectCard
        now={now}
        lens={lens}
        aspect={aspect}
        north={project.body.sun.north}
        {...(row && {
          onBeside: (cameras: readonly NamedCamera[]) =>
            onCompare(cameras.map(({ name, camera }) => stateOf(row, name, name, camera))),
        })}
      />
      {row && (
        <FramingCard
          own={row.body.frame}
          project={project.body.frame}
          onFrame={setFrame}
          raising={{
            camera: { pose, lens },
            aspect,
            subject: subject?.bounds ?? null,
            now: seen,
            onCamera: (label, camera) => changeCamera(row, label, camera),
          }}
        />
      )}
      <PoseCard
        pose={pose}
        now={now}
        north={project.body.sun.north}
        floor={site?.footing.floors.floorUnder(pose.position) ?? null}
        onPose={(next) => workbench.set({ scout: next })}
        onEyes={(eyes) => workbench.set({ eyes })}
      />
      {row && (
        <LightCard
          light={row.body.light}
          onLight={(next) => editBody('view', row, 'Light', (body) => ({ ...body, light: next, thumbnail: null }))}
        />
      )}
      <p className="px-1 text-sm text-ink-faint">
        On the plan: press to stand, drag to look. In the picture: drag to look, wheel to go, W A S D to walk. Nothing
        kept changes until you say so.
      </p>
    </div>
  );
});
