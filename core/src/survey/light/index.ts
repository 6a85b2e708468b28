export { AnyHitTree } from './any-hit-tree.ts';
export { AFTERNOON, bakeLight, LIGHT_CHANNELS, LightBake } from './bake.ts';
export { daylight, type Daylight } from './daylight.ts';
