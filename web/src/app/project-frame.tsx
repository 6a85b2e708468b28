import { lengthUnitOf } from '@eskovan/core/document';
import { Suspense, useEffect, type ReactNode } from 'react';
import { Link, Outlet, useParams } from 'react-router';
import { ApiError } from '../data/api.ts';
import { ProjectProvider, useProject, useProjectDocument } from '../data/use-project.ts';
import { Empty, LengthUnitProvider } from '../kit/index.ts';
import { warmPicture } from '../picture/client.ts';
import { SiteDataProvider, useFetchedSite, useSite } from '../site/use-site.ts';
import { askForSite, useSiteKeeper } from '../site/use-site-keeper.ts';
import { ConflictDialog } from './conflict-dialog.tsx';
import { FrameCommands } from './frame-commands.tsx';
import { TopBar } from './top-bar.tsx';
import { UndoQuestionDialog } from './undo-question.tsx';
import { workbench } from '../desk/workbench.ts';

/** The frame of every project screen. */
export function ProjectFrame() {
  const { projectId = '' } = useParams();
  const { data, error, refetch } = useProjectDocument(projectId, askForSite);
  useSiteKeeper(projectId, data);
  useEffect(() => workbench.open(projectId), [projectId]);
  useEffect(warmPicture, []);
  useEffect(() => {
    document.title = data ? `${data.project.name} · Eskovan` : 'Eskovan';
  }, [data]);

  if (!data && error) {
    const gone = error instanceof ApiError && error.status === 404;
    return (
      <Empty
        title={gone ? 'This project is not here any more' : 'The project could not be opened'}
        action={
          gone ? (
            <Link className="font-medium text-lagoon underline" to="/">
              To the projects
            </Link>
          ) : (
            <button type="button" className="font-medium text-lagoon underline" onClick={() => void refetch()}>
              Try again
            </button>
          )
        }
      >
        {error.message}
      </Empty>
    );
  }
  if (!data) return <Empty title="Opening the project…" />;
  return (
    <ProjectProvider value={data}>
      <OfSite>
        <div className="flex h-full flex-col">
          <TopBar />
          <Unreadable />
          <main className="min-h-0 flex-1">
            <Suspense fallback={<Empty title="One moment…" />}>
              <Outlet />
            </Suspense>
          </main>
        </div>
      </OfSite>
      <FrameCommands />
      <ConflictDialog />
      <UndoQuestionDialog />
    </ProjectProvider>
  );
}

/** What all screens know of the site; lengths of a product are millimetres. */
function OfSite({ children }: { children: ReactNode }) {
  const site = useSite();
  return (
    <LengthUnitProvider value={lengthUnitOf(site?.bounds ?? null)}>
      <SiteDataProvider value={useFetchedSite()}>{children}</SiteDataProvider>
    </LengthUnitProvider>
  );
}

/** Rows that this program cannot read are left as they are, and said. */
function Unreadable() {
  const { unreadable } = useProject();
  if (unreadable.length === 0) return null;
  return (
    <p role="status" className="border-b border-rule bg-paper px-4 py-1.5 text-madder">
      {unreadable.length === 1
        ? `“${unreadable[0]!.name}” cannot be shown.`
        : `${unreadable.length} things cannot be shown.`}{' '}
      {unreadable[0]!.reason} Everything else is here, and nothing of it is changed.
    </p>
  );
}
