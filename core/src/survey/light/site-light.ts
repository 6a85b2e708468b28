import { ALL_LIT, type SiteLight } from '../../document/index.ts';

/** A sun in a clear sky, with all lamps lit. */
export const clearSky = (sun: SiteLight['sun']): SiteLight => ({ sun, sky: 'clear', lamps: ALL_LIT });

/** An afternoon in the south-west, 34° high. */
export const AFTERNOON: SiteLight = clearSky([-0.53, 0.559, 0.638]);
