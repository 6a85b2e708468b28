export * from './beats.ts';
export * from './mix.ts';
