export * from './srgb.ts';
