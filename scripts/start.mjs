// Everything that a fresh Debian machine with Node needs, then the application.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { ROOT } from './lib/run.mjs';
import { installModules, installPackages } from './lib/setup.mjs';

const home = process.env.ESKOVAN_HOME ?? join(ROOT, '.data');
const port = Number(process.env.PORT ?? 5170);
mkdirSync(home, { recursive: true });

await installPackages();
await installModules();
const { startDatabase } = await import('./lib/database.mjs');
const { startServer } = await import('./lib/server.mjs');
const database = process.env.DATABASE_URL
  ? { url: process.env.DATABASE_URL, stop: async () => {} }
  : await startDatabase(join(home, 'database'));
await build();
const log = process.env.ESKOVAN_LOG === 'show' ? 'inherit' : 'ignore';
const server = await startServer({ databaseUrl: database.url, dataFolder: join(home, 'files'), port, log });

let stopping = false;
const stop = async () => {
  if (stopping) return;
  stopping = true;
  await server.stop();
  await database.stop();
  process.exit(0);
};
process.once('SIGINT', stop);
process.once('SIGTERM', stop);
void server.ended.then(async (code) => {
  if (stopping) return;
  console.error(`The server ended with code ${code}.`);
  await database.stop();
  process.exit(1);
});

if (process.env.ESKOVAN_DEMO !== 'none') {
  const { seedDemo } = await import('../demo/dist/seed/index.js');
  try {
    await seedDemo(server.address, { cache: join(home, 'demo'), say: (text) => console.log(text) });
  } catch (error) {
    // The application is whole without it.
    console.error(`The demo commission is not complete: ${error.message}`);
  }
}
console.log(`\nEskovan is ready:  ${server.address}\nStop it with Ctrl-C; everything is kept.`);
