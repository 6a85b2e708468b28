import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { freePort } from '../../scripts/lib/database.mjs';
import { startServer } from '../../scripts/lib/server.mjs';

export interface OwnStudio {
  address: string;
  port: number;
  reviewPort: number;
  dataFolder: string;
  databaseUrl: string;
  /** Ends the server as a power cut would. */
  kill(): Promise<void>;
  /** Starts it again, on the same database and files. */
  start(): Promise<void>;
  /** Files that are being written just now. */
  incoming(): Promise<string[]>;
  stop(): Promise<void>;
}

/** A studio of its own, for stories in which servers die. */
export async function ownStudio(): Promise<OwnStudio> {
  const base = process.env['ESKOVAN_TEST_DATABASE'];
  if (!base) throw new Error('ESKOVAN_TEST_DATABASE is not set: run the stories with `npm test`');
  const name = `story_${crypto.randomUUID().replaceAll('-', '')}`;
  const admin = async (sql: string) => {
    const client = new pg.Client({ connectionString: base });
    await client.connect();
    await client.query(sql).finally(() => client.end());
  };
  await admin(`CREATE DATABASE ${name}`);
  const url = new URL(base);
  url.pathname = `/${name}`;
  const dataFolder = await mkdtemp(join(tmpdir(), 'eskovan-story-'));
  const [port, reviewPort] = [await freePort(), await freePort()];
  const launch = () => startServer({ databaseUrl: url.href, dataFolder, port, reviewPort });
  let server = await launch();
  return {
    address: server.address,
    port,
    reviewPort,
    dataFolder,
    databaseUrl: url.href,
    kill: () => server.stop('SIGKILL'),
    start: async () => {
      server = await launch();
    },
    incoming: () => readdir(join(dataFolder, 'incoming')),
    stop: async () => {
      await server.stop();
      await admin(`DROP DATABASE ${name} WITH (FORCE)`);
      await rm(dataFolder, { recursive: true, force: true });
    },
  };
}
