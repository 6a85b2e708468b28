// The server on 5170 and the interface with live reload on 5173.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './lib/run.mjs';

const start = spawn('node', ['scripts/start.mjs'], { cwd: ROOT, stdio: 'inherit' });
const vite = spawn('npx', ['vite'], { cwd: join(ROOT, 'web'), stdio: 'inherit' });
const stop = () => {
  start.kill('SIGTERM');
  vite.kill('SIGTERM');
};
process.once('SIGINT', stop);
process.once('SIGTERM', stop);
start.once('exit', () => vite.kill('SIGTERM'));
