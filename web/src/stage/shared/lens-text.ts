import type { Lens } from '@eskovan/core/document';

/** A lens in a word or two, for lists. */
export const lensText = ({ focalLengthMm, parallel }: Lens): string =>
  parallel === undefined ? `${focalLengthMm.toFixed(0)} mm` : `parallel ${parallel.toPrecision(3)} m`;
