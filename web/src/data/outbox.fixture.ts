import {
  applyEdit,
  DOCUMENT_VERSION,
  type Change,
  type Edit,
  type EditReply,
  type Kind,
  type Row,
} from '@eskovan/core/document';
import { ApiError, OfflineError } from './api.ts';
import type { OutboxEntry, OutboxStorage } from './outbox-storage.ts';

export const ME = { id: '00000000-0000-4000-8000-0000000000aa', name: 'Ines' };

/** What a browser keeps; shared by its tabs. */
export class SharedStorage implements OutboxStorage {
  readonly entries = new Map<string, OutboxEntry>();
  all = () => Promise.resolve([...this.entries.values()]);
  put = async (entry: OutboxEntry) => void this.entries.set(entry.edit.id, structuredClone(entry));
  remove = async (editId: string) => void this.entries.delete(editId);
}

/** A server with one table and a log, which can be told to fail. It keeps what it has confirmed. */
export class FakeServer {
  rows = new Map<string, Row>();
  readonly log: Edit[] = [];
  /** What the next requests meet before they get through. */
  trouble: ('offline' | 'lost reply')[] = [];
  /** Refuses some edits for good, or fails over them. */
  rule: (edit: Edit) => { status: number; code: string } | null = () => null;

  send = (edit: Edit): Promise<EditReply> => {
    const trouble = this.trouble.shift();
    if (trouble === 'offline') return Promise.reject(new OfflineError());
    const refusal = this.rule(edit);
    if (refusal)
      return Promise.reject(new ApiError(refusal.status, { code: refusal.code, message: `refused: ${edit.label}` }));
    try {
      const reply = this.apply(edit);
      return trouble === 'lost reply' ? Promise.reject(new OfflineError()) : Promise.resolve(structuredClone(reply));
    } catch (error) {
      return Promise.reject(error as Error);
    }
  };

  private apply(edit: Edit): EditReply {
    const touched = () => [...new Set(edit.changes.map(({ id }) => id))].flatMap((id) => this.rows.get(id) ?? []);
    const kind = (id: string): Kind => edit.changes.find((change) => change.id === id)!.kind;
    const known = this.log.findIndex(({ id }) => id === edit.id);
    if (known >= 0) return { seq: known + 1, rows: touched().map((row) => ({ kind: kind(row.id), row })) };
    const { rows, clashes } = applyEdit(edit, (_, id) => this.rows.get(id), 'now');
    if (clashes.length > 0)
      throw new ApiError(409, {
        code: 'conflict',
        message: 'changed elsewhere',
        clashes,
        rows: touched().map((row) => ({ kind: kind(row.id), row })),
      });
    for (const { row } of rows) this.rows.set(row.id, { ...row, revision: row.revision + 1 });
    this.log.push(structuredClone(edit));
    return { seq: this.log.length, rows: touched().map((row) => ({ kind: kind(row.id), row })) };
  }

  names = () =>
    [...this.rows.values()]
      .filter(({ deleted }) => !deleted)
      .map(({ name }) => name)
      .sort();
}

let made = 0;
export const editOf = (changes: Change[], more: Partial<Edit> = {}): Edit => ({
  id: `00000000-0000-4000-8000-${String((made += 1)).padStart(12, '0')}`,
  projectId: 'p',
  label: 'Something',
  by: ME,
  machine: false,
  version: DOCUMENT_VERSION,
  changes,
  given: [],
  ...more,
});
export const make = (id: string, name = id): Change => ({
  op: 'make',
  kind: 'view',
  id,
  name,
  order: 0,
  body: { lens: 24, note: '' },
});
export const set = (id: string, member: string, before: unknown, after: unknown): Change => ({
  op: 'set',
  kind: 'view',
  id,
  facet: member === 'name' ? ['name'] : ['body', member],
  before,
  after,
});
