export { readGlb, readGltf } from './read.ts';
