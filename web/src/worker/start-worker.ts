/** What is worked out beside the page, each by code of its own; see `begin.worker.ts`. */
export type Work =
  'ahead' | 'clip' | 'film' | 'gather' | 'ground' | 'import' | 'picture' | 'reel' | 'site' | 'sound' | 'suggest';

/**
 * Starts a worker.
 * @param which of several that do the same, for whoever looks at them in a browser's tools
 */
export const startWorker = (work: Work, which = ''): Worker =>
  new Worker(new URL('./begin.worker.ts', import.meta.url), { type: 'module', name: `${work} ${which}`.trim() });
