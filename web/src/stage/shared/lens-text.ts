import { lengthText, METRES, MILLIMETRES, type Lens } from '@eskovan/core/document';

/** A lens in a word or two, for lists. */
export const lensText = ({ focalLengthMm, parallel }: Lens): string =>
  parallel === undefined
    ? `${focalLengthMm.toFixed(0)} mm`
    : `parallel ${lengthText(parallel, parallel < 1 ? MILLIMETRES : METRES, parallel < 10 ? 2 : 1)}`;
