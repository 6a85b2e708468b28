export * from './guides.ts';
export * from './upright.ts';
