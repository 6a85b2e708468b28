export * from './assemble.ts';
export * from './camera-view.ts';
export * from './dress.ts';
export * from './glance.ts';
export * from './guess.ts';
export * from './key.ts';
export * from './placement.ts';
export * from './sun.ts';
