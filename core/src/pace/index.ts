export * from './comfort.ts';
export * from './items.ts';
export { otherPace } from './kept.ts';
export * from './pace-profile.ts';
export * from './paced-way.ts';
export * from './profile.ts';
export * from './retime.ts';
export * from './shapes.ts';
export * from './time-at-station.ts';
