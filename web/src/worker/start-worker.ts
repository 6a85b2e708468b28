import type { Work } from './work.ts';

/**
 * Starts a worker.
 * @param which of several that do the same, for whoever looks at them in a browser's tools
 */
export const startWorker = (work: Work, which = ''): Worker =>
  new Worker(new URL('./begin.worker.ts', import.meta.url), { type: 'module', name: `${work} ${which}`.trim() });
