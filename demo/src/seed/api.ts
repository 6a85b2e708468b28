import type { FileRef } from '@eskovan/core/document';

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

  async put(path: string, body: unknown): Promise<void> {
    const response = await fetch(this.address + path, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`PUT ${path}: ${response.status} ${await response.text()}`);
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
