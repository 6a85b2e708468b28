import { CircleAlert } from 'lucide-react';
import { useEffect, type ReactNode } from 'react';
import { useProject } from '../../data/use-project.ts';
import { Button, Panels, Progress } from '../../kit/index.ts';
import { dismissFailure, importModels, STEPS, useImport } from '../../site/import-model.ts';
import { warmReader } from '../../site/read-file.ts';
import { useSiteState } from '../../site/site-state.ts';
import { retrySite } from '../../site/use-site-keeper.ts';
import { useModels } from '../../site/use-site.ts';
import { useWorkbench } from '../../desk/workbench.ts';
import { LitBy } from '../shared/lit-by.tsx';
import { SITE_STEPS } from '../shared/site-coming.tsx';
import { ActionsCard } from './actions-card.tsx';
import { CamerasCard, ChangesCard, LostCard } from './came-with-card.tsx';
import { DropModel } from '../shared/drop-model.tsx';
import { ModelPicture } from './model-picture.tsx';
import { ModelsShelf } from './models-shelf.tsx';
import { MaterialCard } from './material-card.tsx';
import { PartCard } from './part-card.tsx';
import { useChosenModel } from './edit-parts.ts';
import { PartsPane } from './parts-pane.tsx';
import { RightCard } from './right-card.tsx';
import { StoreysCard } from './storeys-card.tsx';
import { LightsCard } from './lights-card.tsx';
import { PlaceCard } from './place-card.tsx';
import { WalkerCard } from './walker-card.tsx';

/** Bring models in, see that they are right, understand them. */
export function ModelScreen() {
  const { project } = useProject();
  const count = useModels().length;
  const row = useChosenModel();
  const light = useWorkbench((state) => state.light);
  const running = useImport((state) => (state.running?.projectId === project.id ? state.running : null));
  useEffect(() => {
    // The first picture goes first.
    const timer = setTimeout(warmReader, count === 0 ? 0 : 4000);
    return () => clearTimeout(timer);
  }, [count]);
  const take = (files: readonly File[]) => void importModels(project.id, files);
  if (!row)
    return (
      <div className="mx-auto flex h-full max-w-160 flex-col justify-center gap-3 p-8">
        <Notices />
        {!running && (
          <div className="h-80">
            <DropModel onFiles={take} />
          </div>
        )}
      </div>
    );
  const shelf = (
    <Panels
      id="model-shelf"
      direction="vertical"
      panels={[
        { id: 'models', size: 372, min: 170, content: <ModelsShelf selectedId={row.id} onFiles={take} /> },
        { id: 'parts', min: 120, content: <PartsPane /> },
      ]}
    />
  );
  return (
    <LitBy light={light}>
      <Panels
        id="model"
        panels={[
          { id: 'shelf', size: 236, min: 180, content: shelf },
          { id: 'picture', min: 360, content: <ModelPicture row={row} /> },
          {
            id: 'facts',
            size: 322,
            min: 270,
            content: (
              <div className="grid h-full grid-cols-[minmax(0,1fr)] content-start gap-2.5 overflow-y-auto p-2.5">
                <Notices />
                <PartCard />
                <MaterialCard />
                <RightCard key={row.id} row={row} />
                <ActionsCard />
                <StoreysCard />
                <LightsCard />
                <PlaceCard />
                <WalkerCard />
              </div>
            ),
          },
        ]}
      />
    </LitBy>
  );
}

/** What is going on, what went wrong, and what came with the last file. */
function Notices() {
  const { project } = useProject();
  const running = useImport((state) => (state.running?.projectId === project.id ? state.running : null));
  const failure = useImport((state) => (state.failure?.projectId === project.id ? state.failure : null));
  const working = useSiteState((state) => (state.projectId === project.id ? state.working : null));
  const error = useSiteState((state) => (state.projectId === project.id ? state.error : null));
  return (
    <>
      {running && (
        <div role="status" className="rounded-[10px] border border-rule bg-paper p-3">
          <p className="mb-2 flex items-baseline justify-between gap-3">
            <span className="truncate font-semibold">{running.fileName}</span>
            <span className="shrink-0 text-ink-soft">{STEPS[running.step]}…</span>
          </p>
          <Progress label={`Bringing in ${running.fileName}`} fraction={running.fraction} />
          <div className="mt-2 text-right">
            <Button small onClick={running.cancel}>
              Cancel
            </Button>
          </div>
        </div>
      )}
      {!running && working && (
        <div role="status" className="rounded-[10px] border border-rule bg-paper p-3">
          <p className="mb-2 text-ink-soft">{SITE_STEPS[working.step]}…</p>
          <Progress label={SITE_STEPS[working.step]} fraction={working.fraction} />
        </div>
      )}
      {failure && (
        <Alarm action="Understood" onAction={dismissFailure}>
          {failure.message} Nothing was changed.
        </Alarm>
      )}
      {error && (
        <Alarm action="Try again" onAction={retrySite}>
          The models could not be measured. {error}
        </Alarm>
      )}
      <CamerasCard />
      <ChangesCard />
      <LostCard />
    </>
  );
}

function Alarm({ children, action, onAction }: { children: ReactNode; action: string; onAction: () => void }) {
  return (
    <div role="alert" className="rounded-[10px] border border-madder bg-paper p-3">
      <p className="mb-2 flex gap-2">
        <CircleAlert size={16} className="mt-0.5 shrink-0 text-madder" aria-hidden />
        <span className="min-w-0 break-words">{children}</span>
      </p>
      <Button small onClick={onAction}>
        {action}
      </Button>
    </div>
  );
}
