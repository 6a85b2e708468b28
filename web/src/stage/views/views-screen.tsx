import { aspectOf, DEFAULT_LENS, type Pose } from '@eskovan/core/document';
import { standing, type CameraSample } from '@eskovan/core/move';
import { anglesOf, toDegrees } from '@eskovan/core/geometry';
import { Grid3x3, Plus } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { useCommands } from '../../desk/commands.ts';
import { useLead } from '../../desk/selection.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { fileUrl } from '../../data/api.ts';
import { editBody } from '../../data/edit-row.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { useModels, usePictureScene, useSite, useSiteData } from '../../site/use-site.ts';
import { Button, Card, Empty, Line, Panels, Value } from '../../kit/index.ts';
import { firstLook } from '@eskovan/core/site';
import { Ground, worthSeeing } from '../../picture/eye.ts';
import { PicturePane } from '../../picture/picture-pane.tsx';
import { ScoutBar } from '../../picture/scout-bar.tsx';
import { EyeLensCard } from '../shared/eye-lens-card.tsx';
import { LightCard } from '../shared/light-card.tsx';
import { LitBy } from '../shared/lit-by.tsx';
import { NeedsModel } from '../shared/needs-model.tsx';
import { SiteComing } from '../shared/site-coming.tsx';
import { useScoutCommands } from '../shared/use-scout-commands.ts';
import { RowShelf } from '../shared/row-shelf.tsx';
import { keepView, updateView } from '../shared/keep-view.ts';
import { NudgePad } from './nudge-pad.tsx';
import { StandPlan } from './stand-plan.tsx';
import { useFlight } from './use-flight.ts';
import { useThumbnails } from './use-thumbnails.ts';

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
  const lens = row?.body.lens ?? DEFAULT_LENS;
  const pose = scout ?? flown ?? target;
  const sample = useMemo<CameraSample | null>(() => (pose ? standing(pose, lens) : null), [pose, lens]);
  const ground = useMemo(() => (site ? new Ground(site.footing.floors, site.survey) : null), [site]);
  leaving.current = pose;

  useScoutCommands({ canKeep: sample !== null, onKeep: () => void (sample && keepView(document, sample, light)) });
  useCommands([
    {
      id: 'view.update',
      label: 'Update the view to what you see',
      group: 'Picture',
      when: () => row !== null && workbench.get().scout !== null,
      run: () => row && sample && updateView(row, sample),
    },
    { id: 'view.guides', label: 'Show or hide the guides', group: 'Picture', keys: 'g', run: () => setGuides(!guides) },
  ]);

  if (models.length === 0) return <NeedsModel />;
  if (error) return <Empty title="The model’s plan could not be loaded">{error.message}</Empty>;
  if (!sample) return <SiteComing />;
  const move = (next: Pose) => workbench.set({ scout: next });

  const shelf = (
    <RowShelf
      kind="view"
      title="Views"
      rows={views}
      selectedId={row?.id ?? null}
      onSelect={workbench.selectView}
      mark={(view, i) => <Thumbnail number={i + 1} sha256={view.body.thumbnail?.sha256 ?? null} />}
      note={(view) => `${view.body.lens.focalLengthMm.toFixed(0)} mm · y ${view.body.pose.position[1].toFixed(2)} m`}
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
          }}
        >
          {scout && target && (
            <ScoutBar
              from={target}
              scout={scout}
              name={row?.name ?? 'the first look'}
              onBack={() => workbench.set({ scout: null })}
              onKeep={() => keepView(document, sample, light)}
              {...(row ? { onUpdate: () => updateView(row, sample) } : {})}
            />
          )}
        </PicturePane>
      </div>
      <NudgePad pose={sample} onMove={move} />
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
      {row && (
        <EyeLensCard
          lens={row.body.lens}
          onLens={(lens) => editBody('view', row, 'Lens', (body) => ({ ...body, lens, thumbnail: null }))}
          aspect={aspect}
        />
      )}
      {row && (
        <LightCard
          light={light}
          onLight={(next) => editBody('view', row, 'Light', (body) => ({ ...body, light: next, thumbnail: null }))}
        />
      )}
      <PoseCard pose={sample} />
      <p className="px-1 text-sm text-ink-faint">
        On the plan: press to stand, drag to look. In the picture: drag to look, wheel to go, W A S D to walk. Nothing
        kept changes until you say so.
      </p>
    </div>
  );
  return (
    <LitBy light={light}>
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

function PoseCard({ pose }: { pose: Pose }) {
  const { pan, tilt, roll } = anglesOf(pose.orientation);
  // Clockwise from north, as on a compass.
  const bearing = (toDegrees(-pan) + 360) % 360;
  const degrees = (radians: number) => toDegrees(radians).toFixed(1);
  const [x, y, z] = pose.position;
  return (
    <Card title="Pose">
      <Line label="x, y, z">
        <Value unit="m">{[x, y, z].map((n) => n.toFixed(2)).join('  ')}</Value>
      </Line>
      <Line label="Bearing">
        <Value unit="°">{bearing.toFixed(1)}</Value>
      </Line>
      <Line label="Tilt, roll">
        <Value unit="°">
          {degrees(tilt)} {degrees(roll)}
        </Value>
      </Line>
    </Card>
  );
}
