import { editSchema, type Edit } from '@eskovan/core/document';
import { openDB, type IDBPDatabase } from 'idb';

/** An edit that the server has not confirmed yet. */
export interface OutboxEntry {
  /** Order of making. Two tabs may come to the same number: the key is the edit's id. */
  seq: number;
  edit: Edit;
  /** When it was made, ISO 8601. */
  at: string;
  /** The tab that made it. */
  owner: string;
  /** Refused by the server for good: it waits for a person, and nothing waits for it. */
  aside: { message: string } | null;
}

export interface OutboxStorage {
  all(): Promise<OutboxEntry[]>;
  put(entry: OutboxEntry): Promise<void>;
  remove(editId: string): Promise<void>;
}

const STORE = 'edits';

/**
 * Keeps entries in IndexedDB, so that they survive a reload or a crash.
 * @param open how the database is opened; may fail in a private window or where storage is full
 */
export class BrowserOutboxStorage implements OutboxStorage {
  private database: Promise<IDBPDatabase> | null = null;

  constructor(private readonly open: () => Promise<IDBPDatabase> = openOutbox) {}

  async all(): Promise<OutboxEntry[]> {
    const entries = (await (await this.opened()).getAll(STORE)) as OutboxEntry[];
    // What another program has put there is nobody's edit.
    return entries.filter(({ edit }) => editSchema.safeParse(edit).success);
  }

  async put(entry: OutboxEntry): Promise<void> {
    await (await this.opened()).put(STORE, entry);
  }

  async remove(editId: string): Promise<void> {
    await (await this.opened()).delete(STORE, editId);
  }

  private opened(): Promise<IDBPDatabase> {
    return (this.database ??= this.open());
  }
}

function openOutbox(): Promise<IDBPDatabase> {
  if (typeof indexedDB === 'undefined') return Promise.reject(new Error('This browser keeps nothing.'));
  return openDB('eskovan', 2, {
    upgrade: (database) => {
      if (database.objectStoreNames.contains('outbox')) database.deleteObjectStore('outbox');
      if (!database.objectStoreNames.contains(STORE)) database.createObjectStore(STORE, { keyPath: 'edit.id' });
    },
  });
}
