export { bakeLight, LightBake } from './bake.ts';
export { daylight, type Daylight } from './daylight.ts';
export { ExposureTrack, type ExposedMove } from './exposure-track.ts';
export type { GatheredBlock } from './gather.ts';
export { LightMeter, UNLIT_GAIN } from './meter.ts';
export { emptyGather, putRows, rowsOf, smoothGather, type PixelGather } from './pixel-gather.ts';
export { PixelLight } from './pixel-light.ts';
export { RayTree, type RayHit } from './ray-tree.ts';
export { AFTERNOON, clearSky } from './site-light.ts';
