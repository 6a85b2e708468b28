export * from './builder.ts';
export * from './curve.ts';
export * from './materials.ts';
export * from './point.ts';
export * from './random.ts';
export * from './textures.ts';
export * from './write-glb.ts';
