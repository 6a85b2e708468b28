import { DOCUMENT_VERSION, type Change, type Edit, type FileRef, type Person } from '@eskovan/core/document';

/** Who makes the demo commission. */
const SEEDER: Person = { id: '00000000-0000-4000-8000-00000000de00', name: 'Eskovan' };

/** The few requests that seeding needs. Everything goes the way that the application itself goes. */
export class SeedApi {
  constructor(private readonly address: string) {}

  async exists(path: string): Promise<boolean> {
    return (await fetch(this.address + path)).ok;
  }

  async get<T>(path: string): Promise<T> {
    const response = await fetch(this.address + path);
    if (!response.ok) throw new Error(`GET ${path}: ${response.status}`);
    return (await response.json()) as T;
  }

  put(path: string, body: unknown): Promise<void> {
    return this.send('PUT', path, body);
  }

  /** Makes rows, as one edit. */
  make(projectId: string, label: string, rows: readonly Omit<Extract<Change, { op: 'make' }>, 'op'>[]): Promise<void> {
    const edit: Edit = {
      id: crypto.randomUUID(),
      projectId,
      label,
      by: SEEDER,
      machine: false,
      version: DOCUMENT_VERSION,
      changes: rows.map((row) => ({ op: 'make', ...row })),
      given: [],
    };
    return this.send('POST', `/api/projects/${projectId}/edits`, edit);
  }

  private async send(method: string, path: string, body: unknown): Promise<void> {
    const response = await fetch(this.address + path, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
  }

  async upload(bytes: Uint8Array | string, mediaType: string): Promise<FileRef> {
    const response = await fetch(`${this.address}/api/files`, {
      method: 'POST',
      headers: { 'Content-Type': mediaType },
      body: typeof bytes === 'string' ? bytes : new Uint8Array(bytes),
    });
    if (!response.ok) throw new Error(`upload: ${response.status} ${await response.text()}`);
    return (await response.json()) as FileRef;
  }
}
