import { onceLoaded } from './once-loaded.ts';
import { workOf, WORKS } from './work.ts';

/** Every worker begins here, so that what several of them need is bundled and fetched once. */
void onceLoaded(self, WORKS[workOf(self.name)]);
