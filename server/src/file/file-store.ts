import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, open, opendir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { sha256Schema, type FileRef } from '@eskovan/core/document';
import type { Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { ProblemException } from '../common/problem.ts';
import { CONFIG, type Config } from '../config.ts';
import { FileModel } from '../database/rows.ts';

/** An upload that sends nothing for so long has been left, milliseconds. */
const SILENCE_MS = 60_000;

/**
 * Files on disk under their SHA-256. A file is written beside the store, forced to disk and moved in under its name;
 * only then is it reported. What a crash leaves half-written is swept.
 */
@Injectable()
export class FileStore implements OnModuleInit {
  /** Whole files, on shelves by the first two digits of their names. */
  readonly folder: string;
  /** Files that are being written. */
  readonly incoming: string;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Sequelize) private readonly sequelize: Sequelize,
  ) {
    this.folder = join(config.dataFolder, 'files');
    this.incoming = join(config.dataFolder, 'incoming');
  }

  async onModuleInit(): Promise<void> {
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

  /** @throws ProblemException 408 for a silent sender, 413 beyond the size limit, 422 for an empty file, 507 for a full disk */
  async keep(stream: Readable, mediaType: string): Promise<FileRef> {
    const temporary = join(this.incoming, randomUUID());
    const hash = createHash('sha256');
    let size = 0;
    const largest = this.config.largestFile;
    const silence = new AbortController();
    let timer = setTimeout(() => silence.abort(), SILENCE_MS);
    const measure = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        clearTimeout(timer);
        timer = setTimeout(() => silence.abort(), SILENCE_MS);
        size += chunk.length;
        hash.update(chunk);
        done(size > largest ? tooLarge(largest) : null, chunk);
      },
    });
    try {
      await pipeline(stream, measure, createWriteStream(temporary), { signal: silence.signal });
      if (size === 0)
        throw new ProblemException(422, { code: 'empty', message: 'The file is empty. Choose another one.' });
      const sha256 = hash.digest('hex');
      await flush(temporary);
      await this.moveIn(temporary, sha256, size, mediaType);
      return { sha256, size, mediaType };
    } catch (error) {
      if (silence.signal.aborted)
        throw new ProblemException(408, { code: 'silent', message: 'Nothing more of the file came. Send it again.' });
      throw error;
    } finally {
      clearTimeout(timer);
      await rm(temporary, { force: true });
    }
  }

  /** Puts a whole file under its name and into the list, or only the latter where it is there already. */
  private async moveIn(temporary: string, sha256: string, size: number, mediaType: string): Promise<void> {
    await this.alone(sha256, async (transaction) => {
      if (!(await isWhole(this.pathOf(sha256), size))) {
        await mkdir(join(this.folder, sha256.slice(0, 2)), { recursive: true });
        await rename(temporary, this.pathOf(sha256));
      }
      // What it was first sent as stays: what it is used as is said by the rows that use it.
      await this.sequelize.query(
        `INSERT INTO file (sha256, size, media_type, created) VALUES (:sha256, :size, :mediaType, now())
         ON CONFLICT (sha256) DO UPDATE SET created = now()`,
        { replacements: { sha256, size, mediaType }, transaction },
      );
    });
  }

  /** Does something with one file while nobody else, in this process or another, moves it in or out. */
  alone<T>(sha256: string, use: (transaction: Transaction) => Promise<T>): Promise<T> {
    return this.sequelize.transaction(async (transaction) => {
      await this.sequelize.query('SELECT pg_advisory_xact_lock(hashtextextended(:sha256, 12))', {
        replacements: { sha256 },
        transaction,
      });
      return use(transaction);
    });
  }

  /** Names of all files on the shelves, one by one; what lies there and is no file of ours is passed over. */
  async *names(): AsyncGenerator<string> {
    for await (const shelf of await opendir(this.folder)) {
      if (!shelf.isDirectory() || !/^[0-9a-f]{2}$/.test(shelf.name)) continue;
      for await (const { name } of await opendir(join(this.folder, shelf.name)))
        if (sha256Schema.safeParse(name).success && name.startsWith(shelf.name)) yield name;
    }
  }

  /** SHA-256 of what is on disk under a name, for those who want to be sure. */
  async hashOf(sha256: string): Promise<string> {
    const hash = createHash('sha256');
    await pipeline(createReadStream(this.pathOf(sha256)), hash);
    return hash.digest('hex');
  }
}

export const tooLarge = (limit: number) =>
  new ProblemException(413, {
    code: 'too-large',
    message: `The file is larger than ${Math.floor(limit / 1024 ** 2)} MB, the most that is taken in.`,
  });

async function isWhole(path: string, size: number): Promise<boolean> {
  return stat(path).then(
    (found) => found.isFile() && found.size === size,
    () => false,
  );
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
