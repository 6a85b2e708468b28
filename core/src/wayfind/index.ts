export type { WayWalker } from './band.ts';
export * from './clearance.ts';
export * from './find-way.ts';
export * from './move-clear.ts';
export * from './why-no-way.ts';
export * from './snap.ts';
