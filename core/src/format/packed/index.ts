export { packModel, unpackModel } from './packed.ts';
export * from './lamp-light.ts';
