import {
  allRows,
  applyEdit,
  AS_IT_CAME,
  DEFAULT_LENS,
  DOCUMENT_VERSION,
  editSchema,
  projectBodySchema,
  type BodyOf,
  type Edit,
  type FileRef,
  type Kind,
  type ProjectDocument,
  type Row,
  type Walk,
} from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, waitFor } from '@testing-library/react';
import { Tooltip } from 'radix-ui';
import type { ReactElement } from 'react';
import { MemoryRouter } from 'react-router';
import { forgetProject, projectKey, queryClient, takeDocument, useEdits } from '../data/edits.ts';
import { beginEdit, useUndo } from '../data/undo.ts';
import { useCommandKeys } from '../desk/commands.ts';
import { selection } from '../desk/selection.ts';
import { FieldGesturesProvider } from '../kit/index.ts';
import { ProjectProvider, useProjectDocument } from '../data/use-project.ts';

export const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
export const PROJECT = uuid(1);

export function exampleRow<K extends Kind>(id: number, name: string, body: BodyOf<K>, order = id): Row<K> {
  const now = '2026-01-01T00:00:00.000Z';
  return {
    id: uuid(id),
    projectId: PROJECT,
    name,
    order,
    body,
    version: DOCUMENT_VERSION,
    revision: 1,
    created: now,
    updated: now,
    deleted: null,
  };
}

export const exampleWalk = (points: readonly (readonly [number, number])[]): Walk => ({
  kind: 'walk',
  path: {
    closed: false,
    nodes: points.map(([x, z], i) => ({ id: uuid(900 + i), x, y: 0, z, kind: 'smooth', radius: 0.5 })),
  },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
  gaze: { kind: 'ahead', distance: 2 },
  lens: DEFAULT_LENS,
});

export const exampleView = (): BodyOf<'view'> => ({
  pose: { position: [1, 1.6, 2], orientation: [0, 0, 0, 1] },
  lens: DEFAULT_LENS,
  thumbnail: null,
});

export const exampleModel = (change: Partial<BodyOf<'model'>> = {}): BodyOf<'model'> => ({
  fileName: 'a.glb',
  source: exampleFile('0'),
  packed: { file: exampleFile('1'), reader: READER },
  declares: { metresPerUnit: null, up: null },
  bounds: { min: [0, 0, 0], max: [1, 1, 1] },
  guess: null,
  settled: false,
  triangles: 12,
  placement: AS_IT_CAME,
  hidden: false,
  parts: {},
  materials: {},
  movements: [],
  notes: [],
  ...change,
});

/** A kept file whose name is made of one hexadecimal digit. */
export const exampleFile = (digit: string): FileRef => ({
  sha256: digit.repeat(64),
  size: 10,
  mediaType: 'application/octet-stream',
});

export function exampleDocument(change: Partial<ProjectDocument> = {}): ProjectDocument {
  const body = projectBodySchema.parse({});
  const lists = { model: [], action: [], light: [], move: [], view: [], reel: [], shot: [], take: [], link: [] };
  return { project: exampleRow(1, 'Ternholm', body), seq: 1, unreadable: [], ...lists, ...change };
}

/** What the page has asked the server for. */
export interface Asked {
  method: string;
  path: string;
  body: unknown;
}

/** A server that applies every edit and remembers what it was asked. */
let rows = new Map<string, Row>();

/** Somebody else has changed a row on the server. */
export const putOnServer = (row: Row): void => void rows.set(row.id, row);

export function fakeServer(document: ProjectDocument): Asked[] {
  const asked: Asked[] = [];
  rows = new Map();
  let seq = document.seq;
  for (const row of allRows(document)) rows.set(row.id, row);
  const reply = (status: number, json: unknown) =>
    Promise.resolve({ ok: status < 400, status, statusText: '', json: () => Promise.resolve(json) } as Response);
  globalThis.fetch = ((path: string, init: RequestInit = {}) => {
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as Record<string, unknown>) : undefined;
    asked.push({ method: init.method ?? 'GET', path, body });
    if (path.endsWith('/document')) return reply(200, document);
    if (path.endsWith('/api/settings')) return reply(200, { reviewAddress: 'http://review.example' });
    if (/\/(sites|lit)\//.test(path)) return reply(204, null);
    if (!path.endsWith('/edits')) return reply(404, { code: 'not-found', message: 'There is nothing here.' });
    const applied = applyEdit(editSchema.parse(body), (_, id) => rows.get(id), '2026-01-01T00:00:01.000Z');
    if (applied.clashes.length > 0)
      return reply(409, { code: 'conflict', message: 'changed', clashes: applied.clashes, rows: [] });
    seq += 1;
    const changed = applied.rows.map(({ kind, row }) => ({ kind, row: { ...row, revision: row.revision + 1 } }));
    for (const { row } of changed) rows.set(row.id, row);
    return reply(200, { seq, rows: changed });
  }) as typeof fetch;
  return asked;
}

/** The edits that were asked of the server, oldest first. */
export const editsIn = (asked: readonly Asked[]): Edit[] =>
  asked.filter(({ path }) => path.endsWith('/edits')).map(({ body }) => editSchema.parse(body));

function Frame({ children }: { children: ReactElement }) {
  useCommandKeys();
  const { data } = useProjectDocument(PROJECT);
  return data ? <ProjectProvider value={data}>{children}</ProjectProvider> : null;
}

/** Shows something inside a project, on a server of its own. Returns what was asked of the server. */
export function renderInProject(element: ReactElement, document: ProjectDocument): Asked[] {
  const asked = fakeServer(document);
  forgetProject(PROJECT);
  selection.clear();
  useUndo.setState({ past: {}, future: {}, question: null });
  queryClient.setQueryData(projectKey(PROJECT), takeDocument(document));
  render(
    <QueryClientProvider client={queryClient}>
      <Tooltip.Provider>
        <MemoryRouter>
          <FieldGesturesProvider value={beginEdit}>
            <Frame>{element}</Frame>
          </FieldGesturesProvider>
        </MemoryRouter>
      </Tooltip.Provider>
    </QueryClientProvider>,
  );
  return asked;
}

/** The document as the page has it now. */
export const shownDocument = () => queryClient.getQueryData<ProjectDocument>(projectKey(PROJECT))!;

/** Takes the screen away once everything that was made on it is saved: nothing reaches into the next test. */
export async function leaveProject(): Promise<void> {
  await waitFor(() => {
    if (useEdits.getState().saved.state !== 'saved') throw new Error('still saving');
  });
  cleanup();
}
