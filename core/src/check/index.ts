export * from './turn.ts';
