import type { FilmFile } from '@eskovan/render';
import { SaidError } from './said.ts';

/** Files of films begin with this, in this browser's own storage for the page. */
const PREFIX = 'film-';
/** A film that was left behind by a page that went away is cleared after this, milliseconds. */
const LEFT_BEHIND = 24 * 60 * 60 * 1000;
/** A file is free a moment after the worker that wrote it has ended: how often that is tried, and how far apart. */
const TRIES = 20;
const PAUSE = 100;

/** What a worker may do with a file; the types of workers are not those of pages. */
interface OpenFile {
  write(bytes: Uint8Array<ArrayBuffer>, where: { at: number }): number;
  flush(): void;
  close(): void;
}

/**
 * A file in the browser's own storage, in a worker: a film is never held in memory as a whole. Null where there is no
 * such storage (private windows, addresses that are not secure): then memory has to do.
 * @param job what the film is rendered for
 */
export async function openFilmFile(job: string): Promise<FilmFile | null> {
  try {
    const folder = await navigator.storage.getDirectory();
    await clearLeftBehind(folder);
    const handle = await folder.getFileHandle(PREFIX + job, { create: true });
    const file = await (handle as unknown as { createSyncAccessHandle(): Promise<OpenFile> }).createSyncAccessHandle();
    return {
      write: (bytes, position) => {
        if (file.write(bytes, { at: position }) !== bytes.length)
          throw new SaidError('There is no room left on the disk for this film. Make room and render it again.');
      },
      done: async () => {
        file.flush();
        file.close();
        return handle.getFile();
      },
    };
  } catch {
    return null;
  }
}

/** Takes the film of a job off the disk, once its worker has ended. */
export async function dropFilmFile(job: string): Promise<void> {
  const folder = await navigator.storage?.getDirectory?.().catch(() => null);
  for (let i = 0; folder && i < TRIES; i += 1) {
    const left = await folder.removeEntry(PREFIX + job).catch((error: DOMException) => error.name);
    if (left === undefined || left === 'NotFoundError') return;
    await new Promise((resolve) => setTimeout(resolve, PAUSE));
  }
}

async function clearLeftBehind(folder: FileSystemDirectoryHandle): Promise<void> {
  for await (const [name, handle] of folder.entries()) {
    if (!name.startsWith(PREFIX) || handle.kind !== 'file') continue;
    const { lastModified } = await (handle as FileSystemFileHandle).getFile();
    // One that another tab is writing cannot be removed, and need not be.
    if (Date.now() - lastModified > LEFT_BEHIND) await folder.removeEntry(name).catch(() => undefined);
  }
}
