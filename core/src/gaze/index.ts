export * from './ahead.ts';
