import { lengthText, METRES, MILLIMETRES, type Lens } from '@eskovan/core/document';

/** A lens in a word or two, for lists. */
export const lensText = ({ focalLengthMm, parallel }: Lens): string =>
  parallel === undefined
    ? `${focalLengthMm.toFixed(0)} mm`
    : `parallel ${parallel < 1 ? lengthText(parallel, MILLIMETRES) : lengthText(parallel, METRES, parallel < 10 ? 2 : 1)}`;
