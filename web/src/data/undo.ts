import {
  foldChanges,
  invertChanges,
  logEntrySchema,
  type Change,
  type Clash,
  type Edit,
  type LogEntry,
} from '@eskovan/core/document';
import { create } from 'zustand';
import { z } from 'zod';
import { request } from './api.ts';
import { clashesNow, commitEdit, currentRow, onDropped, setPreview } from './edits.ts';
import { onTopOf } from './rebase.ts';

/** Steps of undo that are kept, per project. */
export const STEPS = 200;

/** One thing that this person did. */
interface Step {
  label: string;
  changes: Change[];
  /** The edit it went out as, until it has been undone. */
  editId: string | null;
}

type Direction = 'undo' | 'redo';

/** An undo that would overwrite what somebody has done since: it waits for a person. */
export interface UndoQuestion {
  projectId: string;
  direction: Direction;
  label: string;
  clashes: readonly Clash[];
  /** Who changed it since, and by what; null while that is being asked, or not known. */
  since: Pick<LogEntry, 'by' | 'label' | 'at'> | null;
}

interface UndoState {
  past: Record<string, readonly Step[]>;
  future: Record<string, readonly Step[]>;
  question: UndoQuestion | null;
}

export const useUndo = create<UndoState>()(() => ({ past: {}, future: {}, question: null }));

const LISTS = { undo: ['past', 'future'], redo: ['future', 'past'] } as const;

/** Changes that are shown while a gesture is under way, instead of being kept one by one. */
let gesture: { projectId: string; label: string; changes: Change[] } | null = null;

/** Does something to a project: shown at once, one step of undo, saved behind. In a gesture it becomes part of it. */
export function dispatch(projectId: string, label: string, changes: readonly Change[]): void {
  if (gesture && (gesture.projectId === projectId || gesture.changes.length === 0)) {
    if (changes.length === 0) return;
    gesture = { projectId, label, changes: foldChanges([...gesture.changes, ...changes]) };
    setPreview(gesture);
    return;
  }
  const edit = commitEdit(projectId, label, changes);
  if (!edit) return;
  const step: Step = { label: edit.label, changes: edit.changes, editId: edit.id };
  useUndo.setState(({ past, future }) => ({
    past: { ...past, [projectId]: [...(past[projectId] ?? []), step].slice(-STEPS) },
    future: { ...future, [projectId]: [] },
  }));
}

export interface Gesture {
  /** Keeps all that was done since it began as one edit. */
  commit(): void;
  /** Takes it back whole. */
  cancel(): void;
  readonly open: boolean;
}

/**
 * Begins a gesture: from now on what is dispatched is only shown, until it is kept as one edit or taken back. A
 * gesture that was left open is kept first.
 */
export function beginEdit(): Gesture {
  endGesture(true);
  gesture = { projectId: '', label: '', changes: [] };
  let open = true;
  const end = (keep: boolean) => {
    if (!open) return;
    open = false;
    finish(keep);
  };
  current = { end };
  return {
    commit: () => end(true),
    cancel: () => end(false),
    get open() {
      return open;
    },
  };
}

/** The open gesture, for those who end it without being its owner: the rest of a drag does nothing then. */
let current: { end: (keep: boolean) => void } | null = null;

const endGesture = (keep: boolean): void => current?.end(keep);

function finish(keep: boolean): void {
  const done = gesture;
  gesture = null;
  current = null;
  if (!done) return;
  setPreview(null);
  if (keep && done.changes.length > 0) dispatch(done.projectId, done.label, done.changes);
}

/** Keeps what is being dragged, scrubbed or held just now: before the page closes. */
export const commitGesture = (): void => endGesture(true);
/** Is something being dragged, scrubbed or held just now? */
export const inGesture = (): boolean => gesture !== null;
/** Takes back what is being dragged, scrubbed or held just now. @returns whether anything was */
export function cancelGesture(): boolean {
  const open = current !== null;
  endGesture(false);
  return open;
}

/** Takes back this person's last step. Returns what it was, or null where nothing was done. */
export const undo = (projectId: string): string | null => shift(projectId, 'undo');
export const redo = (projectId: string): string | null => shift(projectId, 'redo');

function shift(projectId: string, direction: Direction): string | null {
  endGesture(true);
  const step = useUndo.getState()[LISTS[direction][0]][projectId]?.at(-1);
  if (!step) return null;
  const changes = changesOf(projectId, step, direction);
  const clashes = clashesNow(projectId, changes);
  if (clashes.length > 0) {
    ask({ projectId, direction, label: step.label, clashes, since: null });
    return null;
  }
  perform(projectId, direction, step, changes);
  return step.label;
}

/** What a step takes to be undone or done again. A row that was made once is brought back, not made anew. */
function changesOf(projectId: string, step: Step, direction: Direction): Change[] {
  if (direction === 'undo') return invertChanges(step.changes);
  return step.changes.map((change) =>
    change.op === 'make' && currentRow(projectId, change.kind, change.id)
      ? { op: 'restore', kind: change.kind, id: change.id }
      : change,
  );
}

function perform(projectId: string, direction: Direction, step: Step, changes: readonly Change[]): void {
  const edit = commitEdit(projectId, `${direction === 'undo' ? 'Undo' : 'Redo'}: ${step.label}`, changes);
  const [from, to] = LISTS[direction];
  const moved: Step = { ...step, editId: direction === 'redo' ? (edit?.id ?? null) : null };
  useUndo.setState((now) => ({
    [from]: { ...now[from], [projectId]: (now[from][projectId] ?? []).filter((one) => one !== step) },
    [to]: { ...now[to], [projectId]: [...(now[to][projectId] ?? []), moved].slice(-STEPS) },
  }));
}

function ask(question: UndoQuestion): void {
  useUndo.setState({ question });
  const [clash] = question.clashes;
  const facet =
    clash!.facet && clash!.reason === 'changed' ? `&facet=${encodeURIComponent(JSON.stringify(clash!.facet))}` : '';
  void request('GET', `/api/projects/${question.projectId}/edits?row=${clash!.id}&most=1${facet}`, {
    schema: z.array(logEntrySchema),
  }).then(
    ([since]) =>
      useUndo.setState(({ question: now }) => (now === question && since ? { question: { ...question, since } } : {})),
    // Without the server nobody knows; the question stands.
    () => {},
  );
}

/** Ends the question: undoes over what was done since, or leaves everything and forgets the step. */
export function answerUndo(anyway: boolean): void {
  const { question } = useUndo.getState();
  useUndo.setState({ question: null });
  if (!question) return;
  const { projectId, direction } = question;
  const [from] = LISTS[direction];
  const step = useUndo.getState()[from][projectId]?.at(-1);
  if (!step) return;
  if (!anyway) {
    useUndo.setState((now) => ({ [from]: { ...now[from], [projectId]: now[from][projectId]!.slice(0, -1) } }));
    return;
  }
  const changes = changesOf(projectId, step, direction);
  const edit = { changes } as Edit;
  perform(projectId, direction, step, onTopOf(edit, clashesNow(projectId, changes)).changes);
}

// What was given up was never done: it cannot be undone.
onDropped(({ id, projectId }) =>
  useUndo.setState(({ past }) => ({
    past: { ...past, [projectId]: (past[projectId] ?? []).filter(({ editId }) => editId !== id) },
  })),
);
