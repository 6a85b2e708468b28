import { existsSync, readdirSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { must, ROOT, TSC } from './run.mjs';

/** Newest change below a folder, milliseconds. */
function newest(folder) {
  let latest = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'node_modules' || entry.name === 'dist') continue;
    const path = join(folder, entry.name);
    latest = Math.max(latest, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs);
  }
  return latest;
}

/** Builds what has changed since the last build. */
export async function build() {
  const stamp = join(ROOT, 'web', 'dist', '.built');
  const changed = Math.max(...['core', 'render', 'web', 'server', 'demo'].map((name) => newest(join(ROOT, name))));
  if (existsSync(stamp) && statSync(stamp).mtimeMs >= changed) return;
  console.log('Building');
  await must('node', [TSC, '-b', 'server/tsconfig.build.json', 'demo/tsconfig.build.json']);
  await must('npx', ['rolldown', '-c', 'rolldown.config.mjs', '--log-level', 'silent'], { cwd: join(ROOT, 'server') });
  await must('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: join(ROOT, 'web') });
  writeFileSync(stamp, '');
  const when = new Date(changed);
  utimesSync(stamp, when, when);
}
