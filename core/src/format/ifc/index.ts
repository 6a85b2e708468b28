export { isIfc, readIfc } from './read.ts';
