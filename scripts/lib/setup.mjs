import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { must, ROOT } from './run.mjs';

/** Debian packages and a file that tells whether each is there. */
const PACKAGES = [
  { name: 'postgresql', present: () => postgresBinaries() !== null },
  { name: 'chromium', present: () => existsSync('/usr/bin/chromium') },
  { name: 'ffmpeg', present: () => existsSync('/usr/bin/ffprobe') },
];

/** Folder of the newest PostgreSQL server's programs, or null. */
export function postgresBinaries() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return null;
  const versions = readdirSync(base).sort((a, b) => Number(b) - Number(a));
  return versions.map((v) => join(base, v, 'bin')).find((bin) => existsSync(join(bin, 'initdb'))) ?? null;
}

/** Installs what Debian has and this machine lacks. */
export async function installPackages() {
  const missing = PACKAGES.filter((p) => !p.present()).map((p) => p.name);
  if (missing.length === 0) return;
  if (process.getuid?.() !== 0)
    throw new Error(`Please install what is missing first:  sudo apt-get install ${missing.join(' ')}`);
  console.log(`Installing from Debian: ${missing.join(', ')}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await must('apt-get', ['update', '-qq'], { env });
  // Services of our own are started later, on ports of our own.
  await must('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { env });
}

/** Installs the npm packages of the lock file, once per lock file. */
export async function installModules() {
  const stamp = join(ROOT, 'node_modules', '.eskovan-lock');
  const wanted = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Installing npm packages');
  // The tools that build it are needed in every environment.
  await must('npm', ['ci', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(stamp, wanted);
}
