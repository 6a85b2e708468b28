export * from './film/still.ts';
export * from './film/video.ts';
export type { PictureSize } from './picture/picture-size.ts';
export * from './picture/renderer.ts';
export { Holes } from './scene/holes.ts';
export { unbroken } from './picture/unbroken.ts';
