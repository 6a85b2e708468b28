export * from './move.ts';
export * from './still.ts';
export * from './turn.ts';
export * from './way.ts';
