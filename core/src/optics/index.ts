export * from './cut-out.ts';
export * from './depth-of-field.ts';
export * from './depth-range.ts';
export * from './occlusion.ts';
export * from './projection.ts';
export * from './sensors.ts';
export * from './view-angle.ts';
