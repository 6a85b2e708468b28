import {
  DOCUMENT_VERSION,
  migrateEdit,
  type Clash,
  type Edit,
  type EditReply,
  type KindRow,
} from '@eskovan/core/document';
import { ApiError, OfflineError } from './api.ts';
import type { OutboxEntry, OutboxStorage } from './outbox-storage.ts';
import { dependsOn, onTopOf, shareRow, without } from './rebase.ts';

export type SavedState =
  | { state: 'saved' }
  | { state: 'saving'; count: number }
  | { state: 'offline'; count: number }
  /** Somebody else has changed the same; a person decides. The rest goes on. */
  | { state: 'conflict' }
  /** Everything is saved but some edits that the server refused for good. */
  | { state: 'aside'; count: number }
  /** The page is of another version than the server. */
  | { state: 'reload'; message: string };

/** An edit of ours that others have been faster than. */
export interface Conflict {
  entry: OutboxEntry;
  clashes: readonly Clash[];
  /** The rows as the server has them. */
  rows: readonly KindRow[];
}

export interface OutboxDoor {
  send(edit: Edit): Promise<EditReply>;
}

export interface OutboxEvents {
  onState(state: SavedState): void;
  onConfirmed(edit: Edit, reply: EditReply): void;
  /** Conflicts that wait for a person, and edits set aside. */
  onHeld(conflicts: readonly Conflict[], aside: readonly OutboxEntry[]): void;
  /** An edit that will not be saved any more. */
  onDropped(edit: Edit): void;
  /** The browser does not keep edits over a reload. */
  onMemoryOnly(): void;
}

interface OutboxOptions {
  storage: OutboxStorage;
  door: OutboxDoor;
  events: OutboxEvents;
  /** This tab. */
  owner: string;
  /** The person whose edits are taken over from closed tabs. */
  account: () => string;
  wait?: (ms: number) => Promise<void>;
}

const RETRY_MS = [500, 1000, 2000, 4000, 8000];
/** Failures of the server over one edit, after which it is set aside. */
const MOST_FAILURES = 5;

/**
 * Saves edits in the order they were made, one at a time. An edit leaves the outbox only when the server has
 * confirmed it or a person has given it up. One that cannot be saved never keeps the others from it.
 */
export class Outbox {
  private entries: OutboxEntry[] = [];
  private readonly conflicts = new Map<string, Conflict>();
  /** Edits over which the server failed, and that are tried again a little later. */
  private readonly cooling = new Set<string>();
  private readonly failures = new Map<string, number>();
  /** Storing one entry is one thing after the other: it is never put after it was removed. */
  private readonly storing = new Map<string, Promise<void>>();
  private running: Promise<void> | null = null;
  private offline = false;
  private reload: string | null = null;
  private seq = Date.now() * 1000;
  private readonly wait: (ms: number) => Promise<void>;

  constructor(private readonly options: OutboxOptions) {
    this.wait = options.wait ?? ((ms) => new Promise((resolve) => setTimeout(resolve, ms)));
  }

  /** Takes over what closed tabs of the same person left unsent. @param isAbandoned is the tab gone? */
  async adopt(isAbandoned: (owner: string) => boolean): Promise<OutboxEntry[]> {
    const all = await this.options.storage.all().catch(() => []);
    const left = all.filter(
      ({ owner, edit }) =>
        owner !== this.options.owner &&
        isAbandoned(owner) &&
        edit.by.id === this.options.account() &&
        // A newer page left them; this one does not understand them.
        edit.version <= DOCUMENT_VERSION,
    );
    for (const entry of left) {
      const edit = entry.edit.version < DOCUMENT_VERSION ? migrateEdit(entry.edit) : entry.edit;
      const ours = { ...entry, edit, owner: this.options.owner };
      this.entries.push(ours);
      this.store(ours, () => this.options.storage.put(ours));
      this.seq = Math.max(this.seq, ours.seq);
    }
    await this.stored();
    this.entries.sort((a, b) => a.seq - b.seq);
    if (left.length > 0) this.tell();
    this.kick();
    return left;
  }

  /** Entries of a project whose edits belong into what is shown: all but those set aside. */
  pending(projectId: string): readonly OutboxEntry[] {
    return this.entries.filter(({ edit, aside }) => edit.projectId === projectId && !aside);
  }

  /** Takes an edit in: at this instant it is shown as being saved. */
  add(edit: Edit): void {
    this.seq += 1;
    const entry: OutboxEntry = {
      seq: this.seq,
      edit,
      at: new Date().toISOString(),
      owner: this.options.owner,
      aside: null,
    };
    this.entries.push(entry);
    this.store(entry, () => this.options.storage.put(entry));
    this.tell();
    this.kick();
  }

  /** Ends a conflict: ours over theirs, or ours given up. */
  resolve(editId: string, decision: 'mine' | 'theirs'): void {
    const conflict = this.conflicts.get(editId);
    const entry = this.entries.find(({ edit }) => edit.id === editId);
    this.conflicts.delete(editId);
    if (!conflict || !entry) return;
    if (decision === 'mine') this.replace(entry, { ...entry, edit: onTopOf(entry.edit, conflict.clashes) });
    else this.giveUp(entry);
    this.tell();
    this.kick();
  }

  /** Tries an edit that was set aside again, behind all that came after it. */
  tryAgain(editId: string): void {
    const entry = this.entries.find(({ edit }) => edit.id === editId);
    if (!entry?.aside) return;
    this.failures.delete(editId);
    this.seq += 1;
    const again = { ...entry, seq: this.seq, aside: null };
    this.entries = [...this.entries.filter((other) => other !== entry), again];
    this.store(again, () => this.options.storage.put(again));
    this.tell();
    this.kick();
  }

  /** Gives up an edit that was set aside. */
  drop(editId: string): void {
    const entry = this.entries.find(({ edit }) => edit.id === editId);
    if (!entry) return;
    this.forget(entry);
    this.options.events.onDropped(entry.edit);
    this.tell();
  }

  /** Settles when nothing more can be sent for now. */
  async settled(): Promise<void> {
    while (this.running) await this.running;
    await this.stored();
  }

  private async stored(): Promise<void> {
    await Promise.all(this.storing.values());
  }

  private kick(): void {
    if (this.running || this.reload || !this.next()) return;
    this.running = this.work().finally(() => {
      this.running = null;
      this.tell();
      this.kick();
    });
  }

  /** The oldest edit that may be sent: none goes past an earlier one of the same row. */
  private next(): OutboxEntry | undefined {
    return this.entries.find(
      (entry, i) =>
        this.mayGo(entry) &&
        !this.entries
          .slice(0, i)
          .some((earlier) => !earlier.aside && !this.mayGo(earlier) && shareRow(earlier.edit, entry.edit)),
    );
  }

  private mayGo({ edit, aside }: OutboxEntry): boolean {
    return !aside && !this.conflicts.has(edit.id) && !this.cooling.has(edit.id);
  }

  private async work(): Promise<void> {
    let tries = 0;
    for (let entry = this.next(); entry; entry = this.next()) {
      try {
        const reply = await this.options.door.send(entry.edit);
        tries = 0;
        this.offline = false;
        this.failures.delete(entry.edit.id);
        this.forget(entry);
        this.options.events.onConfirmed(entry.edit, reply);
        this.tell();
      } catch (error) {
        if (
          error instanceof OfflineError ||
          (error instanceof ApiError && (error.status === 429 || error.status === 503))
        ) {
          this.offline = true;
          this.tell();
          await this.wait(RETRY_MS[Math.min(tries, RETRY_MS.length - 1)]!);
          tries += 1;
        } else {
          this.offline = false;
          this.refused(entry, error);
          if (this.reload) return;
        }
      }
    }
  }

  private refused(entry: OutboxEntry, error: unknown): void {
    const { edit } = entry;
    const api = error instanceof ApiError ? error : null;
    const message = error instanceof Error ? error.message : String(error);
    if (api?.problem.code === 'old-page') this.reload = message;
    else if (edit.machine && api && api.status < 500) {
      // What a machine computed from is not so any more, or nobody wants it: it computes anew.
      this.forget(entry);
      this.options.events.onDropped(edit);
    } else if (api?.problem.clashes && (api.status === 409 || api.status === 410))
      this.conflicts.set(edit.id, { entry, clashes: api.problem.clashes, rows: api.problem.rows ?? [] });
    else if (api && api.status < 500) this.setAside(entry, message);
    else this.failed(entry, message);
    this.tell();
  }

  /** The server failed: perhaps over this edit, perhaps over all. */
  private failed(entry: OutboxEntry, message: string): void {
    const { id } = entry.edit;
    const count = (this.failures.get(id) ?? 0) + 1;
    this.failures.set(id, count);
    if (count >= MOST_FAILURES) {
      this.setAside(entry, message);
      return;
    }
    this.cooling.add(id);
    void this.wait(RETRY_MS[count - 1]!).then(() => {
      this.cooling.delete(id);
      this.kick();
    });
  }

  /** What was made on top of it is made on top of what was there before; what needs a row that it made goes along. */
  private setAside(entry: OutboxEntry, message: string): void {
    this.replace(entry, { ...entry, aside: { message } });
    for (const later of this.later(entry))
      if (dependsOn(later.edit, entry.edit)) this.setAside(later, `It needs “${entry.edit.label}”, which was refused.`);
      else this.replace(later, { ...later, edit: without(later.edit, entry.edit) });
  }

  private giveUp(entry: OutboxEntry): void {
    const later = this.later(entry);
    this.forget(entry);
    this.options.events.onDropped(entry.edit);
    for (const one of later)
      if (dependsOn(one.edit, entry.edit)) this.giveUp(one);
      else this.replace(one, { ...one, edit: without(one.edit, entry.edit) });
  }

  private later(entry: OutboxEntry): OutboxEntry[] {
    return this.entries.filter(({ seq, aside, edit }) => seq > entry.seq && !aside && shareRow(edit, entry.edit));
  }

  private replace(entry: OutboxEntry, by: OutboxEntry): void {
    if (entry.edit === by.edit && entry.aside === by.aside) return;
    this.entries = this.entries.map((other) => (other.edit.id === entry.edit.id ? by : other));
    this.store(by, () => this.options.storage.put(by));
  }

  private forget(entry: OutboxEntry): void {
    this.entries = this.entries.filter(({ edit }) => edit.id !== entry.edit.id);
    this.store(entry, () => this.options.storage.remove(entry.edit.id));
  }

  /** Begins at once where nothing else is done to the entry: the page may be closed in the next moment. */
  private store({ edit: { id } }: OutboxEntry, what: () => Promise<void>): void {
    const before = this.storing.get(id);
    const done = (before ? before.then(what) : what())
      .catch(() => this.options.events.onMemoryOnly())
      .finally(() => {
        if (this.storing.get(id) === done) this.storing.delete(id);
      });
    this.storing.set(id, done);
  }

  private tell(): void {
    const aside = this.entries.filter((entry) => entry.aside);
    this.options.events.onHeld([...this.conflicts.values()], aside);
    this.options.events.onState(this.state(aside.length));
  }

  private state(aside: number): SavedState {
    if (this.reload) return { state: 'reload', message: this.reload };
    if (this.conflicts.size > 0) return { state: 'conflict' };
    const count = this.entries.length - aside;
    if (count > 0) return { state: this.offline ? 'offline' : 'saving', count };
    return aside > 0 ? { state: 'aside', count: aside } : { state: 'saved' };
  }
}
