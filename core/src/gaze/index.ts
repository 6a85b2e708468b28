export * from './ahead.ts';
export * from './object.ts';
export * from './turn-limit.ts';
