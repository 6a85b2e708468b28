/** Less overhead and nobody walks there, nor is it part of a room's area, metres (as in surveys of dwellings; common practice, no source). */
export const HEAD_ROOM = 1.9;

/** Floors this far above or below a storey's own belong to its rooms: a dais, a sunken corner, a step. Metres. */
export const LEVEL = 0.6;

/** Floors nearer to each other than this are one storey with steps in it, unless they lie beside each other. Metres. */
export const SEPARATION = 1.8;

/** What is solid this far over a floor is so all over it, metres. */
export const INSIDE = 0.1;
