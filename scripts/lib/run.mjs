import { spawn } from 'node:child_process';
import { constants, setPriority } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');

/** The compiler that builds and checks types; ESLint still needs an older one, which has the same name. */
export const TSC = join(ROOT, 'node_modules', 'typescript-native', 'bin', 'tsc');

const running = new Set();

/** Ends the commands that are running: nothing stays behind. */
export const killRunning = () => running.forEach((child) => child.kill('SIGTERM'));

/**
 * Runs a command with its output shown; resolves with the exit code, never rejects for it.
 * @param options as those of `spawn`; `aside` lets everything else go first
 */
export function run(command, args, { aside = false, ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
    if (aside && child.pid) setPriority(child.pid, constants.priority.PRIORITY_LOW);
    running.add(child);
    child.once('error', reject);
    child.once('exit', (code, signal) => {
      running.delete(child);
      resolve(code ?? (signal ? 1 : 0));
    });
  });
}

/** Runs a command that must succeed. */
export async function must(command, args, options = {}) {
  const code = await run(command, args, options);
  if (code !== 0) throw new Error(`${command} ${args.join(' ')} ended with code ${code}`);
}

/** Output of a command, or null when it fails or does not exist. */
export function output(command, args, options = {}) {
  return new Promise((resolve) => {
    let text = '';
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'ignore'], ...options });
    child.stdout.on('data', (chunk) => (text += chunk));
    child.once('error', () => resolve(null));
    child.once('exit', (code) => resolve(code === 0 ? text : null));
  });
}
