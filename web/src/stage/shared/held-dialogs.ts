import { create } from 'zustand';

/** Whether a conflict was put off: it waits, is said in the saved state, and can be decided later. */
export const useHeldDialogs = create<{ postponed: boolean }>()(() => ({ postponed: false }));
