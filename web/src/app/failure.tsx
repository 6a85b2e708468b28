import { Link, useRouteError } from 'react-router';

/** The last net: says what happened; everything made so far is saved or waiting on this machine. */
export function Failure({ missing }: { missing?: boolean }) {
  const error = useRouteError();
  const message = missing
    ? 'There is no such page.'
    : error instanceof Error
      ? error.message
      : 'Something unexpected happened.';
  return (
    <main className="flex h-full flex-col items-center justify-center gap-3 p-8 text-center">
      <h1 className="text-xl font-semibold">{missing ? 'Nothing here' : 'This screen could not be shown'}</h1>
      <p className="max-w-lg text-ink-soft">{message}</p>
      {!missing && (
        <p className="max-w-lg text-ink-soft">Nothing you made is lost. Reload the page, or go back to the projects.</p>
      )}
      <Link to="/" className="font-medium text-lagoon underline">
        To the projects
      </Link>
    </main>
  );
}
