export * from './srgb.ts';
export * from './lightness.ts';
