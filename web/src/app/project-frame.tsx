import { Suspense, useEffect } from 'react';
import { Link, Outlet, useParams } from 'react-router';
import { ApiError } from '../data/api.ts';
import { ProjectProvider, useLiveUpdates, useProjectDocument } from '../data/use-project.ts';
import { Empty } from '../kit/index.ts';
import { warmPicture } from '../picture/client.ts';
import { askForSite, useSiteKeeper } from '../site/use-site-keeper.ts';
import { ConflictDialog } from './conflict-dialog.tsx';
import { Shortcuts } from './shortcuts.tsx';
import { TopBar } from './top-bar.tsx';
import { workbench } from './workbench.ts';

/** The frame of every project screen. */
export function ProjectFrame() {
  const { projectId = '' } = useParams();
  const { data, error, refetch } = useProjectDocument(projectId, askForSite);
  useLiveUpdates(projectId);
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
      <div className="flex h-full flex-col">
        <TopBar />
        <main className="min-h-0 flex-1">
          <Suspense fallback={<Empty title="One moment…" />}>
            <Outlet />
          </Suspense>
        </main>
      </div>
      <Shortcuts />
      <ConflictDialog />
    </ProjectProvider>
  );
}
