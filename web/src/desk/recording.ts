import type { LiveInstant } from '@eskovan/core/move';
import type { Pose } from '@eskovan/core/document';
import { anglesOf } from '@eskovan/core/geometry';
import { create } from 'zustand';
import type { HeldDevice } from './held-device.ts';
import { workbench } from './workbench.ts';

interface Recording {
  /** A live walk is recorded at this part of the real speed; null: none is. */
  slowed: number | null;
  /** What walks the eye besides keys and mouse. */
  device: HeldDevice | null;
}

export const useRecording = create<Recording>()(() => ({ slowed: null, device: null }));

/** Between two instants of a recording, milliseconds. */
const EVERY = 33;
/** Nobody walks longer at a stretch, seconds. */
const LONGEST = 600;

let instants: LiveInstant[] = [];
let timer: ReturnType<typeof setInterval> | undefined;

/** Begins to record where the eye is. @param from where it is while nobody has moved it yet @param slowed 0.5 is half speed */
export function startRecording(from: Pose, eyeHeight: number, slowed: number): void {
  stopRecording();
  instants = [];
  const started = performance.now();
  useRecording.setState({ slowed });
  workbench.set({ playing: false, scout: from });
  timer = setInterval(() => {
    const time = (performance.now() - started) / 1000;
    const { position, orientation } = workbench.get().scout ?? from;
    const { pan, tilt } = anglesOf(orientation);
    instants.push({ time, x: position[0], y: position[1] - eyeHeight, z: position[2], pan, tilt });
    if (time > LONGEST) clearInterval(timer);
  }, EVERY);
}

/** Ends the recording. @returns what was recorded, and at which part of the speed; null where nothing was */
export function stopRecording(): { instants: readonly LiveInstant[]; slowed: number } | null {
  clearInterval(timer);
  const { slowed } = useRecording.getState();
  useRecording.setState({ slowed: null });
  if (slowed === null) return null;
  const recorded = { instants, slowed };
  instants = [];
  return recorded;
}
