import { afterEach, expect, test } from '@jest/globals';
import {
  CHILD_KINDS,
  projectCardSchema,
  type LiveEvent,
  type LogEntry,
  type ProjectDocument,
} from '@eskovan/core/document';
import { QueryClientProvider, useQuery } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import type { ReactElement } from 'react';
import { z } from 'zod';
import { exampleDocument, exampleRow, exampleView, PROJECT, uuid } from '../testing/studio.tsx';
import { request } from './api.ts';
import { askEarly } from './early-reply.ts';
import { forgetProject, queryClient } from './edits.ts';
import { startLive } from './live.ts';
import { useProjectDocument } from './use-project.ts';

/** The stream of the server, told by hand. */
class Stream {
  static onmessage: ((event: { data: string }) => void) | null = null;
  set onmessage(listener: (event: { data: string }) => void) {
    Stream.onmessage = listener;
  }
}
Object.assign(globalThis, { EventSource: Stream });
startLive();
const tell = (event: LiveEvent) => Stream.onmessage!({ data: JSON.stringify(event) });

/** A server whose answers wait until they are let go; each is what it was when it was asked for. */
function slowServer(now: (path: string) => unknown) {
  const waiting: { path: string; go: () => void }[] = [];
  globalThis.fetch = ((path: string) => {
    const json = now(path);
    return new Promise((resolve) =>
      waiting.push({
        path,
        go: () => resolve({ ok: true, status: 200, statusText: '', json: () => Promise.resolve(json) } as Response),
      }),
    );
  }) as typeof fetch;
  return waiting;
}

const added = exampleRow(72, 'Stair', exampleView());
const entry: LogEntry = {
  seq: 2,
  id: uuid(500),
  projectId: PROJECT,
  label: 'Keep view',
  by: { id: uuid(600), name: 'Ilse' },
  machine: false,
  at: '2026-01-01T00:00:00.000Z',
  touched: [{ kind: 'view', id: added.id, revision: 1 }],
};

const shown = (element: ReactElement) =>
  render(<QueryClientProvider client={queryClient}>{element}</QueryClientProvider>);

afterEach(() => {
  cleanup();
  queryClient.clear();
  forgetProject(PROJECT);
});

function Names() {
  const { data } = useProjectDocument(PROJECT);
  return <p>{data ? data.view.map(({ name }) => name).join(', ') : 'nothing yet'}</p>;
}

test('what was done between an early answer and the beginning of the stream is asked for', async () => {
  const before: ProjectDocument = exampleDocument({ view: [exampleRow(71, 'Hall', exampleView())] });
  const waiting = slowServer((path) =>
    path.endsWith('/document') ? before : { seq: 2, whole: false, rows: [{ kind: 'view', row: added }], edits: [] },
  );
  // The page asks while it reads its own code; then somebody adds a view; then the stream begins, before anything is drawn.
  askEarly(PROJECT);
  tell({ kind: 'hello', seq: 2 });
  shown(<Names />);
  waiting[0]!.go();
  await waitFor(() => expect(waiting).toHaveLength(2));
  waiting[1]!.go();
  expect(await screen.findByText('Hall, Stair')).toBeTruthy();
});

test.each(['edit', 'hello'] as const)(
  'what is told (%s) while a project is on its way for the first time is asked for when it is there',
  async (kind) => {
    const before: ProjectDocument = exampleDocument({ view: [exampleRow(71, 'Hall', exampleView())] });
    const waiting = slowServer((path) =>
      path.endsWith('/document') ? before : { seq: 2, whole: false, rows: [{ kind: 'view', row: added }], edits: [] },
    );
    shown(<Names />);
    await waitFor(() => expect(waiting).toHaveLength(1));
    tell(kind === 'edit' ? { kind, entry } : { kind, seq: 2 });
    waiting[0]!.go();
    await waitFor(() => expect(waiting.map(({ path }) => path)).toContain(`/api/projects/${PROJECT}/changes?after=1`));
    waiting[1]!.go();
    await waitFor(() => expect(screen.getByText('Hall, Stair')).toBeTruthy());
  },
);

function List() {
  const { data } = useQuery({
    queryKey: ['projects'],
    queryFn: () => request('GET', '/api/projects', { schema: z.array(projectCardSchema) }),
  });
  return <p>{data ? `${data.length} projects` : 'nothing yet'}</p>;
}

test('a project made while the list of all is on its way for the first time is in the list', async () => {
  const { project } = exampleDocument();
  let all: unknown[] = [];
  const waiting = slowServer(() => all);
  shown(<List />);
  await waitFor(() => expect(waiting).toHaveLength(1));
  all = [{ project, cover: null, counts: Object.fromEntries(CHILD_KINDS.map((kind) => [kind, 0])) }];
  tell({ kind: 'edit', entry });
  waiting[0]!.go();
  await waitFor(() => expect(waiting).toHaveLength(2));
  waiting[1]!.go();
  await waitFor(() => expect(screen.getByText('1 projects')).toBeTruthy());
});
