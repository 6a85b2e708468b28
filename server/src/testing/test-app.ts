import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { INestApplication } from '@nestjs/common';
import pg from 'pg';
import request, { type Agent } from 'supertest';
import { createApp } from '../app.ts';
import { REVIEW_LIMITS } from '../common/review-limits.ts';
import type { Config } from '../config.ts';
import { openDoors } from '../doors.ts';

export interface TestApp {
  app: INestApplication;
  /** The studio's door. */
  http: Agent;
  /** The clients' door. */
  review: Agent;
  port: number;
  config: Config;
  stop(): Promise<void>;
}

/** Address of the test database server; set by the test command, which starts one. */
function databaseServer(): URL {
  const url = process.env['ESKOVAN_TEST_DATABASE'];
  if (!url) throw new Error('ESKOVAN_TEST_DATABASE is not set: run the tests with `npm test`');
  return new URL(url);
}

async function inServer(sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: databaseServer().href });
  await client.connect();
  try {
    await client.query(sql);
  } finally {
    await client.end();
  }
}

/** A server of its own on a database and a folder of its own; both are gone afterwards. */
export async function startTestApp(change: Partial<Config> = {}): Promise<TestApp> {
  const name = `test_${crypto.randomUUID().replaceAll('-', '')}`;
  await inServer(`CREATE DATABASE ${name}`);
  const dataFolder = await mkdtemp(join(tmpdir(), 'eskovan-server-'));
  const url = databaseServer();
  url.pathname = `/${name}`;
  const config: Config = {
    databaseUrl: url.href,
    dataFolder,
    port: 0,
    reviewPort: 0,
    reviewHost: '127.0.0.1',
    publicUrl: null,
    trustProxy: false,
    webFolder: null,
    largestFile: 1024 ** 2,
    reviewLimits: REVIEW_LIMITS,
    ...change,
  };
  const app = await createApp(config, { quiet: true });
  const doors = await openDoors(app);
  config.reviewPort = doors.review.port;
  return {
    app,
    http: request.agent(`http://localhost:${doors.studio.port}`),
    review: request.agent(`http://localhost:${doors.review.port}`),
    port: doors.studio.port,
    config,
    stop: async () => {
      const closed = doors.close();
      await app.close();
      await closed;
      await inServer(`DROP DATABASE ${name} WITH (FORCE)`);
      await rm(dataFolder, { recursive: true, force: true });
    },
  };
}
