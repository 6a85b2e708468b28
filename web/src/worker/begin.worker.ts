import { onceLoaded } from './once-loaded.ts';
import type { Work } from './start-worker.ts';

/** Every worker begins here, so that what several of them need is bundled and fetched once. */
const WORKS: Record<Work, () => Promise<unknown>> = {
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

// A worker's name begins with its work.
void onceLoaded(self, WORKS[self.name.split(' ')[0] as Work]);
