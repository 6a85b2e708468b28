import { aspectOf, frameOf, type Pose } from '@eskovan/core/document';
import { standing, type CameraSample } from '@eskovan/core/move';
import { ArrowRightLeft, LayoutGrid, Lightbulb, Plus } from 'lucide-react';
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { useCommands } from '../../desk/commands.ts';
import { useChosenRows, useLead } from '../../desk/selection.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { fileUrl } from '../../data/api.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { useModels, usePictureScene, useSite, useSiteData } from '../../site/use-site.ts';
import { Button, Empty, Panels } from '../../kit/index.ts';
import { firstLook } from '@eskovan/core/site';
import { roomOfEye } from '@eskovan/core/survey';
import { Ground, worthSeeing } from '../../picture/eye.ts';
import { LitBy } from '../shared/lit-by.tsx';
import { NeedsModel } from '../shared/needs-model.tsx';
import { SiteComing } from '../shared/site-coming.tsx';
import { useScoutCommands } from '../shared/use-scout-commands.ts';
import { RowShelf } from '../shared/row-shelf.tsx';
import { keepView } from '../shared/keep-view.ts';
import { lensText } from '../shared/lens-text.ts';
import { STATUS } from './about-view-card.tsx';
import { CompareViews, MOST_COMPARED } from './compare-views.tsx';
import { ContactSheetDialog } from './contact-sheet-dialog.tsx';
import { RecentRow } from './recent-row.tsx';
import { StandPlan } from './stand-plan.tsx';
import { SuggestDialog } from './suggest-dialog.tsx';
import { UpdateDialog } from './update-dialog.tsx';
import { useFlight } from './use-flight.ts';
import { useRemembering } from './use-remembering.ts';
import { useSeenLens } from './use-seen.ts';
import { useThumbnails } from './use-thumbnails.ts';
import { ViewCards } from './view-cards.tsx';
import { ViewPicture } from './view-picture.tsx';

/** Brings what other programs' formats need: nobody waits for that who only looks. */
const CarryDialog = lazy(async () => ({ default: (await import('./carry-dialog.tsx')).CarryDialog }));

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
  const eyeHeight = useWorkbench((state) => state.eyes) ?? project.body.eyeHeight;
  const frame = frameOf(row?.body ?? null, project.body);
  const aspect = aspectOf({ frame });
  const home = useMemo(
    () => (measured ? firstLook(worthSeeing(measured.bounds, site?.survey ?? null), aspect) : null),
    [measured, site?.survey, aspect],
  );
  const target = row?.body.pose ?? home;
  const leaving = useRef<Pose | null>(null);
  const flown = useFlight(row?.id ?? 'home', target, () => leaving.current);
  const [guides, setGuides] = useState(true);
  const lens = useSeenLens(row);
  const [updating, setUpdating] = useState(false);
  const [comparing, setComparing] = useState(false);
  const [sheet, setSheet] = useState(false);
  const [carrying, setCarrying] = useState(false);
  const [suggesting, setSuggesting] = useState(false);
  const { ids } = useChosenRows('view');
  const together = views.filter(({ id }) => ids.includes(id));
  const several = together.slice(0, MOST_COMPARED);
  const pose = scout ?? flown ?? target;
  const sample = useMemo<CameraSample | null>(() => (pose ? standing(pose, lens) : null), [pose, lens]);
  const ground = useMemo(() => (site ? new Ground(site.footing.floors, site.survey) : null), [site]);
  const roomOf = ({ position }: Pose) => (site && roomOfEye(position, site.survey.storeys)?.name) ?? '';
  // After the flight has asked where it begins: at what was seen before.
  useEffect(() => {
    leaving.current = pose;
  });
  // Where a flight ends: what cards say and change.
  const still = scout ?? target;
  const keep = () => void (sample && keepView(document, sample, light, row?.body.frame));
  const compare = () => {
    if (several.length > 1) setComparing(true);
    else toast(`Choose two to ${MOST_COMPARED} views in the list first: hold Ctrl or Shift and press them.`);
  };
  useRemembering({ projectId: project.id, scout, lens, light, frame: row?.body.frame, aspect, shown: scene !== null });
  useScoutCommands({ canKeep: sample !== null, onKeep: keep });
  useCommands([
    {
      id: 'view.update',
      label: 'Update the view to what you see',
      group: 'Picture',
      when: () => row !== null && !row.body.locked && workbench.get().scout !== null,
      run: () => setUpdating(true),
    },
    {
      id: 'view.sheet',
      label: 'Contact sheet of the views',
      group: 'Picture',
      when: () => views.length > 0,
      run: () => setSheet(true),
    },
    { id: 'view.suggest', label: 'Suggest views', group: 'Picture', run: () => setSuggesting(true) },
    { id: 'view.carry', label: 'Views out and in', group: 'Picture', run: () => setCarrying(true) },
    { id: 'view.compare', label: 'Compare the chosen views', group: 'Picture', keys: 'c', run: compare },
    { id: 'view.guides', label: 'Show or hide the guides', group: 'Picture', keys: 'g', run: () => setGuides(!guides) },
  ]);

  if (models.length === 0) return <NeedsModel />;
  if (error) return <Empty title="The model’s plan could not be loaded">{error.message}</Empty>;
  if (!sample || !still) return <SiteComing />;

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
          lensText(view.body.lens),
          STATUS[view.body.status ?? 'draft'].toLowerCase(),
          ...(view.body.locked ? ['locked'] : []),
        ].join(' · ')
      }
      words={({ body }) => [...(body.tags ?? []), roomOf(body.pose), STATUS[body.status ?? 'draft']].join(' ')}
      empty="No views yet. Look around in the picture and keep what you like, or let some be suggested."
      footer={
        <div className="grid min-w-0 gap-1.5">
          <RecentRow views={views} />
          <div className="grid grid-cols-2 gap-1.5">
            <Button tone="primary" icon={<Plus size={14} />} className="justify-center" onClick={keep}>
              Keep view
            </Button>
            <Button icon={<Lightbulb size={14} />} className="justify-center" onClick={() => setSuggesting(true)}>
              Suggest
            </Button>
            <Button
              icon={<LayoutGrid size={14} />}
              className="justify-center"
              disabled={views.length === 0}
              onClick={() => setSheet(true)}
            >
              Contact sheet
            </Button>
            <Button icon={<ArrowRightLeft size={14} />} className="justify-center" onClick={() => setCarrying(true)}>
              Out and in
            </Button>
          </div>
        </div>
      }
    />
  );
  const picture = (
    <ViewPicture
      {...{ row, number: row ? views.indexOf(row) + 1 : 0, sample, still, target, ground, guides, eyeHeight }}
      eye={() => workbench.get().scout ?? leaving.current}
      onGuides={() => setGuides(!guides)}
      onKeep={keep}
      onUpdate={() => setUpdating(true)}
      onCompare={compare}
    />
  );
  const compared = (
    <CompareViews
      rows={several}
      onClose={() => setComparing(false)}
      onChoose={(id) => {
        setComparing(false);
        workbench.selectView(id);
      }}
    />
  );
  const plan = site && ground && <StandPlan {...{ site, ground, views, row, sample, lens, aspect, eyeHeight }} />;
  const centre = (
    <Panels
      id="views-centre"
      direction="vertical"
      panels={[
        { id: 'large', min: 240, content: comparing && several.length > 1 ? compared : picture },
        { id: 'stand', size: '30%', min: 110, content: plan },
      ]}
    />
  );
  return (
    <LitBy light={light}>
      {sheet && <ContactSheetDialog {...{ views, site }} chosen={together} onClose={() => setSheet(false)} />}
      {suggesting && (
        <SuggestDialog
          {...{ lens, aspect, eyeHeight, light }}
          frame={row?.body.frame}
          onClose={() => setSuggesting(false)}
        />
      )}
      {carrying && (
        <Suspense>
          <CarryDialog views={views} chosen={together} onClose={() => setCarrying(false)} />
        </Suspense>
      )}
      {updating && row && scout && (
        <UpdateDialog row={row} sample={sample} aspect={aspect} onClose={() => setUpdating(false)} />
      )}
      <Panels
        id="views"
        panels={[
          { id: 'shelf', size: 250, min: 180, content: shelf },
          { id: 'centre', min: 360, content: centre },
          {
            id: 'cards',
            size: 270,
            min: 220,
            content: <ViewCards row={row} rows={together} pose={still} site={site} />,
          },
        ]}
      />
    </LitBy>
  );
}

function Thumbnail({ number, sha256 }: { number: number; sha256: string | null }) {
  return (
    <span className="relative h-[46px] w-[82px] shrink-0 overflow-hidden rounded-md bg-surround">
      {sha256 && <img src={fileUrl(sha256)} alt="" className="h-full w-full object-contain" />}
      <span className="absolute top-0.5 left-0.5 rounded bg-surround/85 px-1 text-xs font-semibold text-surround-ink">
        {number}
      </span>
    </span>
  );
}
