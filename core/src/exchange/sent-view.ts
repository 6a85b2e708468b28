import type { StillCamera, ViewStatus } from '../document/index.ts';

/** A view as it is sent to other programs. */
export interface SentView extends StillCamera {
  /** A UUID. */
  id: string;
  /** Its place in the list, from 1. */
  number: number;
  name: string;
  status: ViewStatus;
  note?: string;
  /** Width over height of its picture. */
  aspect: number;
  /** A small picture of it, PNG or JPEG. */
  snapshot?: { bytes: Uint8Array; type: 'png' | 'jpg' };
}

/** What a format cannot say of some views. */
export interface LeftOut {
  /** Names of views whose lens is shifted: their pictures are centred elsewhere. */
  shifted: string[];
}

/** A lens that is shifted sees to one side; formats with a view angle alone cannot say so. */
export const isShifted = ({ lens: { shift, parallel } }: StillCamera): boolean =>
  parallel === undefined && (shift[0] !== 0 || shift[1] !== 0);

export const leftOutOf = (views: readonly SentView[]): LeftOut => ({
  shifted: views.filter(isShifted).map(({ name }) => name),
});
