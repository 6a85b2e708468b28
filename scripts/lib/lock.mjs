import { closeSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';

/** Is a process of ours alive under this number? Numbers are given again: what it runs tells. */
function isOurs(pid) {
  try {
    process.kill(pid, 0);
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs');
  } catch {
    return false;
  }
}

/**
 * Takes a folder for this process, before anything in it is touched.
 * @returns what gives it back
 * @throws Error when another start works on it
 */
export function takeFolder(folder) {
  const path = join(folder, 'running');
  for (;;) {
    try {
      const file = openSync(path, 'wx');
      writeSync(file, String(process.pid));
      closeSync(file);
      return () => rmSync(path, { force: true });
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
      const pid = Number(readFileSync(path, 'utf8'));
      if (pid !== process.pid && isOurs(pid))
        throw new Error(
          `it is running already on ${folder} (process ${pid}). Stop that one first, or set ESKOVAN_HOME to another folder.`,
          { cause: error },
        );
      // What a crash left behind.
      rmSync(path, { force: true });
    }
  }
}
