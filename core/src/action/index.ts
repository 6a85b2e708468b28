export * from './dimmer.ts';
export * from './follow.ts';
export { hingeOf } from './driven.ts';
export * from './pick.ts';
export * from './runs.ts';
export * from './site-action.ts';
export * from './site-motion.ts';
export type { Turning } from './turning.ts';
