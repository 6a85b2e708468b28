import { allRows, type Kind, type ProjectDocument, type Row } from '@eskovan/core/document';
import { QueryClient } from '@tanstack/react-query';
import { create } from 'zustand';
import { serverDoor } from './door.ts';
import { Outbox, type Conflict, type SavedState } from './outbox.ts';
import { BrowserOutboxStorage } from './outbox-storage.ts';
import { applyChange, invertChange, putRow, redoable, type RowChange } from './row-change.ts';

export const queryClient = new QueryClient({
  defaultOptions: { queries: { staleTime: 30_000, retry: 2, refetchOnWindowFocus: true } },
});

export const projectKey = (projectId: string) => ['project', projectId] as const;

/** Steps of undo that are kept. */
const STEPS = 200;

/** One thing a person did: a few row changes and what takes them back. */
interface Step {
  label: string;
  done: RowChange[];
  undo: RowChange[];
}

interface EditState {
  saved: SavedState;
  savedAt: number | null;
  conflicts: Conflict[];
  /** Undo and redo by project. */
  past: Record<string, Step[]>;
  future: Record<string, Step[]>;
}

export const useEdits = create<EditState>()(() => ({
  saved: { state: 'saved' },
  savedAt: null,
  conflicts: [],
  past: {},
  future: {},
}));

let confirmed = 0;
/** Counts the writes of this page that the server has confirmed. */
export const confirmedWrites = () => confirmed;

const tab = crypto.randomUUID();
// Held as long as this page lives: other pages see by it which unsent edits are abandoned.
void navigator.locks?.request(`eskovan-tab-${tab}`, () => new Promise(() => {}));

const outbox = new Outbox(
  new BrowserOutboxStorage(),
  serverDoor,
  {
    onState: (saved) => useEdits.setState(saved.state === 'saved' ? { saved, savedAt: Date.now() } : { saved }),
    onConfirmed: (kind, row, last) => {
      confirmed += 1;
      const projectId = row.projectId;
      patch(projectId, (document) => (last ? putRow(document, kind, row) : document));
    },
    onConflict: (conflict) => useEdits.setState(({ conflicts }) => ({ conflicts: [...conflicts, conflict] })),
  },
  tab,
);

function patch(projectId: string, change: (document: ProjectDocument) => ProjectDocument): void {
  queryClient.setQueryData<ProjectDocument>(projectKey(projectId), (document) => document && change(document));
}

/** A document fresh from the server, with our unsaved edits on top of it. */
export function mergePending(document: ProjectDocument): ProjectDocument {
  for (const row of allRows(document)) outbox.seen(row.id, row.revision);
  return outbox.pending(document.project.id).reduce((merged, entry) => applyChange(merged, entry.change), document);
}

/** Takes over edits that a closed or crashed page could not save. */
export async function adoptAbandonedEdits(): Promise<number> {
  const held = (await navigator.locks?.query())?.held ?? [];
  const alive = new Set(held.map((lock) => lock.name?.replace('eskovan-tab-', '')));
  return (await outbox.adopt((owner) => !alive.has(owner))).length;
}

/** Does something to a project: shown at once, recorded for undo, saved behind. */
export function dispatch(projectId: string, label: string, changes: readonly RowChange[]): void {
  const undo: RowChange[] = [];
  patch(projectId, (document) =>
    changes.reduce((next, change) => {
      const inverse = invertChange(next, change);
      if (inverse) undo.unshift(inverse);
      return applyChange(next, change);
    }, document),
  );
  for (const change of changes) void outbox.add(projectId, change);
  useEdits.setState(({ past, future }) => ({
    past: { ...past, [projectId]: [...(past[projectId] ?? []), { label, done: [...changes], undo }].slice(-STEPS) },
    future: { ...future, [projectId]: [] },
  }));
}

/** Saves without a step of undo: pictures and numbers that follow from what was done. */
export function saveQuietly(projectId: string, change: RowChange): void {
  patch(projectId, (document) => applyChange(document, change));
  void outbox.add(projectId, change);
}

/** Takes back the last step. Returns what it was, or null. */
export function undo(projectId: string): string | null {
  return shift(projectId, 'past', 'future', (step) => step.undo);
}

export function redo(projectId: string): string | null {
  return shift(projectId, 'future', 'past', (step) => step.done);
}

function shift(
  projectId: string,
  from: 'past' | 'future',
  to: 'past' | 'future',
  pick: (step: Step) => RowChange[],
): string | null {
  const state = useEdits.getState();
  const step = state[from][projectId]?.at(-1);
  if (!step) return null;
  patch(projectId, (document) =>
    pick(step).reduce((next, change) => {
      const current = redoable(change, next);
      void outbox.add(projectId, current);
      return applyChange(next, current);
    }, document),
  );
  useEdits.setState((now) => ({
    [from]: { ...now[from], [projectId]: now[from][projectId]!.slice(0, -1) },
    [to]: { ...now[to], [projectId]: [...(now[to][projectId] ?? []), step] },
  }));
  return step.label;
}

export const retrySaving = () => outbox.retry();

/** Ends a conflict as the person decided. */
export async function resolveConflict(conflict: Conflict, decision: 'mine' | 'theirs' | 'both'): Promise<void> {
  const { entry, theirs } = conflict;
  const { id, kind } = entry.change;
  useEdits.setState(({ conflicts }) => ({ conflicts: conflicts.filter((other) => other !== conflict) }));
  if (decision === 'mine' && theirs) {
    outbox.overwrite(id, theirs.revision);
    return;
  }
  const mine = currentRow(entry.projectId, kind, id);
  await outbox.discard(id);
  if (theirs) {
    outbox.seen(id, theirs.revision);
    patch(entry.projectId, (document) => putRow(document, kind, theirs));
  } else patch(entry.projectId, (document) => applyChange(document, { op: 'delete', kind, id }));
  if (decision !== 'theirs' && mine)
    dispatch(entry.projectId, `Keep my ${mine.name}`, [
      {
        op: 'create',
        kind,
        id: crypto.randomUUID(),
        name: `${mine.name} (mine)`.slice(0, 120),
        order: mine.order + 0.5,
        body: mine.body,
      },
    ]);
}

/** A row as it is at this instant, all edits so far included: what the next edit must build on. */
export function currentRow(projectId: string, kind: Kind, id: string): Row | undefined {
  const document = queryClient.getQueryData<ProjectDocument>(projectKey(projectId));
  if (!document) return undefined;
  return kind === 'project' ? document.project : (document[kind] as Row[]).find((row) => row.id === id);
}
