import { DOCUMENT_VERSION } from '@eskovan/core/document';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { Outbox, type Conflict, type SavedState } from './outbox.ts';
import { BrowserOutboxStorage, type OutboxEntry, type OutboxStorage } from './outbox-storage.ts';
import { editOf, FakeServer, make, ME, set, SharedStorage } from './outbox.fixture.ts';

let storage: SharedStorage;
let server: FakeServer;
let states: SavedState['state'][];
let conflicts: readonly Conflict[];
let aside: readonly OutboxEntry[];
let dropped: string[];
let memoryOnly: boolean;
const open = (owner = 'tab 1', kept: OutboxStorage = storage, account = ME.id) =>
  new Outbox({
    storage: kept,
    door: server,
    owner,
    account: () => account,
    wait: () => Promise.resolve(),
    events: {
      onState: ({ state }) => states.push(state),
      onConfirmed: () => {},
      onHeld: (one, two) => ([conflicts, aside] = [one, two]),
      onDropped: ({ label }) => dropped.push(label),
      onMemoryOnly: () => (memoryOnly = true),
    },
  });
const last = () => states.at(-1);

beforeEach(() => {
  [storage, server] = [new SharedStorage(), new FakeServer()];
  [states, conflicts, aside, dropped, memoryOnly] = [[], [], [], [], false];
});

describe('the outbox', () => {
  test('saves in order, says “saving” in the same instant, and keeps nothing that is saved', async () => {
    const outbox = open();
    outbox.add(editOf([make('a')]));
    expect(last()).toBe('saving');
    outbox.add(editOf([set('a', 'name', 'a', 'b')]));
    outbox.add(editOf([set('a', 'name', 'b', 'c')]));
    expect(outbox.pending('p')).toHaveLength(3);
    await outbox.settled();
    expect(server.log.map(({ changes }) => changes[0]!.op)).toEqual(['make', 'set', 'set']);
    expect(server.names()).toEqual(['c']);
    expect(last()).toBe('saved');
    expect(storage.entries.size).toBe(0);
  });

  test('waits for a server that does not answer, and repeats a request whose answer was lost', async () => {
    server.trouble = ['offline', 'offline', 'lost reply', 'lost reply'];
    const outbox = open();
    outbox.add(editOf([make('a')]));
    outbox.add(editOf([set('a', 'lens', 24, 35)]));
    await outbox.settled();
    expect(states).toContain('offline');
    expect(server.log).toHaveLength(2);
    expect(last()).toBe('saved');
  });

  test('one edit that is refused for good is set aside, whole and readable; all others of all projects are saved', async () => {
    server.rule = ({ label }) => (label === 'bad' ? { status: 422, code: 'invalid' } : null);
    const outbox = open();
    outbox.add(editOf([make('a')]));
    outbox.add(editOf([set('a', 'lens', 24, 35)], { label: 'bad' }));
    outbox.add(editOf([set('a', 'name', 'a', 'b')]));
    outbox.add(editOf([{ ...make('z'), id: 'z' }], { projectId: 'q' }));
    await outbox.settled();
    expect(server.log).toHaveLength(3);
    expect(last()).toBe('aside');
    expect(aside).toMatchObject([{ edit: { label: 'bad' }, aside: { message: 'refused: bad' } }]);
    expect(storage.entries.size).toBe(1);
    server.rule = () => null;
    outbox.tryAgain(aside[0]!.edit.id);
    await outbox.settled();
    expect(server.rows.get('a')!.body).toMatchObject({ lens: 35 });
    expect(last()).toBe('saved');
  });

  test('a route that always fails holds up nothing: after five times its edit is set aside', async () => {
    let tries = 0;
    server.rule = ({ label }) => (label === 'bad' ? ((tries += 1), { status: 500, code: 'internal' }) : null);
    const outbox = open();
    outbox.add(editOf([make('bad')], { label: 'bad' }));
    for (const id of ['a', 'b', 'c']) outbox.add(editOf([make(id)]));
    await new Promise((resolve) => setTimeout(resolve, 0));
    await outbox.settled();
    expect(tries).toBe(5);
    expect(server.names()).toEqual(['a', 'b', 'c']);
    expect(last()).toBe('aside');
    outbox.drop(aside[0]!.edit.id);
    expect(last()).toBe('saved');
    expect(dropped).toEqual(['bad']);
  });

  test('what was made on top of a refused edit is made on top of what was there before', async () => {
    server.rule = ({ label }) => (label === 'bad' ? { status: 422, code: 'invalid' } : null);
    const outbox = open();
    outbox.add(editOf([make('a')]));
    outbox.add(editOf([set('a', 'lens', 24, 35)], { label: 'bad' }));
    outbox.add(editOf([set('a', 'lens', 35, 50)]));
    await outbox.settled();
    expect(conflicts).toEqual([]);
    expect(server.rows.get('a')!.body).toMatchObject({ lens: 50 });
  });

  test('what needs a row whose making was refused goes aside with it', async () => {
    server.rule = ({ label }) => (label === 'bad' ? { status: 422, code: 'invalid' } : null);
    const outbox = open();
    outbox.add(editOf([make('a')], { label: 'bad' }));
    outbox.add(editOf([set('a', 'lens', 24, 35)], { label: 'on it' }));
    outbox.add(editOf([make('b')]));
    await outbox.settled();
    expect(server.names()).toEqual(['b']);
    expect(aside.map(({ edit }) => edit.label)).toEqual(['bad', 'on it']);
  });

  test('a machine’s edit that comes too late goes without a word', async () => {
    const outbox = open();
    outbox.add(editOf([make('a')]));
    const given = [{ kind: 'view' as const, id: 'a', facet: ['body', 'lens'] as ['body', string], value: 85 }];
    outbox.add(editOf([set('a', 'thumbnail', undefined, 'x')], { machine: true, given, label: 'picture' }));
    await outbox.settled();
    expect(last()).toBe('saved');
    expect([conflicts.length, aside.length, dropped]).toEqual([0, 0, ['picture']]);
  });

  test('a page of an older version than the server keeps its edits and asks to be reloaded', async () => {
    server.rule = () => ({ status: 409, code: 'old-page' });
    const outbox = open();
    outbox.add(editOf([make('a')]));
    outbox.add(editOf([make('b')]));
    await outbox.settled();
    expect(last()).toBe('reload');
    expect(storage.entries.size).toBe(2);
    server.rule = () => null;
    await open('tab 2').adopt(() => true);
    expect(server.names()).toEqual(['a', 'b']);
  });
});

describe('a browser that keeps nothing', () => {
  test('has its edits saved all the same, and says so: no IndexedDB at all', async () => {
    const outbox = open('tab 1', new BrowserOutboxStorage(() => Promise.reject(new Error('no IndexedDB'))));
    outbox.add(editOf([make('a')]));
    await outbox.settled();
    expect(server.names()).toEqual(['a']);
    expect([last(), memoryOnly]).toEqual(['saved', true]);
  });

  test('a store that refuses every entry', async () => {
    storage.put = () => Promise.reject(new DOMException('full', 'QuotaExceededError'));
    const outbox = open();
    outbox.add(editOf([make('a')]));
    outbox.add(editOf([set('a', 'lens', 24, 35)]));
    await outbox.settled();
    expect(server.log).toHaveLength(2);
    expect([last(), memoryOnly]).toEqual(['saved', true]);
    expect(await outbox.adopt(() => true)).toEqual([]);
  });
});

describe('a conflict', () => {
  const clashing = async () => {
    const outbox = open();
    outbox.add(editOf([make('a')]));
    outbox.add(editOf([make('b')]));
    await outbox.settled();
    await server.send(editOf([set('a', 'lens', 24, 18)], { by: { ...ME, name: 'Otto' } }));
    outbox.add(editOf([set('a', 'lens', 24, 35)], { label: 'mine' }));
    outbox.add(editOf([set('a', 'lens', 35, 50)], { label: 'mine, further' }));
    outbox.add(editOf([set('b', 'lens', 24, 85)], { label: 'elsewhere' }));
    await outbox.settled();
    return outbox;
  };
  const lens = (id: string) => (server.rows.get(id)!.body as unknown as { lens: number }).lens;

  test('waits for a person; edits of other rows go on, those on top of it wait too', async () => {
    await clashing();
    expect(last()).toBe('conflict');
    expect(conflicts).toMatchObject([
      { entry: { edit: { label: 'mine' } }, clashes: [{ reason: 'changed', current: 18 }] },
    ]);
    expect([lens('a'), lens('b')]).toEqual([18, 85]);
  });

  test('mine goes over theirs, with what came after it', async () => {
    const outbox = await clashing();
    outbox.resolve(conflicts[0]!.entry.edit.id, 'mine');
    await outbox.settled();
    expect([lens('a'), last(), conflicts.length]).toEqual([50, 'saved', 0]);
  });

  test('theirs stays; what I did further is another edit, on top of theirs, and clashes by itself', async () => {
    const outbox = await clashing();
    outbox.resolve(conflicts[0]!.entry.edit.id, 'theirs');
    await outbox.settled();
    expect(dropped).toEqual(['mine']);
    expect(conflicts).toMatchObject([{ entry: { edit: { label: 'mine, further' } } }]);
    outbox.resolve(conflicts[0]!.entry.edit.id, 'theirs');
    expect([lens('a'), last()]).toEqual([18, 'saved']);
  });

  test('about a deleted row: mine brings it back', async () => {
    const outbox = open();
    outbox.add(editOf([make('a')]));
    await outbox.settled();
    await server.send(editOf([{ op: 'remove', kind: 'view', id: 'a' }]));
    outbox.add(editOf([set('a', 'lens', 24, 35)]));
    await outbox.settled();
    expect(conflicts[0]!.clashes[0]!.reason).toBe('deleted');
    outbox.resolve(conflicts[0]!.entry.edit.id, 'mine');
    await outbox.settled();
    expect(server.names()).toEqual(['a']);
    expect(lens('a')).toBe(35);
  });
});

describe('tabs', () => {
  test('a tab that closes between two confirmations is no conflict with oneself', async () => {
    server.trouble = ['lost reply'];
    const first = open('tab 1');
    first.add(editOf([make('a')]));
    first.add(editOf([set('a', 'lens', 24, 35)]));
    first.add(editOf([set('a', 'lens', 35, 50)]));
    // Closed at once: what it had sent and what not is known to nobody.
    const kept = new SharedStorage();
    await Promise.resolve();
    for (const [id, entry] of storage.entries) kept.entries.set(id, entry);
    await first.settled();
    const next = open('tab 2', kept);
    await next.adopt(() => true);
    await next.settled();
    expect(conflicts).toEqual([]);
    expect(server.rows.get('a')!.body).toMatchObject({ lens: 50 });
  });

  test('entries of a living tab, of another person and of a newer page are nobody else’s', async () => {
    server.trouble = Array(50).fill('offline');
    const entry = (seq: number, owner: string, change: object): OutboxEntry => ({
      seq,
      owner,
      at: '',
      aside: null,
      edit: editOf([make(`r${seq}`)], change),
    });
    const put = (one: OutboxEntry) => storage.entries.set(one.edit.id, one);
    put(entry(1, 'alive', {}));
    put(entry(2, 'gone', { by: { ...ME, id: '00000000-0000-4000-8000-0000000000cc' } }));
    put(entry(3, 'gone', { version: DOCUMENT_VERSION + 1 }));
    put(entry(4, 'gone', {}));
    server.trouble = [];
    const outbox = open('tab 2');
    expect((await outbox.adopt((owner) => owner === 'gone')).map(({ seq }) => seq)).toEqual([4]);
    await outbox.settled();
    expect(server.names()).toEqual(['r4']);
    expect([...storage.entries.values()].map(({ seq }) => seq)).toEqual([1, 2, 3]);
  });
});
