/** What is worked out beside the page, each by code of its own. */
export const WORKS = {
  ahead: () => import('./ahead.worker.ts'),
  clip: () => import('./clip.worker.ts'),
  film: () => import('./film.worker.ts'),
  gather: () => import('./gather.worker.ts'),
  ground: () => import('./ground.worker.ts'),
  import: () => import('./import.worker.ts'),
  picture: () => import('./picture.worker.ts'),
  reel: () => import('./reel.worker.ts'),
  site: () => import('./site.worker.ts'),
  sound: () => import('./sound.worker.ts'),
  suggest: () => import('./suggest.worker.ts'),
};

export type Work = keyof typeof WORKS;

/** A worker's name begins with its work; see `startWorker`. */
export const workOf = (name: string): Work => name.split(' ')[0] as Work;
