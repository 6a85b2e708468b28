import type { GazeRecorded } from '../document/index.ts';
import type { GazeTables } from './tables.ts';

type Look = GazeRecorded['looks'][number];

/** A look between two others, which turns evenly from the one to the other. @param at part of the time, as theirs */
export function lookBetween(a: Look, b: Look, at: number): Look {
  const part = b.at > a.at ? Math.min(1, Math.max(0, (at - a.at) / (b.at - a.at))) : 0;
  return { at, pan: a.pan + (b.pan - a.pan) * part, tilt: a.tilt + (b.tilt - a.tilt) * part };
}

/** A recorded gaze at even times; between two looks it turns evenly, before the first and after the last it stays. */
export function recordedGaze({ looks }: GazeRecorded, instants: number): GazeTables {
  const pan = new Float64Array(instants + 1);
  const tilt = new Float64Array(instants + 1);
  let k = 0;
  for (let i = 0; i <= instants; i += 1) {
    const at = i / instants;
    while (k < looks.length - 2 && looks[k + 1]!.at < at) k += 1;
    const look = lookBetween(looks[k]!, looks[Math.min(k + 1, looks.length - 1)]!, at);
    pan[i] = look.pan;
    tilt[i] = look.tilt;
  }
  return { pan, tilt };
}
