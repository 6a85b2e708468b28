import MusicTempo from 'music-tempo';

/** The sample rate that beats are looked for at, 1/s. */
export const BEAT_RATE = 44_100;

/** The steady pulse of a piece of music. */
export interface Beats {
  /** Beats a minute. */
  tempo: number;
  /** seconds */
  times: number[];
}

/** Shorter pieces have no pulse that could be told, seconds. */
const SHORTEST = 4;

/**
 * The beats of a piece of music; null where none can be told (silence, speech, a single note).
 * By the music-tempo library, after Dixon 2007, "Evaluation of the audio beat tracking system BeatRoot".
 * @param samples one channel at {@link BEAT_RATE}
 */
export function findBeats(samples: Float32Array): Beats | null {
  if (samples.length < SHORTEST * BEAT_RATE) return null;
  try {
    const { tempo, beats } = new MusicTempo(samples);
    const times = beats.filter((time) => Number.isFinite(time) && time >= 0);
    return Number(tempo) > 0 && times.length > 1 ? { tempo: Number(tempo), times } : null;
  } catch {
    // It says so by failing where it finds no onsets.
    return null;
  }
}

/** The beat nearest to a time, where one is near enough; else the time itself. Seconds. */
export function nearestBeat(times: readonly number[], time: number, within: number): number {
  let best = time;
  let least = within;
  for (const beat of times) {
    const away = Math.abs(beat - time);
    if (away <= least) [least, best] = [away, beat];
  }
  return best;
}
