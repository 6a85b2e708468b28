import { setImmediate } from 'node:timers';
import { applyEdit, DOCUMENT_VERSION, type Change, type Edit, type Row } from '@eskovan/core/document';
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Outbox, type Conflict } from './outbox.ts';
import type { OutboxEntry } from './outbox-storage.ts';
import { editOf, FakeServer, make, ME, set, SharedStorage } from './outbox.fixture.ts';

/*
 * Two tabs of one browser, another person, a server that dies and loses answers, tabs that close, pages of an older
 * version: whatever happens in which order, nothing that was confirmed is lost, nothing is applied twice, and in the
 * end both tabs show what the database has.
 */

/** A tab: what it knows of the server, and what it shows. */
class Tab {
  known = new Map<string, Row>();
  conflicts: readonly Conflict[] = [];
  aside: readonly OutboxEntry[] = [];
  confirmed: string[] = [];
  dropped = new Set<string>();
  closed = false;
  readonly outbox: Outbox;

  constructor(
    readonly name: string,
    private readonly server: FakeServer,
    storage: SharedStorage,
  ) {
    this.outbox = new Outbox({
      // A page that is closed does nothing more, whatever it was waiting for.
      storage: {
        all: storage.all,
        put: async (entry) => void (this.closed || (await storage.put(entry))),
        remove: async (id) => void (this.closed || (await storage.remove(id))),
      },
      door: { send: (edit) => (this.closed ? new Promise<never>(() => {}) : server.send(edit)) },
      owner: name,
      account: () => ME.id,
      wait: () => Promise.resolve(),
      events: {
        onState: () => {},
        onConfirmed: ({ id }, { rows }) => {
          this.confirmed.push(id);
          for (const { row } of rows) this.learn(row);
        },
        onHeld: (conflicts, aside) => {
          this.conflicts = conflicts;
          this.aside = aside;
          for (const { rows } of conflicts) for (const { row } of rows) this.learn(row);
        },
        onDropped: ({ id }) => this.dropped.add(id),
        onMemoryOnly: () => {},
      },
    });
  }

  private learn(row: Row): void {
    const known = this.known.get(row.id);
    if (!known || known.revision < row.revision) this.known.set(row.id, row);
  }

  /** Hears of everything that the server has. */
  catchUp(): void {
    for (const row of this.server.rows.values()) this.learn(row);
  }

  shown(): Map<string, Row> {
    const rows = new Map(this.known);
    for (const { edit } of this.outbox.pending('p'))
      for (const { row } of applyEdit(edit, (_, id) => rows.get(id), 'now').rows) rows.set(row.id, row);
    return rows;
  }

  /** Does something to what it shows. */
  act(what: number, value: number): Edit {
    const rows = [...this.shown().values()].filter(({ deleted }) => !deleted);
    const row = rows[what % Math.max(1, rows.length)];
    const change = ((): Change => {
      if (!row || what % 5 === 0) return make(`r${value}-${what}-${this.name}`);
      if (what % 5 === 1) return { op: 'remove', kind: 'view', id: row.id };
      const member = what % 5 === 2 ? 'name' : what % 5 === 3 ? 'lens' : 'note';
      const before = member === 'name' ? row.name : (row.body as unknown as Record<string, unknown>)[member];
      return set(row.id, member, before, member === 'lens' ? value : `${member} ${value}`);
    })();
    const edit = editOf([change], { version: DOCUMENT_VERSION });
    this.outbox.add(edit);
    return edit;
  }
}

type Step =
  | { do: 'act'; tab: 0 | 1; what: number; value: number }
  | { do: 'other'; what: number; value: number }
  | { do: 'trouble'; what: 'offline' | 'lost reply' }
  | { do: 'old page' }
  | { do: 'refuse'; nth: number }
  | { do: 'close'; tab: 0 | 1 }
  | { do: 'hear'; tab: 0 | 1 }
  | { do: 'pause' };

const tab = fc.constantFrom(0 as const, 1 as const);
const number = fc.nat(1000);
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 6, arbitrary: fc.record({ do: fc.constant('act' as const), tab, what: number, value: number }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('other' as const), what: number, value: number }) },
  {
    weight: 2,
    arbitrary: fc.record({
      do: fc.constant('trouble' as const),
      what: fc.constantFrom('offline' as const, 'lost reply' as const),
    }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('old page' as const) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('refuse' as const), nth: number }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('close' as const), tab }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('hear' as const), tab }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('pause' as const) }) },
);

const turn = () => new Promise<void>((resolve) => setImmediate(resolve));

async function play(steps: readonly Step[]): Promise<void> {
  const [server, storage] = [new FakeServer(), new SharedStorage()];
  let opened = 0;
  const open = () => new Tab(`tab ${(opened += 1)}`, server, storage);
  const tabs = [open(), open()];
  const all = [...tabs];
  const made = new Map<string, Edit>();
  const refused = new Set<string>();
  let oldPage = false;
  server.rule = ({ id }) =>
    oldPage ? { status: 409, code: 'old-page' } : refused.has(id) ? { status: 422, code: 'invalid' } : null;
  const replace = async (at: 0 | 1) => {
    tabs[at]!.closed = true;
    tabs[at] = open();
    all.push(tabs[at]!);
    tabs[at]!.catchUp();
    const alive = new Set(tabs.map(({ name }) => name));
    await tabs[at]!.outbox.adopt((owner) => !alive.has(owner));
  };
  const other = new Tab('other', server, new SharedStorage());

  for (const one of steps) {
    if (one.do === 'act') {
      const edit = tabs[one.tab]!.act(one.what, one.value);
      made.set(edit.id, edit);
    } else if (one.do === 'other') {
      other.catchUp();
      other.act(one.what, one.value);
    } else if (one.do === 'trouble') server.trouble.push(one.what);
    else if (one.do === 'old page') oldPage = true;
    else if (one.do === 'refuse') {
      const id = [...made.keys()].at(-1 - (one.nth % 3));
      if (id && !server.log.some((edit) => edit.id === id)) refused.add(id);
    } else if (one.do === 'close') await replace(one.tab);
    else if (one.do === 'hear') tabs[one.tab]!.catchUp();
    else await turn();
    if (oldPage && one.do === 'pause') {
      // The server was updated; both pages are reloaded.
      oldPage = false;
      await replace(0);
      await replace(1);
    }
  }
  oldPage = false;
  await replace(0);
  await replace(1);
  // People decide about everything that waits for them, until nothing does.
  for (let round = 0; round < 200; round += 1) {
    for (const one of [...tabs, other]) {
      await one.outbox.settled();
      for (const { entry } of one.conflicts) one.outbox.resolve(entry.edit.id, round % 2 === 0 ? 'mine' : 'theirs');
      for (const { entry } of one.conflicts) if (round > 20) one.outbox.resolve(entry.edit.id, 'theirs');
      await one.outbox.settled();
    }
    await turn();
    if ([...tabs, other].every((one) => one.conflicts.length === 0 && one.outbox.pending('p').length === 0)) break;
  }

  const logged = server.log.map(({ id }) => id);
  // Nothing is applied twice.
  expect(new Set(logged).size).toBe(logged.length);
  // Nothing that was confirmed is missing.
  for (const one of all) for (const id of one.confirmed) expect(logged).toContain(id);
  // Everything that was made is saved, given up by a decision, or set aside and still there.
  const kept = new Set([...storage.entries.values()].map(({ edit }) => edit.id));
  for (const id of made.keys())
    expect([id, logged.includes(id) || kept.has(id) || all.some((one) => one.dropped.has(id))]).toEqual([id, true]);
  // Nothing waits any more but what was set aside, and both tabs show what the database has.
  for (const entry of storage.entries.values()) expect(entry.aside).not.toBeNull();
  for (const one of tabs) {
    one.catchUp();
    expect([...one.shown()].sort()).toEqual([...server.rows].sort());
  }
}

/** Stories that are tried. */
const RUNS = 150;

test('whatever order things happen in, nothing confirmed is lost, nothing applied twice, all see the same', async () => {
  await fc.assert(fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 45 }), play), { numRuns: RUNS });
}, 120_000);
