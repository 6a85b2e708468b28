export * from './channel.ts';
export * from './curve.ts';
export * from './edit.ts';
