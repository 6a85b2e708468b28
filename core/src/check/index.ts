export * from './fix.ts';
export * from './coverage.ts';
export * from './finding.ts';
export * from './move.ts';
export * from './still.ts';
export type { StillFinding } from './still-finding.ts';
export * from './turn.ts';
export * from './way.ts';
export * from './reel-cover.ts';
