export { CRAWL } from './floor-line.ts';
export type { FloorGap, GapReason } from './floor-line.ts';
export * from './floor-profile.ts';
export { findObstacles, type Obstacle, type ObstacleKind } from './in-the-way.ts';
export * from './sample.ts';
export { tableAt, type UniformTable } from './uniform-table.ts';
export * from './walk.ts';
