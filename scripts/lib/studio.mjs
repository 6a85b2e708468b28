import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, startDatabase } from './database.mjs';
import { ROOT } from './run.mjs';
import { startServer } from './server.mjs';

/** What the demo needs long to compute is kept here between runs. */
export const DEMO_CACHE = join(ROOT, '.data', 'demo');

/** Gives `use` a folder of its own, which is gone afterwards. */
export async function withFolder(use) {
  const home = mkdtempSync(join(tmpdir(), 'eskovan-'));
  try {
    return await use({ home });
  } finally {
    rmSync(home, { recursive: true, force: true });
  }
}

/** Gives `use` a database of its own, which is gone afterwards. */
export const withDatabase = (use) =>
  withFolder(async ({ home }) => {
    // The database's own user must get through.
    chmodSync(home, 0o711);
    const database = await startDatabase(join(home, 'database'), { durable: false });
    try {
      return await use({ database, home });
    } finally {
      await database.stop();
      database.remove();
    }
  });

/** Gives `use` a running studio with the demo in it, on a database of its own. Needs a build. */
export function withStudio({ pictures = true, brief = false, say = () => {} }, use) {
  return withDatabase(async ({ database, home }) => {
    const { seedDemo } = await import('../../demo/dist/seed/index.js');
    const server = await startServer({
      databaseUrl: database.url,
      dataFolder: join(home, 'files'),
      port: await freePort(),
      reviewPort: await freePort(),
    });
    try {
      await seedDemo(server.address, { cache: DEMO_CACHE, pictures, brief, say });
      return await use({ address: server.address, database, home });
    } finally {
      await server.stop();
    }
  });
}
