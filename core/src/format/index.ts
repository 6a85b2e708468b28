export * from './errors.ts';
export * from './gltf/index.ts';
export { transformPart } from './mesh.ts';
export * from './packed/index.ts';
export { readZip, zipFiles } from './zip/index.ts';
export * from './read-model.ts';
export * from './scene-model.ts';
export * from './tools.ts';
export * from './reader.ts';
