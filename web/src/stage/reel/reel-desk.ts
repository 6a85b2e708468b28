import { create } from 'zustand';

/** What is looked at on the Reel stage. Nothing of it is saved. */
interface ReelDesk {
  /** The join that is chosen, by the shot that it leads to; null while shots are. */
  join: string | null;
  /** What can be brought in is listed by kind. */
  bringIn: 'moves' | 'views' | 'cards';
  /** Safe areas and thirds are drawn over the picture. */
  guides: boolean;
  /** The reel that the open one is compared with, and how: its row; null for none. */
  beside: string | null;
  compare: 'beside' | 'wipe';
  /** The shots are shown as a proposal would have them, while it is pointed at. */
  trying: boolean;
}

export const useReelDesk = create<ReelDesk>()(() => ({
  join: null,
  bringIn: 'moves',
  guides: false,
  beside: null,
  compare: 'beside',
  trying: false,
}));
export const reelDesk = {
  get: useReelDesk.getState,
  set: useReelDesk.setState,
};
