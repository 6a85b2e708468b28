export { packModel, unpackModel } from './packed.ts';
