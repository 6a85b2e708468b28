import { reviewPageSchema, type ReviewPage as Page } from '@eskovan/core/document';
import { useEffect, useState } from 'react';
import { request } from '../data/api.ts';

/** What a client sees: the project's name, its films and stills, its views. Works on a phone. */
export function ReviewPage({ token }: { token: string }) {
  const [page, setPage] = useState<Page | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  useEffect(() => {
    const controller = new AbortController();
    request('GET', `/api/review/${encodeURIComponent(token)}`, {
      schema: reviewPageSchema,
      signal: controller.signal,
    }).then(setPage, (error: Error) => {
      if (!controller.signal.aborted) setProblem(error.message);
    });
    return () => controller.abort();
  }, [token]);
  useEffect(() => {
    if (page) document.title = page.project;
  }, [page]);
  if (problem)
    return (
      <main className="flex h-full flex-col items-center justify-center gap-2 p-8 text-center">
        <h1 className="text-xl font-semibold">This page cannot be shown</h1>
        <p className="max-w-96 text-ink-soft">{problem}</p>
      </main>
    );
  if (!page) return <main className="flex h-full items-center justify-center text-ink-soft">One moment…</main>;
  const file = (sha256: string) => `/api/review/${token}/files/${sha256}`;
  const take = page.takes.find(({ id }) => id === chosen) ?? page.takes[0];
  return (
    // It scrolls, so it can be reached by keys.
    <div role="group" aria-label={page.project} tabIndex={0} className="h-full overflow-y-auto bg-desk">
      <header className="mx-auto flex max-w-280 items-baseline justify-between gap-4 px-5 pt-6 pb-4">
        <h1 className="text-2xl font-semibold">{page.project}</h1>
        <p className="text-ink-soft">{page.round}</p>
      </header>
      <main className="mx-auto grid max-w-280 gap-8 px-5 pb-12">
        {take && (
          <section aria-label={take.name}>
            <div className="overflow-hidden rounded-[10px] bg-surround">
              {take.kind === 'video' ? (
                <video
                  key={take.id}
                  src={file(take.file)}
                  poster={take.poster ? file(take.poster) : undefined}
                  controls
                  playsInline
                  className="mx-auto max-h-[72vh] w-full"
                  aria-label={take.name}
                />
              ) : (
                <img src={file(take.file)} alt={take.name} className="mx-auto max-h-[72vh]" />
              )}
            </div>
            <p className="mt-2 flex justify-between text-lg">
              <span className="font-medium">{take.name}</span>
              {take.seconds !== null && (
                <span className="font-mono text-base text-ink-faint">{take.seconds.toFixed(1)} s</span>
              )}
            </p>
          </section>
        )}
        {page.takes.length > 1 && (
          <section aria-label="Films and stills">
            <ul className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-3">
              {page.takes.map((other) => (
                <li key={other.id}>
                  <button
                    type="button"
                    aria-current={other.id === take?.id}
                    onClick={() => setChosen(other.id)}
                    className="block w-full overflow-hidden rounded-[10px] border border-rule bg-paper text-left aria-[current=true]:border-lagoon"
                  >
                    <span className="block aspect-video bg-surround">
                      {other.poster && <img src={file(other.poster)} alt="" className="h-full w-full object-cover" />}
                    </span>
                    <span className="block truncate px-2.5 py-1.5 font-medium">{other.name}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
        {page.views.length > 0 && (
          <section aria-labelledby="views-title">
            <h2 id="views-title" className="mb-3 text-xl font-semibold">
              Views
            </h2>
            <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(320px,100%),1fr))] gap-5">
              {page.views.map((view, i) => (
                <li key={view.id}>
                  <figure>
                    <div className="aspect-video overflow-hidden rounded-[10px] bg-surround">
                      {view.picture && (
                        <img
                          src={file(view.picture)}
                          alt={view.name}
                          loading="lazy"
                          className="h-full w-full object-cover"
                        />
                      )}
                    </div>
                    <figcaption className="mt-1.5">
                      <span className="mr-2 text-ink-faint">{i + 1}</span>
                      {view.name}
                    </figcaption>
                  </figure>
                </li>
              ))}
            </ul>
          </section>
        )}
      </main>
    </div>
  );
}
