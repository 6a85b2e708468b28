import { openDB, type IDBPDatabase } from 'idb';
import type { RowChange } from './row-change.ts';

/** An edit that the server has not confirmed yet. */
export interface OutboxEntry {
  /** Order of making; also the key. */
  seq: number;
  projectId: string;
  change: RowChange;
  /** Revision of the row that the edit was based on; 0 for a row of ours that the server has not seen. */
  base: number;
  /** The tab that made it. */
  owner: string;
}

export interface OutboxStorage {
  all(): Promise<OutboxEntry[]>;
  put(entry: OutboxEntry): Promise<void>;
  remove(seq: number): Promise<void>;
}

/** Keeps entries in IndexedDB, so that they survive a reload or a crash. */
export class BrowserOutboxStorage implements OutboxStorage {
  private readonly database: Promise<IDBPDatabase> = openDB('eskovan', 1, {
    upgrade: (database) => void database.createObjectStore('outbox', { keyPath: 'seq' }),
  });

  async all(): Promise<OutboxEntry[]> {
    return (await this.database).getAll('outbox');
  }

  async put(entry: OutboxEntry): Promise<void> {
    await (await this.database).put('outbox', entry);
  }

  async remove(seq: number): Promise<void> {
    await (await this.database).delete('outbox', seq);
  }
}
