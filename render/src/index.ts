export type { FilmSound } from './film/sound.ts';
export * from './film/still.ts';
export * from './film/video.ts';
export { CARD_FACE, type CardSize, type Pen } from './reel/card.ts';
export * from './reel/compose.ts';
export type { PictureSize } from './picture/picture-size.ts';
export * from './picture/renderer.ts';
export { Holes } from './scene/holes.ts';
export { noPixels, unbroken } from './picture/unbroken.ts';
