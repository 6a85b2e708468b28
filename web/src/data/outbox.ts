import type { Kind, Row } from '@eskovan/core/document';
import { ApiError, OfflineError } from './api.ts';
import type { OutboxEntry, OutboxStorage } from './outbox-storage.ts';
import type { RowChange } from './row-change.ts';
import { sameValues } from './same-values.ts';

export type SavedState =
  | { state: 'saved' }
  | { state: 'saving' }
  | { state: 'offline' }
  /** The server will not take an edit as it is; it is kept until somebody decides. */
  | { state: 'refused'; message: string }
  | { state: 'conflict' };

/** Two people wrote to one row: ours waits here, theirs is what the server has (null: it was deleted for good). */
export interface Conflict {
  entry: OutboxEntry;
  theirs: Row | null;
}

export interface OutboxDoor {
  send(entry: OutboxEntry, revision: number): Promise<Row>;
}

export interface OutboxEvents {
  onState(state: SavedState): void;
  /** A row as the server has confirmed it; `last` when nothing else of ours waits for it. */
  onConfirmed(kind: Kind, row: Row, last: boolean): void;
  onConflict(conflict: Conflict): void;
}

const RETRY_MS = [500, 1000, 2000, 4000, 8000];

/**
 * Saves edits in the order they were made, one at a time. An edit leaves the outbox only when the server has
 * confirmed it; whatever goes wrong on the way, it stays.
 */
export class Outbox {
  private entries: OutboxEntry[] = [];
  private readonly revisions = new Map<string, number>();
  private running: Promise<void> | null = null;
  private stuck: SavedState | null = null;
  private seq = Date.now() * 1000;

  constructor(
    private readonly storage: OutboxStorage,
    private readonly door: OutboxDoor,
    private readonly events: OutboxEvents,
    private readonly owner: string,
    private readonly wait: (ms: number) => Promise<void> = (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
  ) {}

  /** Takes over what an earlier page left unsent. `isAbandoned` tells whether the tab that made it is gone. */
  async adopt(isAbandoned: (owner: string) => boolean): Promise<OutboxEntry[]> {
    const left = (await this.storage.all()).filter((entry) => entry.owner !== this.owner && isAbandoned(entry.owner));
    for (const entry of left) {
      const ours = { ...entry, owner: this.owner };
      await this.storage.put(ours);
      this.entries.push(ours);
      if (!this.revisions.has(ours.change.id)) this.revisions.set(ours.change.id, ours.base);
      this.seq = Math.max(this.seq, ours.seq);
    }
    this.entries.sort((a, b) => a.seq - b.seq);
    if (left.length > 0) this.kick();
    return left;
  }

  /** Entries not yet confirmed, oldest first. */
  pending(projectId?: string): readonly OutboxEntry[] {
    return projectId ? this.entries.filter((entry) => entry.projectId === projectId) : this.entries;
  }

  /**
   * Tells which revision the page shows. Ignored while edits of ours wait: they are based on an older one. An answer
   * that was overtaken by a confirmed write of ours takes nothing back.
   */
  seen(id: string, revision: number): void {
    if (this.entries.some((entry) => entry.change.id === id)) return;
    this.revisions.set(id, Math.max(revision, this.revisions.get(id) ?? 0));
  }

  /** Resolves when the edit is safe on this machine; saving goes on behind. */
  async add(projectId: string, change: RowChange): Promise<void> {
    this.seq += 1;
    const entry: OutboxEntry = {
      seq: this.seq,
      projectId,
      change,
      base: this.revisions.get(change.id) ?? 0,
      owner: this.owner,
    };
    this.entries.push(entry);
    this.events.onState({ state: 'saving' });
    await this.storage.put(entry);
    this.kick();
  }

  /** Tries again after a refusal or while offline. */
  retry(): void {
    this.stuck = null;
    this.kick();
  }

  /** Gives up all edits of a row, as the person decided. */
  async discard(id: string): Promise<void> {
    const gone = this.entries.filter((entry) => entry.change.id === id);
    this.entries = this.entries.filter((entry) => entry.change.id !== id);
    for (const entry of gone) await this.storage.remove(entry.seq);
    this.stuck = null;
    this.report();
    this.kick();
  }

  /** Keeps our version over theirs: the waiting edits now build on what the server has. */
  overwrite(id: string, revision: number): void {
    this.revisions.set(id, revision);
    this.retry();
  }

  /** For tests and for leaving: settles when nothing more can be sent for now. */
  async settled(): Promise<void> {
    while (this.running) await this.running;
  }

  private kick(): void {
    if (this.running || this.stuck) return;
    this.running = this.work().finally(() => {
      this.running = null;
      this.report();
      if (this.entries.length > 0 && !this.stuck) this.kick();
    });
  }

  private report(): void {
    this.events.onState(this.stuck ?? { state: this.entries.length > 0 ? 'saving' : 'saved' });
  }

  private async work(): Promise<void> {
    let failures = 0;
    while (this.entries.length > 0) {
      const entry = this.entries[0]!;
      try {
        const row = await this.door.send(entry, this.revisions.get(entry.change.id) ?? entry.base);
        failures = 0;
        await this.confirm(entry, row);
      } catch (error) {
        if (error instanceof OfflineError || (error instanceof ApiError && error.status >= 500)) {
          this.events.onState({ state: 'offline' });
          await this.wait(RETRY_MS[Math.min(failures, RETRY_MS.length - 1)]!);
          failures += 1;
        } else if (error instanceof ApiError && (await this.resolved(entry, error))) failures = 0;
        else {
          this.stuck ??= { state: 'refused', message: error instanceof Error ? error.message : String(error) };
          return;
        }
      }
    }
  }

  private async confirm(entry: OutboxEntry, row: Row): Promise<void> {
    this.revisions.set(row.id, row.revision);
    this.entries = this.entries.filter((other) => other !== entry);
    await this.storage.remove(entry.seq);
    this.events.onConfirmed(entry.change.kind, row, !this.entries.some((other) => other.change.id === row.id));
  }

  /** A conflict may be our own write whose reply was lost; then it is none. */
  private async resolved(entry: OutboxEntry, error: ApiError): Promise<boolean> {
    if (error.status === 404 && entry.change.op === 'delete') {
      this.entries = this.entries.filter((other) => other !== entry);
      await this.storage.remove(entry.seq);
      return true;
    }
    if (error.status !== 409 && error.status !== 404) return false;
    const theirs = (error.problem.current as Row | undefined) ?? null;
    if (theirs && isDone(entry.change, theirs)) {
      await this.confirm(entry, theirs);
      return true;
    }
    this.stuck = { state: 'conflict' };
    this.events.onConflict({ entry, theirs });
    return false;
  }
}

/** Does the row already look as the change wants it? */
function isDone(change: RowChange, row: Row): boolean {
  if (change.op === 'delete') return row.deleted !== null;
  if (change.op === 'restore') return row.deleted === null;
  if (change.op === 'create') return sameValues(change.body, row.body) && change.name === row.name;
  return Object.entries(change.values).every(([key, value]) => sameValues(value, row[key as keyof Row]));
}
