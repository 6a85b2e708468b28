export * from './ahead.ts';
export * from './in-frame.ts';
export * from './object.ts';
export * from './spans.ts';
export type { GazeTables } from './tables.ts';
export * from './turn-limit.ts';
export * from './recorded.ts';
