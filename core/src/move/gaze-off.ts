/** A stretch of time in which a camera cannot look where it is to look without turning too fast. */
export interface GazeOff {
  /** seconds */
  from: number;
  to: number;
  /** Angle that it is off at most, radians, and when. */
  worst: number;
  at: number;
}

/** Less than this is not seen, radians. */
const UNSEEN = (3 * Math.PI) / 180;
/** Apart from each other by less, two stretches are one, seconds. */
const JOINED = 0.5;

interface Angles {
  pan: Float64Array;
  tilt: Float64Array;
}

/** Where one gaze differs from another. @param step seconds between two values */
export function stretchesOff(wanted: Angles, kept: Angles, step: number): GazeOff[] {
  const found: GazeOff[] = [];
  for (let i = 0; i < kept.pan.length; i += 1) {
    const across = (wanted.pan[i]! - kept.pan[i]!) * Math.cos(kept.tilt[i]!);
    const off = Math.hypot(across, wanted.tilt[i]! - kept.tilt[i]!);
    if (off < UNSEEN) continue;
    const time = i * step;
    const last = found.at(-1);
    if (!last || time - last.to > JOINED) {
      found.push({ from: time, to: time, worst: off, at: time });
      continue;
    }
    last.to = time;
    if (off > last.worst) Object.assign(last, { worst: off, at: time });
  }
  return found;
}
