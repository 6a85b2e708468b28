export * from './builder.ts';
export * from './curve.ts';
export * from './materials.ts';
export * from './random.ts';
export * from './write-glb.ts';
