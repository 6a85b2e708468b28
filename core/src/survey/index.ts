export { CORRECTION_REACH, joinExtents } from './correct-storeys.ts';
export * from './floor-index.ts';
export * from './plan-cut.ts';
export * from './storeys.ts';
export * from './survey.ts';
export * from './light/index.ts';
export * from './blocking.ts';
export { findRooms, lintelOf, type Room } from './rooms.ts';
export { drawWalkway, Walkway } from './walkway.ts';
