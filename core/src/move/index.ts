export * from './floor-following.ts';
export * from './sample.ts';
export { tableAt, type UniformTable } from './uniform-table.ts';
export * from './walk.ts';
