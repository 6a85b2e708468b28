import {
  applyEdit,
  DOCUMENT_VERSION,
  foldChanges,
  LONGEST_LABEL,
  readFacet,
  type BodyOf,
  type CatchUp,
  type Change,
  type Clash,
  type Edit,
  type Facet,
  type Kind,
  type ProjectDocument,
  type Row,
} from '@eskovan/core/document';
import { notifyManager, QueryClient } from '@tanstack/react-query';
import { create } from 'zustand';
import { applyChanges, changing, findRow, liveRows, making } from './changes.ts';
import { sendEdit } from './door.ts';
import { Outbox, type Conflict, type SavedState } from './outbox.ts';
import { BrowserOutboxStorage, type OutboxEntry } from './outbox-storage.ts';
import { thisPerson } from './person.ts';
import { thisTab } from './tab.ts';
import { learnChanges, learnDocument, learnRows, type Truth } from './truth.ts';

// What an edit changes is drawn in one go with what else it changes, not a turn later.
notifyManager.setScheduler(queueMicrotask);

export const queryClient = new QueryClient({
  defaultOptions: { queries: { staleTime: 30_000, retry: 2, refetchOnWindowFocus: true } },
});

export const projectKey = (projectId: string) => ['project', projectId] as const;

interface EditState {
  saved: SavedState;
  /** Edits are safe from a closed page only once they are saved: this browser keeps nothing. */
  memoryOnly: boolean;
  conflicts: readonly Conflict[];
  aside: readonly OutboxEntry[];
}

export const useEdits = create<EditState>()(() => ({
  saved: { state: 'saved' },
  memoryOnly: false,
  conflicts: [],
  aside: [],
}));

/** What the server has, by project. */
const truths = new Map<string, Truth>();
/** What a gesture that is under way would make of a project. */
let preview: { projectId: string; changes: Change[] } | null = null;
const dropped = new Set<(edit: Edit) => void>();

const outbox = new Outbox({
  storage: new BrowserOutboxStorage(),
  door: { send: sendEdit },
  owner: thisTab,
  account: () => thisPerson().id,
  events: {
    onState: (saved) => useEdits.setState({ saved }),
    onConfirmed: (edit, reply) => {
      learn(edit.projectId, (truth) => learnRows(truth, reply.rows, reply.seq));
    },
    onHeld: (conflicts, aside) => {
      const now = useEdits.getState();
      // Nothing new is no news: every edit is told of several times.
      if (conflicts.length + aside.length + now.conflicts.length + now.aside.length > 0)
        useEdits.setState({ conflicts, aside });
      for (const { entry, rows } of conflicts)
        learn(entry.edit.projectId, (truth) => learnRows(truth, rows, truth.document.seq));
    },
    onDropped: (edit) => {
      for (const listener of dropped) listener(edit);
      show(edit.projectId);
    },
    onMemoryOnly: () => useEdits.setState({ memoryOnly: true }),
  },
});

/** Tells of edits of ours that will not be saved any more. */
export const onDropped = (listener: (edit: Edit) => void) => dropped.add(listener);

/** The outbox, for those who decide about what it holds. */
export const held = {
  decide: (conflict: Conflict, decision: 'mine' | 'theirs') => {
    outbox.resolve(conflict.entry.edit.id, decision);
    show(conflict.entry.edit.projectId);
  },
  tryAgain: (id: string) => outbox.tryAgain(id),
  drop: (id: string) => outbox.drop(id),
};

/** Takes over edits that closed pages of this browser could not save. */
export const adoptEdits = async (isAbandoned: (owner: string) => boolean): Promise<number> => {
  const adopted = await outbox.adopt(isAbandoned);
  for (const projectId of new Set(adopted.map(({ edit }) => edit.projectId))) show(projectId);
  return adopted.length;
};

function learn(projectId: string, change: (truth: Truth) => Truth): void {
  const truth = truths.get(projectId);
  if (truth) truths.set(projectId, change(truth));
  show(projectId);
}

/** What the server has, our edits that are not confirmed yet, and what the hand is just doing, one on the other. */
function shown(projectId: string): ProjectDocument | undefined {
  const truth = truths.get(projectId);
  if (!truth) return undefined;
  const withEdits = outbox
    .pending(projectId)
    .reduce((document, { edit, at }) => applyChanges(document, edit.changes, at), truth.document);
  return preview?.projectId === projectId
    ? applyChanges(withEdits, preview.changes, truth.document.project.updated)
    : withEdits;
}

function show(projectId: string): void {
  const document = shown(projectId);
  if (document) queryClient.setQueryData(projectKey(projectId), document);
}

/** Takes a document from the server in; gives back what is to be shown of it. */
export function takeDocument(document: ProjectDocument): ProjectDocument {
  const { id } = document.project;
  truths.set(id, learnDocument(truths.get(id) ?? null, document));
  return shown(id)!;
}

/** Forgets what was known of a project: it is read anew. */
export const forgetProject = (projectId: string): void => void truths.delete(projectId);

/** Takes in what others have done. */
export const takeChanges = (projectId: string, changes: Pick<CatchUp, 'rows' | 'seq'>): void =>
  learn(projectId, (truth) => learnChanges(truth, changes));

/** Up to which edit this page knows a project; null where it has not been read. */
export const knownUpTo = (projectId: string): number | null => truths.get(projectId)?.document.seq ?? null;

/** Does this page know a row at this revision? */
export const knowsRevision = (projectId: string, kind: Kind, id: string, revision: number): boolean => {
  const truth = truths.get(projectId);
  return ((truth && findRow(truth.document, kind, id)?.revision) ?? 0) >= revision;
};

/** Has the server a row already, not only this page? */
export const isOnServer = (row: Row): boolean => row.revision > 0;

export function newEdit(projectId: string, label: string, changes: Change[], more: Partial<Edit> = {}): Edit {
  return {
    id: crypto.randomUUID(),
    projectId,
    label: label.trim().slice(0, LONGEST_LABEL) || 'Change',
    by: thisPerson(),
    machine: false,
    version: DOCUMENT_VERSION,
    changes,
    given: [],
    ...more,
  };
}

/** Shows an edit at once and saves it behind. @returns the edit, or null where nothing would be other than before */
export function commitEdit(
  projectId: string,
  label: string,
  changes: readonly Change[],
  more: Partial<Edit> = {},
): Edit | null {
  const folded = foldChanges(changes);
  if (folded.length === 0) return null;
  const edit = newEdit(projectId, label, folded, more);
  outbox.add(edit);
  show(projectId);
  return edit;
}

/** What a machine made: saved like everything else, in nobody's undo. `given`: what it was computed from. */
export const saveForMachine = (
  projectId: string,
  label: string,
  changes: readonly Change[],
  given: Edit['given'] = [],
) => commitEdit(projectId, label, changes, { machine: true, given });

/** The facets of a row that something is computed from, as they are now. */
export const givenOf = <K extends Kind>(
  kind: K,
  row: Row<K>,
  members: readonly (keyof BodyOf<K> & string)[],
): Edit['given'] =>
  members.map((member) => {
    const facet: Facet = ['body', member];
    return { kind, id: row.id, facet, value: readFacet(row, facet) };
  });

/** Shows what a gesture would do; null shows what is kept. Nothing of it reaches the server. */
export function setPreview(next: { projectId: string; changes: Change[] } | null): void {
  const before = preview;
  preview = next;
  for (const projectId of new Set([before?.projectId, next?.projectId])) if (projectId) show(projectId);
}

/** Why changes do not fit what is shown now; empty where they do. */
export function clashesNow(projectId: string, changes: readonly Change[]): Clash[] {
  const document = queryClient.getQueryData<ProjectDocument>(projectKey(projectId));
  if (!document) return [];
  const edit = { projectId, changes: [...changes], given: [] };
  return applyEdit(edit, (kind, id) => findRow(document, kind, id), document.project.updated).clashes;
}

/** A row as it is at this instant, all edits so far included: what the next edit must build on. */
export function currentRow<K extends Kind>(projectId: string, kind: K, id: string): Row<K> | undefined {
  const document = queryClient.getQueryData<ProjectDocument>(projectKey(projectId));
  return document && (findRow(document, kind, id) as Row<K> | undefined);
}

/** The rows of a kind in their order, as they are at this instant, without the deleted ones. */
export function currentRows<K extends Exclude<Kind, 'project'>>(projectId: string, kind: K): Row<K>[] {
  const document = queryClient.getQueryData<ProjectDocument>(projectKey(projectId));
  return liveRows<K>((document?.[kind] as Row<K>[] | undefined) ?? []);
}

/** The models of a project as they are at this instant, without the deleted ones. */
export function currentModels(projectId: string): Row<'model'>[] {
  const document = queryClient.getQueryData<ProjectDocument>(projectKey(projectId));
  return (document?.model ?? []).filter(({ deleted }) => deleted === null);
}

/** Ends a conflict by a copy of the row as it is here, beside the one of the others. */
export function keepBoth(conflict: Conflict): Edit | null {
  const { edit } = conflict.entry;
  const copies = copiesOf(conflict);
  held.decide(conflict, 'theirs');
  return copies.length > 0 ? commitEdit(edit.projectId, `Keep my version (${edit.label})`, copies) : null;
}

/** Kinds of which two may stand side by side. */
const COPIED: readonly Kind[] = ['model', 'action', 'move', 'view'];

/** May both versions of what a conflict is about be kept? */
export const canKeepBoth = ({ clashes }: Conflict): boolean =>
  clashes.every(({ kind, reason }) => COPIED.includes(kind) && reason === 'changed');

function copiesOf({ entry, clashes }: Conflict): Change[] {
  const { projectId } = entry.edit;
  const rows = new Map(clashes.map(({ kind, id }) => [id, currentRow(projectId, kind, id)] as const));
  return [...rows].flatMap(([id, row]) => {
    const { kind } = clashes.find((clash) => clash.id === id)!;
    if (!row) return [];
    const name = `${row.name.slice(0, 110)} (mine)`;
    return [making(kind, { id: crypto.randomUUID(), name, order: row.order + 0.5, body: row.body })];
  });
}

/** Changes of a row's body that turn it into what `change` makes of it, as it is at this instant. */
export function bodyChanges<K extends Kind>(
  kind: K,
  { projectId, id }: Pick<Row<K>, 'projectId' | 'id'>,
  change: (body: BodyOf<K>) => BodyOf<K>,
): Change[] {
  const row = currentRow(projectId, kind, id);
  return row ? changing(kind, row, { body: change(row.body) }) : [];
}
