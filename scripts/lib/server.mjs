import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './run.mjs';

/**
 * Starts the built server and waits until it answers.
 * @returns its address, the process, and how to stop it
 */
export async function startServer({ databaseUrl, dataFolder, port, reviewPort, log = 'ignore' }) {
  const child = spawn('node', [join(ROOT, 'server/dist/whole/main.js')], {
    cwd: ROOT,
    stdio: ['ignore', log, 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      ESKOVAN_DATA: dataFolder,
      ESKOVAN_WEB: join(ROOT, 'web/dist'),
      PORT: String(port),
      REVIEW_PORT: String(reviewPort),
    },
  });
  const ended = new Promise((resolve) => child.once('exit', (code) => resolve(code)));
  const address = `http://localhost:${port}`;
  try {
    await answering(address, ended);
  } catch (error) {
    child.kill('SIGKILL');
    throw error;
  }
  return {
    address,
    reviewAddress: process.env.PUBLIC_URL || `http://localhost:${reviewPort}`,
    child,
    ended,
    stop: async (signal = 'SIGTERM') => {
      child.kill(signal);
      await ended;
    },
  };
}

async function answering(address, ended) {
  let over = false;
  void ended.then(() => (over = true));
  for (let tries = 0; tries < 600; tries += 1) {
    if (over) throw new Error('the server ended before it answered; its last lines are above');
    try {
      if ((await fetch(`${address}/api/health`)).ok) return;
    } catch {
      // Not listening yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('the server did not answer within a minute');
}
