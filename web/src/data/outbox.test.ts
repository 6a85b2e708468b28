import type { Row } from '@eskovan/core/document';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { ApiError, OfflineError } from './api.ts';
import { Outbox, type Conflict, type OutboxDoor, type SavedState } from './outbox.ts';
import type { OutboxEntry, OutboxStorage } from './outbox-storage.ts';
import type { RowChange } from './row-change.ts';

class MemoryStorage implements OutboxStorage {
  entries = new Map<number, OutboxEntry>();
  all = () => Promise.resolve([...this.entries.values()]);
  put = async (entry: OutboxEntry) => void this.entries.set(entry.seq, entry);
  remove = async (seq: number) => void this.entries.delete(seq);
}

/** A server with one table, which can be told to fail. */
class FakeServer implements OutboxDoor {
  rows = new Map<string, Row>();
  log: string[] = [];
  /** What the next requests meet before they get through. */
  trouble: ('offline' | 'lost reply' | 'refuse')[] = [];

  send({ change }: OutboxEntry, revision: number): Promise<Row> {
    const trouble = this.trouble.shift();
    if (trouble === 'offline') return Promise.reject(new OfflineError());
    if (trouble === 'refuse')
      return Promise.reject(new ApiError(422, { code: 'invalid', message: 'body.eyeHeight: too low' }));
    const row = this.write(change, revision);
    return trouble === 'lost reply' ? Promise.reject(new OfflineError()) : Promise.resolve(row);
  }

  write(change: RowChange, revision: number): Row {
    const known = this.rows.get(change.id);
    if (change.op === 'create') {
      if (known) return known;
      return this.put({
        id: change.id,
        projectId: 'p',
        name: change.name,
        order: 0,
        body: change.body,
        version: 1,
        revision: 1,
        created: '',
        updated: '',
        deleted: null,
      });
    }
    if (!known) throw new ApiError(404, { code: 'not-found', message: 'gone' });
    if (known.revision !== revision)
      throw new ApiError(409, { code: 'conflict', message: 'changed elsewhere', current: known });
    const values = change.op === 'change' ? change.values : { deleted: change.op === 'delete' ? 'now' : null };
    return this.put({ ...known, ...values, revision: revision + 1 });
  }

  put(row: Row): Row {
    this.rows.set(row.id, row);
    this.log.push(`${row.name}@${row.revision}`);
    return row;
  }
}

let storage: MemoryStorage;
let server: FakeServer;
let states: SavedState[];
let conflicts: Conflict[];
const make = (owner = 'tab 1') =>
  new Outbox(
    storage,
    server,
    {
      onState: (state) => states.push(state),
      onConfirmed: () => undefined,
      onConflict: (conflict) => conflicts.push(conflict),
    },
    owner,
    () => Promise.resolve(),
  );
const creation = (id: string, name: string): RowChange => ({
  op: 'create',
  kind: 'view',
  id,
  name,
  order: 0,
  body: {} as never,
});
const renaming = (id: string, name: string): RowChange => ({ op: 'change', kind: 'view', id, values: { name } });

beforeEach(() => {
  storage = new MemoryStorage();
  server = new FakeServer();
  states = [];
  conflicts = [];
});

describe('the outbox', () => {
  test('saves in order, each edit on the revision that the one before made', async () => {
    const outbox = make();
    await outbox.add('p', creation('a', 'One'));
    await outbox.add('p', renaming('a', 'Two'));
    await outbox.add('p', renaming('a', 'Three'));
    await outbox.settled();
    expect(server.log).toEqual(['One@1', 'Two@2', 'Three@3']);
    expect(storage.entries.size).toBe(0);
    expect(states.at(-1)).toEqual({ state: 'saved' });
  });

  test('an answer that a confirmed write has overtaken makes no conflict with ourselves', async () => {
    const outbox = make();
    await outbox.add('p', creation('a', 'One'));
    await outbox.add('p', renaming('a', 'Two'));
    await outbox.settled();
    // Asked for before the second write, here after it.
    outbox.seen('a', 1);
    await outbox.add('p', renaming('a', 'Three'));
    await outbox.settled();
    expect(conflicts).toEqual([]);
    expect(server.log).toEqual(['One@1', 'Two@2', 'Three@3']);
  });

  test('an edit is on this machine before anything is sent, and leaves only when confirmed', async () => {
    server.trouble = ['offline', 'offline', 'offline'];
    const outbox = make();
    await outbox.add('p', creation('a', 'One'));
    expect(storage.entries.size).toBe(1);
    await outbox.settled();
    expect(states.map(({ state }) => state)).toContain('offline');
    expect(server.log).toEqual(['One@1']);
    expect(storage.entries.size).toBe(0);
  });

  test('a reply that was lost is no conflict: the edit is there already', async () => {
    server.trouble = ['lost reply', 'lost reply'];
    const outbox = make();
    await outbox.add('p', creation('a', 'One'));
    await outbox.add('p', renaming('a', 'Two'));
    await outbox.settled();
    expect(conflicts).toEqual([]);
    expect(server.rows.get('a')).toMatchObject({ name: 'Two', revision: 2 });
  });

  test('a change elsewhere stops and shows both; ours can be kept over it', async () => {
    const outbox = make();
    await outbox.add('p', creation('a', 'One'));
    await outbox.settled();
    server.put({ ...server.rows.get('a')!, name: 'Theirs', revision: 2 });
    await outbox.add('p', renaming('a', 'Mine'));
    await outbox.settled();
    expect(conflicts[0]!.theirs).toMatchObject({ name: 'Theirs' });
    expect(states.at(-1)).toEqual({ state: 'conflict' });
    expect(storage.entries.size).toBe(1);
    outbox.overwrite('a', 2);
    await outbox.settled();
    expect(server.rows.get('a')).toMatchObject({ name: 'Mine', revision: 3 });
  });

  test('a refused edit is kept and can be tried again', async () => {
    server.trouble = ['refuse'];
    const outbox = make();
    await outbox.add('p', creation('a', 'One'));
    await outbox.settled();
    expect(states.at(-1)).toEqual({ state: 'refused', message: 'body.eyeHeight: too low' });
    expect(storage.entries.size).toBe(1);
    outbox.retry();
    await outbox.settled();
    expect(server.log).toEqual(['One@1']);
  });

  test('what a page could not save, the next one does; what a living tab is saving, it leaves alone', async () => {
    server.trouble = ['refuse'];
    const first = make('dead tab');
    await first.add('p', creation('a', 'One'));
    await first.settled();
    const second = make('tab 2');
    expect(await second.adopt(() => false)).toEqual([]);
    expect(await second.adopt((owner) => owner === 'dead tab')).toHaveLength(1);
    await second.settled();
    expect(server.log).toEqual(['One@1']);
    expect(storage.entries.size).toBe(0);
  });

  test('a newer revision that is only seen does not become the base of waiting edits', async () => {
    const outbox = make();
    await outbox.add('p', creation('a', 'One'));
    await outbox.settled();
    server.trouble = ['refuse'];
    await outbox.add('p', renaming('a', 'Mine'));
    await outbox.settled();
    server.put({ ...server.rows.get('a')!, name: 'Theirs', revision: 2 });
    outbox.seen('a', 2);
    outbox.retry();
    await outbox.settled();
    expect(conflicts).toHaveLength(1);
    expect(server.rows.get('a')!.name).toBe('Theirs');
  });
});
