import { catchUpSchema, liveEventSchema, type LiveEvent, type LogEntry, type Presence } from '@eskovan/core/document';
import { create } from 'zustand';
import { request, safeJson } from './api.ts';
import { askedEarly } from './early-reply.ts';
import { knowsRevision, knownUpTo, projectKey, queryClient, takeChanges } from './edits.ts';
import { thisPerson } from './person.ts';
import { thisTab } from './tab.ts';

interface LiveState {
  /** Pages that are open, this one among them. */
  here: readonly Presence[];
}

export const useLive = create<LiveState>()(() => ({ here: [] }));

const CHANNEL = 'eskovan-live';
const LEADER = 'eskovan-live-leader';
/** A page that is open says so this often; it is taken for closed after three times that. */
const HERE_MS = 20_000;

/**
 * One stream of events for all tabs of a browser: whichever holds the lock reads it and passes it on. When its page
 * closes the next one takes over where it stopped.
 */
export function startLive(): void {
  if (typeof EventSource === 'undefined') return;
  if (!navigator.locks || typeof BroadcastChannel === 'undefined') {
    readStream(receive);
    return;
  }
  const channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = ({ data }) => receive(data);
  void navigator.locks.request(LEADER, () => {
    readStream((event) => {
      channel.postMessage(event);
      receive(event);
    });
    return new Promise<never>(() => {});
  });
}

/** Newest edit that any tab has told of: a new leader goes on from there. */
let newest: number | null = null;
/** Projects told of before they were read: an answer that is on its way may be older than what was told. */
const overtaken = new Set<string>();

function readStream(pass: (event: unknown) => void): void {
  const source = new EventSource(newest === null ? '/api/live' : `/api/live?after=${newest}`);
  source.onmessage = ({ data }) => pass(safeJson(String(data)));
}

function receive(data: unknown): void {
  const event = liveEventSchema.safeParse(data);
  if (event.success) take(event.data);
}

function take(event: LiveEvent): void {
  if (event.kind === 'here') {
    useLive.setState({ here: event.here });
    return;
  }
  const seq = event.kind === 'hello' ? event.seq : event.entry.seq;
  newest = Math.max(newest ?? 0, seq);
  if (event.kind === 'edit' && knownUpTo(event.entry.projectId) !== null) takeEntry(event.entry);
  else for (const projectId of event.kind === 'edit' ? [event.entry.projectId] : askedProjects()) bringUp(projectId);
  void listAgain();
}

function bringUp(projectId: string): void {
  if (knownUpTo(projectId) === null) overtaken.add(projectId);
  else void catchUp(projectId);
}

/** To be called when a project has been read: what was told of it meanwhile is asked for. */
export function projectWasRead(projectId: string): void {
  if (overtaken.delete(projectId)) void catchUp(projectId);
}

/** A first answer that is on its way is not asked for anew by itself, though it may be older than what was told. */
async function listAgain(): Promise<void> {
  const queryKey = ['projects'];
  const list = queryClient.getQueryCache().find({ queryKey });
  if (list?.state.fetchStatus === 'fetching' && list.state.data === undefined) await list.promise?.catch(() => {});
  await queryClient.invalidateQueries({ queryKey });
}

function takeEntry({ projectId, seq, touched }: LogEntry): void {
  const known = touched.every(({ kind, id, revision }) => knowsRevision(projectId, kind, id, revision));
  // Our own edits come back here too: the page has them already.
  if (known && !catching.has(projectId)) takeChanges(projectId, { rows: [], seq });
  else void catchUp(projectId);
}

/** Also the one that is asked for while the page reads its own code: its answer may be older than the stream. */
const askedProjects = (): string[] =>
  queryClient
    .getQueryCache()
    .findAll({ queryKey: ['project'] })
    .map(({ queryKey: [, id] }) => id)
    .concat(askedEarly())
    .filter((id): id is string => typeof id === 'string');

const catching = new Map<string, { again: boolean }>();

/** Asks for what has changed in a project since what this page knows; one question at a time. */
async function catchUp(projectId: string): Promise<void> {
  const under = catching.get(projectId);
  if (under) {
    under.again = true;
    return;
  }
  const mark = { again: false };
  catching.set(projectId, mark);
  try {
    do {
      mark.again = false;
      const after = knownUpTo(projectId) ?? 0;
      const reply = await request('GET', `/api/projects/${projectId}/changes?after=${after}`, {
        schema: catchUpSchema,
      });
      if (reply.whole) await queryClient.invalidateQueries({ queryKey: projectKey(projectId) });
      else takeChanges(projectId, reply);
    } while (mark.again);
  } catch {
    // The document is read anew when somebody looks at it again.
    await queryClient.invalidateQueries({ queryKey: projectKey(projectId), refetchType: 'none' });
  } finally {
    catching.delete(projectId);
  }
}

let turn = 0;
/** The row that this page is about just now, and how the others are told. */
let about: string | null = null;
let tellAgain: (() => void) | null = null;

/** Tells the others which row this page is about; null: none in particular. */
export function beAbout(row: string | null): void {
  if (about === row) return;
  about = row;
  tellAgain?.();
}

/** Tells that this page is open, until what is returned is called. */
export function beHere(projectId: string, stage: string): () => void {
  const tell = (where: string | null) =>
    void fetch('/api/live/here', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({
        tab: thisTab,
        person: thisPerson(),
        projectId: where,
        stage,
        row: about,
        turn: ++turn,
      } satisfies Presence),
      // Also from a page that is just being closed.
      keepalive: true,
    }).catch(() => {});
  const again = () => tell(projectId);
  tellAgain = again;
  again();
  const timer = setInterval(() => tell(projectId), HERE_MS);
  const leave = () => tell(null);
  window.addEventListener('pagehide', leave);
  return () => {
    clearInterval(timer);
    window.removeEventListener('pagehide', leave);
    if (tellAgain === again) tellAgain = null;
    leave();
  };
}
