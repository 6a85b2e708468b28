export * from './depth-of-field.ts';
export { depthRange, firstLook } from './first-look.ts';
export * from './projection.ts';
export * from './sensors.ts';
export * from './view-angle.ts';
