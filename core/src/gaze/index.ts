export * from './ahead.ts';
export * from './object.ts';
