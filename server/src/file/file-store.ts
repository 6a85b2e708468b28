import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Inject, Injectable, Logger, type OnModuleInit } from '@nestjs/common';
import { sha256Schema, type FileRef } from '@eskovan/core/document';
import { Sequelize } from 'sequelize-typescript';
import { ProblemException } from '../common/problem.ts';
import { CONFIG, type Config } from '../config.ts';
import { FileModel, ROW_MODELS } from '../database/rows.ts';

/** A file that nothing names is kept this long: its row may still be on the way. */
const GRACE_MS = 24 * 3600 * 1000;

/**
 * Files on disk under their SHA-256. A file is written beside the store, forced to disk and moved in under its name;
 * only then is it reported. Whatever a crash leaves half-written is swept at the next start.
 */
@Injectable()
export class FileStore implements OnModuleInit {
  private readonly logger = new Logger('files');
  private readonly folder: string;
  private readonly incoming: string;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Sequelize) private readonly sequelize: Sequelize,
  ) {
    this.folder = join(config.dataFolder, 'files');
    this.incoming = join(config.dataFolder, 'incoming');
  }

  async onModuleInit(): Promise<void> {
    await rm(this.incoming, { recursive: true, force: true });
    await mkdir(this.folder, { recursive: true });
    await mkdir(this.incoming, { recursive: true });
  }

  /** Where a file is on disk. The name is checked here: nothing else of a request ever becomes a path. */
  pathOf(sha256: string): string {
    const name = sha256Schema.parse(sha256);
    return join(this.folder, name.slice(0, 2), name);
  }

  find(sha256: string): Promise<FileModel | null> {
    return FileModel.findByPk(sha256);
  }

  /** @throws ProblemException 413 beyond the size limit, 422 for an empty file */
  async keep(stream: Readable, mediaType: string): Promise<FileRef> {
    const temporary = join(this.incoming, randomUUID());
    const hash = createHash('sha256');
    let size = 0;
    const largest = this.config.largestFile;
    const measure = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        size += chunk.length;
        hash.update(chunk);
        done(size > largest ? tooLarge(largest) : null, chunk);
      },
    });
    try {
      await pipeline(stream, measure, createWriteStream(temporary));
      if (size === 0)
        throw new ProblemException(422, { code: 'empty', message: 'The file is empty. Choose another one.' });
      const sha256 = hash.digest('hex');
      await flush(temporary);
      await mkdir(join(this.folder, sha256.slice(0, 2)), { recursive: true });
      await rename(temporary, this.pathOf(sha256));
      await FileModel.upsert({ sha256, size, mediaType, created: new Date() });
      return { sha256, size, mediaType };
    } finally {
      await rm(temporary, { force: true });
    }
  }

  /** @throws ProblemException 422 when a body names a file that is not kept here */
  async requireAll(body: unknown): Promise<void> {
    const named = namedFiles(body);
    if (named.size === 0) return;
    const known = await FileModel.findAll({ where: { sha256: [...named] }, attributes: ['sha256'] });
    if (known.length < named.size)
      throw new ProblemException(422, {
        code: 'file-missing',
        message: 'This names a file that was never stored completely. Upload it again.',
      });
  }

  /** Removes files that no row names, deleted rows included. Returns how many. */
  async sweep(now = Date.now()): Promise<number> {
    const named = new Set<string>();
    for (const table of [...Object.keys(ROW_MODELS), 'site']) {
      const [rows] = await this.sequelize.query(`SELECT body::text AS body FROM ${table}`);
      for (const { body } of rows as { body: string }[]) for (const name of namedFiles(body)) named.add(name);
    }
    let removed = 0;
    for (const shelf of await readdir(this.folder))
      for (const name of await readdir(join(this.folder, shelf))) {
        if (named.has(name) || !sha256Schema.safeParse(name).success) continue;
        const path = this.pathOf(name);
        if (now - (await stat(path)).mtimeMs < GRACE_MS) continue;
        await FileModel.destroy({ where: { sha256: name } });
        await rm(path, { force: true });
        removed += 1;
      }
    if (removed > 0) this.logger.log({ message: 'removed files that nothing names', removed });
    return removed;
  }
}

const tooLarge = (limit: number) =>
  new ProblemException(413, {
    code: 'too-large',
    message: `The file is larger than ${Math.floor(limit / 1024 ** 2)} MB, the most that is taken in.`,
  });

/** Every SHA-256 inside a body, however deep. */
function namedFiles(body: unknown): Set<string> {
  const text = typeof body === 'string' ? body : JSON.stringify(body);
  return new Set([...text.matchAll(/"sha256":\s*"([0-9a-f]{64})"/g)].map((match) => match[1]!));
}

/** Forces a file to disk, so that a power cut after the reply cannot lose it. */
async function flush(path: string): Promise<void> {
  const handle = await open(path, 'r+');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
