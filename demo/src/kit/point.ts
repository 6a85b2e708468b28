/** Metres, y up. */
export type Point = readonly [number, number, number];
