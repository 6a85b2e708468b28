import type { MoveBody } from '@eskovan/core/document';
import { create } from 'zustand';
import { workbench } from '../../desk/workbench.ts';

interface Tried {
  /** The move that is shown as it would be, and how it would be. Nothing of it is saved. */
  move: string;
  body: MoveBody;
  /** Where the clock was before, seconds. */
  time: number;
}

const useTried = create<{ tried: Tried | null }>()(() => ({ tried: null }));

/** Shows a move as it would be, at the time that it is about, unless one looks about or plays. */
export function tryOut(move: string, body: MoveBody, at: number | null): void {
  const { time, playing, scout } = workbench.get();
  const before = useTried.getState().tried;
  useTried.setState({ tried: { move, body, time: before?.time ?? time } });
  if (at !== null && !playing && !scout) workbench.set({ time: at });
}

/** Shows it again as it is. */
export function stopTrying(): void {
  const { tried } = useTried.getState();
  if (!tried) return;
  useTried.setState({ tried: null });
  const { playing, scout } = workbench.get();
  if (!playing && !scout) workbench.set({ time: tried.time });
}

/** A look that was lost is taken up again within so long, milliseconds. */
const TAKEN_UP = 500;
let lost = -Infinity;

/** What was looked at is not there any more, though nobody looked away. */
export function loseTrying(): void {
  if (useTried.getState().tried) lost = performance.now();
  stopTrying();
}

export const lostJustNow = (): boolean => performance.now() - lost < TAKEN_UP;

/** How a move would be, while that is looked at. */
export const useTriedBody = (move: string | null): MoveBody | null =>
  useTried(({ tried }) => (tried && tried.move === move ? tried.body : null));
