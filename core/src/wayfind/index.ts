export type { WayWalker } from './band.ts';
export * from './clearance.ts';
export * from './find-way.ts';
export * from './found-again.ts';
export * from './move-clear.ts';
export * from './other-ways.ts';
export * from './rooms-on-way.ts';
export * from './why-no-way.ts';
export * from './snap.ts';
