import { opendir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { QueryTypes } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { FileStore } from './file-store.ts';

/** A kept file that nothing uses stays this long: its row may still be on the way. */
export const GRACE_MS = 24 * 3600 * 1000;
/** A file that is being written is written to at least this often; so is the list of one that was moved in. */
export const STRAY_MS = 3600 * 1000;
/** Between two sweeps. */
const PAUSE_MS = 6 * 3600 * 1000;
/** Files looked at in one question. */
const BATCH = 500;

export interface Swept {
  /** Kept files that nothing used any more. */
  unused: number;
  /** Files on disk that no list knows, and uploads that were never finished. */
  stray: number;
}

/** Removes files that nothing needs, while the server runs. What it does not know it leaves alone. */
@Injectable()
export class FileSweep implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger('files');
  private timer: NodeJS.Timeout | undefined;

  constructor(
    @Inject(FileStore) private readonly store: FileStore,
    @Inject(Sequelize) private readonly sequelize: Sequelize,
  ) {}

  onApplicationBootstrap(): void {
    const run = () =>
      void this.sweep().catch((error: unknown) => this.logger.error(error instanceof Error ? error.message : error));
    this.timer = setInterval(run, PAUSE_MS);
    this.timer.unref();
    run();
  }

  onApplicationShutdown(): void {
    clearInterval(this.timer);
  }

  async sweep(now = Date.now()): Promise<Swept> {
    const swept = {
      unused: await this.sweepUnused(now),
      stray: (await this.sweepStray(now)) + (await this.sweepIncoming(now)),
    };
    if (swept.unused + swept.stray > 0) this.logger.log({ message: 'removed files that nothing needs', ...swept });
    return swept;
  }

  private async sweepUnused(now: number): Promise<number> {
    let removed = 0;
    let last = '';
    for (;;) {
      const loose = await this.sequelize.query<{ sha256: string }>(
        `SELECT sha256 FROM file WHERE sha256 > :last AND created < :before
           AND NOT EXISTS (SELECT FROM file_use WHERE file_use.sha256 = file.sha256)
         ORDER BY sha256 LIMIT ${BATCH}`,
        { type: QueryTypes.SELECT, replacements: { last, before: new Date(now - GRACE_MS) } },
      );
      for (const { sha256 } of loose) if (await this.remove(sha256, now)) removed += 1;
      if (loose.length < BATCH) return removed;
      last = loose.at(-1)!.sha256;
    }
  }

  /** Decided in one transaction with what refers to it; gone from disk only once it is gone from the list. */
  private remove(sha256: string, now: number): Promise<boolean> {
    return this.store.alone(sha256, async () => {
      const gone = await this.sequelize
        .query(
          `DELETE FROM file WHERE sha256 = :sha256 AND created < :before
             AND NOT EXISTS (SELECT FROM file_use WHERE file_use.sha256 = file.sha256) RETURNING sha256`,
          { type: QueryTypes.SELECT, replacements: { sha256, before: new Date(now - GRACE_MS) } },
        )
        // Something began to use it meanwhile: the database held on to it.
        .catch(() => []);
      if (gone.length > 0) await rm(this.store.pathOf(sha256), { force: true });
      return gone.length > 0;
    });
  }

  /** Files that were moved in without being listed: the server died between the two. */
  private async sweepStray(now: number): Promise<number> {
    let removed = 0;
    const look = async (names: string[]) => {
      if (names.length === 0) return;
      const listed = await this.sequelize.query<{ sha256: string }>(
        `SELECT sha256 FROM file WHERE sha256 IN (:names)`,
        {
          type: QueryTypes.SELECT,
          replacements: { names },
        },
      );
      const known = new Set(listed.map(({ sha256 }) => sha256));
      for (const name of names) if (!known.has(name) && (await this.removeStray(name, now))) removed += 1;
    };
    let batch: string[] = [];
    for await (const name of this.store.names()) {
      batch.push(name);
      if (batch.length < BATCH) continue;
      await look(batch);
      batch = [];
    }
    await look(batch);
    return removed;
  }

  private removeStray(name: string, now: number): Promise<boolean> {
    return this.store.alone(name, async () => {
      const path = this.store.pathOf(name);
      if (!(await isOlder(path, now - STRAY_MS)) || (await this.store.find(name))) return false;
      await rm(path, { force: true });
      return true;
    });
  }

  private async sweepIncoming(now: number): Promise<number> {
    let removed = 0;
    for await (const entry of await opendir(this.store.incoming)) {
      const path = join(this.store.incoming, entry.name);
      if (!entry.isFile() || !UPLOAD.test(entry.name) || !(await isOlder(path, now - STRAY_MS))) continue;
      await rm(path, { force: true });
      removed += 1;
    }
    return removed;
  }
}

/** How uploads are called while they are written. */
const UPLOAD = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

const isOlder = (path: string, than: number): Promise<boolean> =>
  stat(path).then(
    ({ mtimeMs }) => mtimeMs < than,
    () => false,
  );
