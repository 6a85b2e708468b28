import { aspectOf, eyesOver, frameOf, type Pose, type Row } from '@eskovan/core/document';
import { standing, type CameraSample } from '@eskovan/core/move';
import { lazy, Suspense, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { useCommands } from '../../desk/commands.ts';
import { setFraming, useFraming } from '../../desk/framing.ts';
import { useChosenRows, useLead } from '../../desk/selection.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { liveRows } from '../../data/changes.ts';
import { ProjectProvider, useProject } from '../../data/use-project.ts';
import { useModels, usePictureScene, useSite, useSiteData } from '../../site/use-site.ts';
import { Empty, Panels, useStable } from '../../kit/index.ts';
import { firstLook } from '@eskovan/core/site';
import { Ground, worthSeeing } from '../../picture/eye.ts';
import { LitBy } from '../shared/lit-by.tsx';
import { NeedsModel } from '../shared/needs-model.tsx';
import { SiteComing } from '../shared/site-coming.tsx';
import { useScoutCommands } from '../shared/use-scout-commands.ts';
import { keepView } from '../shared/keep-view.ts';
import { CompareViews, MOST_COMPARED } from './compare-views.tsx';
import { ContactSheetDialog } from './contact-sheet-dialog.tsx';
import { StandPlan } from './stand-plan.tsx';
import { EarlierDialog } from './earlier-dialog.tsx';
import { SuggestDialog } from './suggest-dialog.tsx';
import { UpdateDialog } from './update-dialog.tsx';
import { useFlight } from './use-flight.ts';
import { useRemembering } from './use-remembering.ts';
import { scoutAs, useSeenLens } from './use-seen.ts';
import { useThumbnails } from './use-thumbnails.ts';
import { isOf } from './view-body.ts';
import { ViewCards } from './view-cards.tsx';
import { ViewsShelf, type Gathering } from './views-shelf.tsx';
import { ViewPicture } from './view-picture.tsx';

/** Brings what other programs' formats need: nobody waits for that who only looks. */
const CarryDialog = lazy(async () => ({ default: (await import('./carry-dialog.tsx')).CarryDialog }));

/** Stand somewhere, look somewhere, keep it. */
export function ViewsScreen() {
  const document = useProject();
  const { project } = document;
  const models = useModels();
  const measured = useSite();
  const views = useMemo(() => liveRows(document.view), [document.view]);
  const chosen = useLead('view');
  const row = views.find((view) => view.id === chosen) ?? views[0] ?? null;
  const light = row?.body.light;
  const scene = usePictureScene(light);
  useThumbnails(views, scene, light);
  const { data: site, error } = useSiteData();
  const scout = useWorkbench((state) => state.scout);
  const ofPeople = useWorkbench((state) => state.eyes) ?? project.body.eyeHeight;
  const eyeHeight = measured ? eyesOver(measured.bounds, ofPeople) : ofPeople;
  const frame = frameOf(row?.body ?? null, project.body);
  const aspect = aspectOf({ frame });
  const home = useMemo(
    () => (measured ? firstLook(worthSeeing(measured.bounds, site?.survey ?? null), aspect) : null),
    [measured, site?.survey, aspect],
  );
  const target = row?.body.pose ?? home;
  const leaving = useRef<Pose | null>(null);
  const flights = useFraming((state) => state.flights);
  const flown = useFlight({
    key: row?.id ?? 'home',
    target,
    from: () => leaving.current,
    free: (from, to) => flights && (!site || !site.footing.solids.meets(from.position, to.position)),
  });
  const [guides, setGuides] = useState(true);
  const lens = useSeenLens(row);
  const [updating, setUpdating] = useState(false);
  /** Views that are chosen together, or the one that is shown beside what it was or could be. */
  const [comparing, setComparing] = useState<'chosen' | readonly Row<'view'>[] | null>(null);
  const [lookingBack, setLookingBack] = useState(false);
  const [gathering, setGathering] = useState<Gathering | null>(null);
  const { ids } = useChosenRows('view');
  const together = useMemo(() => views.filter(({ id }) => ids.includes(id)), [views, ids]);
  const several = useMemo(() => {
    if (comparing === null || comparing === 'chosen' || !row) return together.slice(0, MOST_COMPARED);
    // One that is chosen meanwhile has other states.
    return comparing.every(({ id }) => isOf(row, id)) ? comparing.map((one) => (one.id === row.id ? row : one)) : [];
  }, [comparing, row, together]);
  // Plan and picture follow at once, list and cards a moment later: what machines write of hundreds of views holds up no hand.
  const now = useMemo(() => ({ document, views, row, together }), [document, views, row, together]);
  const deferred = useDeferredValue(now);
  // Cards of another view are other cards: what is typed into those that are about to go would be lost.
  const calm = deferred.row?.id === row?.id ? deferred : now;
  const pose = scout ?? flown ?? target;
  const sample = useMemo<CameraSample | null>(() => (pose ? standing(pose, lens) : null), [pose, lens]);
  const ground = useMemo(() => (site ? new Ground(site.footing.floors, site.survey) : null), [site]);
  // After the flight has asked where it begins: at what was seen before.
  useEffect(() => {
    leaving.current = pose;
  });
  // Where a flight ends: what cards say and change.
  const still = scout ?? target;
  // The eye as it is, also where this screen has not been drawn again since it moved.
  const keep = () => {
    const now = workbench.get();
    const eye = now.scout ?? pose;
    const through = (now.scout && now.scoutLens) ?? row?.body.lens ?? lens;
    if (eye) keepView(document, standing(eye, through), light, row?.body.frame);
  };
  const onKeep = useStable(keep);
  const onEarlier = useStable(() => setLookingBack(true));
  const onGathered = () => setGathering(null);
  const onCompared = () => setComparing(null);
  const compare = () => {
    if (together.length > 1) setComparing('chosen');
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
      run: () => setGathering('sheet'),
    },
    { id: 'view.suggest', label: 'Suggest views', group: 'Picture', run: () => setGathering('suggest') },
    { id: 'view.carry', label: 'Views out and in', group: 'Picture', run: () => setGathering('carry') },
    {
      id: 'view.earlier',
      label: 'Look at the view as it was before',
      group: 'Picture',
      when: () => row !== null,
      run: () => setLookingBack(true),
    },
    { id: 'view.compare', label: 'Compare the chosen views', group: 'Picture', keys: 'c', run: compare },
    {
      id: 'view.flights',
      label: flights ? 'Go from view to view at once' : 'Fly from view to view',
      group: 'Picture',
      run: () => setFraming({ flights: !flights }),
    },
    { id: 'view.guides', label: 'Show or hide the guides', group: 'Picture', keys: 'g', run: () => setGuides(!guides) },
  ]);

  if (models.length === 0) return <NeedsModel />;
  if (error) return <Empty title="The model’s plan could not be loaded">{error.message}</Empty>;
  if (!sample || !still) return <SiteComing />;

  const shelf = (
    <ProjectProvider value={calm.document}>
      <ViewsShelf views={calm.views} selectedId={row?.id ?? null} {...{ site, onKeep }} onGather={setGathering} />
    </ProjectProvider>
  );
  const picture = (
    <ViewPicture
      {...{ views, row, sample, still, target, ground, guides, eyeHeight }}
      solids={site?.footing.solids ?? null}
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
      onClose={onCompared}
      onChoose={(id) => {
        onCompared();
        if (comparing === 'chosen' || id === row?.id) workbench.selectView(id);
        else scoutAs(several.find((one) => one.id === id)!.body);
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
      {gathering === 'sheet' && <ContactSheetDialog {...{ views, site }} chosen={together} onClose={onGathered} />}
      {gathering === 'suggest' && (
        <SuggestDialog {...{ lens, aspect, eyeHeight, light }} frame={row?.body.frame} onClose={onGathered} />
      )}
      {gathering === 'carry' && (
        <Suspense>
          <CarryDialog views={views} chosen={together} onClose={onGathered} />
        </Suspense>
      )}
      {lookingBack && row && <EarlierDialog row={row} onClose={() => setLookingBack(false)} onCompare={setComparing} />}
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
            content: (
              <ProjectProvider value={calm.document}>
                <ViewCards
                  row={calm.row}
                  rows={calm.together}
                  pose={still}
                  site={site}
                  onEarlier={onEarlier}
                  onCompare={setComparing}
                />
              </ProjectProvider>
            ),
          },
        ]}
      />
    </LitBy>
  );
}
