import type { Orbit } from '../document/index.ts';

/** What of an orbit says how it turns. */
export type Turning = Pick<Orbit, 'sweep' | 'duration' | 'shape' | 'carry' | 'stops' | 'swings'>;
