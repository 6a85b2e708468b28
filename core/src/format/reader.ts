/** Raised whenever a reader makes something else of a file: models are then read again from their source. */
export const READER = 7;
