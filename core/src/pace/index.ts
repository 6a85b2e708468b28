export * from './profile.ts';
export * from './shapes.ts';
