import { checkStill } from '@eskovan/core/check';
import { aspectOf, type Pose, type Vec3 } from '@eskovan/core/document';
import { standing, type CameraSample } from '@eskovan/core/move';
import { Projection, throughLens } from '@eskovan/core/optics';
import { Grid3x3, Plus } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { useCommands } from '../../desk/commands.ts';
import { useLead } from '../../desk/selection.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { fileUrl } from '../../data/api.ts';
import { editBody } from '../../data/edit-row.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { useModels, usePictureScene, useSite, useSiteData } from '../../site/use-site.ts';
import { Button, Empty, Panels } from '../../kit/index.ts';
import { firstLook } from '@eskovan/core/site';
import { Ground, worthSeeing } from '../../picture/eye.ts';
import { PicturePane } from '../../picture/picture-pane.tsx';
import type { PickedSurface } from '../../picture/source.ts';
import { ScoutBar } from '../../picture/scout-bar.tsx';
import { FIRST_F_NUMBER } from '../shared/focus-fields.tsx';
import { LightCard } from '../shared/light-card.tsx';
import { LitBy } from '../shared/lit-by.tsx';
import { NeedsModel } from '../shared/needs-model.tsx';
import { SiteComing } from '../shared/site-coming.tsx';
import { useScoutCommands } from '../shared/use-scout-commands.ts';
import { RowShelf } from '../shared/row-shelf.tsx';
import { keepView } from '../shared/keep-view.ts';
import { AboutViewCard, STATUS } from './about-view-card.tsx';
import { NudgePad } from './nudge-pad.tsx';
import { PoseCard } from './pose-card.tsx';
import { StandPlan } from './stand-plan.tsx';
import { StillChecksCard } from './still-checks-card.tsx';
import { UpdateDialog } from './update-dialog.tsx';
import { useFlight } from './use-flight.ts';
import { changeCamera, changeLens, useSeenLens } from './use-seen.ts';
import { useThumbnails } from './use-thumbnails.ts';
import { ViewLensCard } from './view-lens-card.tsx';

/** Stand somewhere, look somewhere, keep it. */
export function ViewsScreen() {
  const document = useProject();
  const { project } = document;
  const models = useModels();
  const measured = useSite();
  const views = liveRows(document.view);
  const chosen = useLead('view');
  const row = views.find((view) => view.id === chosen) ?? views[0] ?? null;
  const light = row?.body.light;
  const scene = usePictureScene(light);
  useThumbnails(views, scene, light);
  const { data: site, error } = useSiteData();
  const scout = useWorkbench((state) => state.scout);
  const aspect = aspectOf(project.body);
  const home = useMemo(
    () => (measured ? firstLook(worthSeeing(measured.bounds, site?.survey ?? null), aspect) : null),
    [measured, site?.survey, aspect],
  );
  const target = row?.body.pose ?? home;
  const leaving = useRef<Pose | null>(null);
  const flown = useFlight(row?.id ?? 'home', target, () => leaving.current);
  const [guides, setGuides] = useState(true);
  const lens = useSeenLens(row);
  const focusing = useWorkbench((state) => state.focusing);
  const [updating, setUpdating] = useState(false);
  const pose = scout ?? flown ?? target;
  const sample = useMemo<CameraSample | null>(() => (pose ? standing(pose, lens) : null), [pose, lens]);
  const ground = useMemo(() => (site ? new Ground(site.footing.floors, site.survey) : null), [site]);
  // After the flight has asked where it begins: at what was seen before.
  useEffect(() => {
    leaving.current = pose;
  });
  // Where a flight ends: what cards say and change.
  const still = scout ?? target;
  const findings = useMemo(() => {
    if (!still) return [];
    const size = measured ? Math.max(...[0, 1, 2].map((k) => measured.bounds.max[k]! - measured.bounds.min[k]!)) : 0;
    const footing = site ? { footing: site.footing, size } : null;
    return checkStill({ pose: still, lens }, aspect, footing, project.body.limits);
  }, [still, lens, aspect, site, measured, project.body.limits]);

  useScoutCommands({ canKeep: sample !== null, onKeep: () => void (sample && keepView(document, sample, light)) });
  useCommands([
    {
      id: 'view.update',
      label: 'Update the view to what you see',
      group: 'Picture',
      when: () => row !== null && !row.body.locked && workbench.get().scout !== null,
      run: () => setUpdating(true),
    },
    { id: 'view.guides', label: 'Show or hide the guides', group: 'Picture', keys: 'g', run: () => setGuides(!guides) },
  ]);

  if (models.length === 0) return <NeedsModel />;
  if (error) return <Empty title="The model’s plan could not be loaded">{error.message}</Empty>;
  if (!sample || !still) return <SiteComing />;
  const move = (next: Pose) => workbench.set({ scout: next });
  const floorUnder = ([x, y, z]: Vec3) => {
    const floor = site?.footing.floors.floorBelow(x, z, y) ?? -Infinity;
    return Number.isFinite(floor) ? floor : null;
  };
  // What is sharp is a plane across the camera's axis, not a distance along the ray.
  const focusOn = (point: Vec3) => {
    const focus = new Projection(throughLens(lens), aspect, still.position, still.orientation).project(point).depth;
    workbench.set({ focusing: false });
    changeLens(row, still, { ...lens, focus, fNumber: lens.fNumber ?? FIRST_F_NUMBER });
  };

  const shelf = (
    <RowShelf
      kind="view"
      title="Views"
      rows={views}
      selectedId={row?.id ?? null}
      onSelect={workbench.selectView}
      mark={(view, i) => <Thumbnail number={i + 1} sha256={view.body.thumbnail?.sha256 ?? null} />}
      note={(view) =>
        [
          `${view.body.lens.focalLengthMm.toFixed(0)} mm`,
          STATUS[view.body.status ?? 'draft'].toLowerCase(),
          ...(view.body.locked ? ['locked'] : []),
        ].join(' · ')
      }
      empty="No views yet. Look around in the picture and keep what you like."
      footer={
        <Button
          tone="primary"
          icon={<Plus size={14} />}
          className="w-full"
          onClick={() => keepView(document, sample, light)}
        >
          Keep view
        </Button>
      }
    />
  );
  const picture = (
    <div className="flex h-full flex-col bg-surround">
      <header className="on-surround flex h-9 shrink-0 items-center gap-3 px-3 text-surround-ink">
        <span className="truncate font-semibold">{row ? `${views.indexOf(row) + 1} · ${row.name}` : 'Scouting'}</span>
        <span className="ml-auto font-mono text-sm text-surround-soft">
          {lens.focalLengthMm.toFixed(0)} mm · {project.body.frame.width}:{project.body.frame.height}
        </span>
        <Button tone="surround" small icon={<Grid3x3 size={13} />} pressed={guides} onClick={() => setGuides(!guides)}>
          Guides
        </Button>
      </header>
      <div className="min-h-0 flex-1">
        <PicturePane
          label="Picture"
          sample={sample}
          guides={guides}
          hands={{
            eye: () => workbench.get().scout ?? leaving.current,
            onMove: move,
            lens,
            ground,
            eyeHeight: project.body.eyeHeight,
            ...(focusing && {
              onPress: (hit: PickedSurface | null) =>
                hit ? focusOn(hit.point) : toast('There is nothing to focus on there: only sky.'),
            }),
          }}
        >
          {scout && target && (
            <ScoutBar
              from={target}
              scout={scout}
              name={row?.name ?? 'the first look'}
              onBack={() => workbench.set({ scout: null })}
              onKeep={() => keepView(document, sample, light)}
              {...(row && !row.body.locked ? { onUpdate: () => setUpdating(true) } : {})}
            />
          )}
        </PicturePane>
      </div>
      <NudgePad pose={still} onMove={move} />
    </div>
  );
  const plan = site && ground && (
    <StandPlan {...{ site, ground, views, row, sample, aspect, eyeHeight: project.body.eyeHeight }} />
  );
  const centre = (
    <Panels
      id="views-centre"
      direction="vertical"
      panels={[
        { id: 'large', min: 240, content: picture },
        { id: 'stand', size: '30%', min: 110, content: plan },
      ]}
    />
  );
  const cards = (
    <div className="grid h-full content-start gap-2.5 overflow-y-auto p-3">
      {row && <AboutViewCard key={row.id} row={row} />}
      <ViewLensCard
        pose={still}
        lens={lens}
        aspect={aspect}
        onLens={(next) => changeLens(row, still, next)}
        onCamera={(camera) => changeCamera(row, 'Straight verticals', camera)}
      />
      <StillChecksCard findings={findings} />
      <PoseCard pose={still} north={project.body.sun.north} floor={floorUnder(still.position)} onPose={move} />
      {row && (
        <LightCard
          light={light}
          onLight={(next) => editBody('view', row, 'Light', (body) => ({ ...body, light: next, thumbnail: null }))}
        />
      )}
      <p className="px-1 text-sm text-ink-faint">
        On the plan: press to stand, drag to look. In the picture: drag to look, wheel to go, W A S D to walk. Nothing
        kept changes until you say so.
      </p>
    </div>
  );
  return (
    <LitBy light={light}>
      {updating && row && scout && (
        <UpdateDialog row={row} sample={sample} aspect={aspect} onClose={() => setUpdating(false)} />
      )}
      <Panels
        id="views"
        panels={[
          { id: 'shelf', size: 250, min: 180, content: shelf },
          { id: 'centre', min: 360, content: centre },
          { id: 'cards', size: 270, min: 220, content: cards },
        ]}
      />
    </LitBy>
  );
}

function Thumbnail({ number, sha256 }: { number: number; sha256: string | null }) {
  return (
    <span className="relative h-[46px] w-[82px] shrink-0 overflow-hidden rounded-md bg-surround">
      {sha256 && <img src={fileUrl(sha256)} alt="" className="h-full w-full object-cover" />}
      <span className="absolute top-0.5 left-0.5 rounded bg-surround/85 px-1 text-xs font-semibold text-surround-ink">
        {number}
      </span>
    </span>
  );
}
