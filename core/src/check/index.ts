export * from './turn.ts';
export * from './walk.ts';
export * from './way.ts';
