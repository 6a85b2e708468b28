export * from './beats.ts';
export * from './clip-voices.ts';
export * from './mix.ts';
