// Everything that a fresh Debian machine with Node needs, then the application.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { takeFolder } from './lib/lock.mjs';
import { killRunning, ROOT } from './lib/run.mjs';
import { installModules, installPackages } from './lib/setup.mjs';

/** Between two looks at the database, milliseconds. */
const LOOK_MS = 5000;
/** Restarts in a row after which a database is given up. */
const MOST_RESTARTS = 3;

const home = process.env.ESKOVAN_HOME ?? join(ROOT, '.data');
const port = Number(process.env.PORT ?? 5170);
const reviewPort = Number(process.env.REVIEW_PORT ?? port + 1);
mkdirSync(home, { recursive: true });

/** What has been started, in order; stopped the other way round. */
const started = [];
let stopping = null;

/** Stops all that was started. Nothing stays behind, whatever happened. */
function stop(code, words) {
  stopping ??= (async () => {
    if (words) console.error(words);
    killRunning();
    for (const end of started.reverse()) await end().catch((error) => console.error(error.message));
    process.exit(code);
  })();
  return stopping;
}
process.once('SIGINT', () => void stop(0));
process.once('SIGTERM', () => void stop(0));

try {
  const release = takeFolder(home);
  started.push(async () => release());
  await run();
} catch (error) {
  await stop(1, `Eskovan could not start: ${error.message}`);
}

async function run() {
  await installPackages();
  await installModules();
  const { hasEnded, startDatabase } = await import('./lib/database.mjs');
  const { startServer } = await import('./lib/server.mjs');
  const own = process.env.DATABASE_URL ? null : await startDatabase(join(home, 'database'));
  if (own) started.push(() => own.stop());
  await build();
  if (stopping) return;
  const log = process.env.ESKOVAN_LOG === 'show' ? 'inherit' : 'ignore';
  const databaseUrl = own?.url ?? process.env.DATABASE_URL;
  const server = await startServer({ databaseUrl, dataFolder: join(home, 'files'), port, reviewPort, log });
  started.push(() => server.stop());
  void server.ended.then((code) => stopping ?? stop(1, `The server ended with code ${code}.`));
  if (own) watch(own, { hasEnded, startDatabase });

  if (process.env.ESKOVAN_DEMO !== 'none') {
    const { seedDemo } = await import('../demo/dist/seed/index.js');
    try {
      await seedDemo(server.address, { cache: join(home, 'demo'), say: (text) => console.log(text) });
    } catch (error) {
      // The application is whole without it.
      console.error(`The demo commission is not complete: ${error.message}`);
    }
  }
  if (!stopping)
    console.log(
      `\nEskovan is ready:  ${server.address}\nReviews are served at ${server.reviewAddress}\nStop it with Ctrl-C; everything is kept.`,
    );
}

/** A database that has ended is started again where it was; one that does not stay up ends everything, with words. */
function watch(database, { hasEnded, startDatabase }) {
  let restarts = 0;
  const look = async () => {
    if (stopping) return;
    if (!(await hasEnded(database.url))) restarts = 0;
    else if (restarts >= MOST_RESTARTS) {
      await stop(1, `The database does not stay up; its last words are in ${join(home, 'database', 'log')}.`);
      return;
    } else {
      restarts += 1;
      console.error('The database has ended; starting it again.');
      await startDatabase(join(home, 'database'), { port: Number(new URL(database.url).port) }).catch((error) =>
        console.error(error.message),
      );
    }
    setTimeout(() => void look(), LOOK_MS).unref();
  };
  setTimeout(() => void look(), LOOK_MS).unref();
}
