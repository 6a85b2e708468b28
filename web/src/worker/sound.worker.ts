import { findBeats, wavePeaks, type Beats } from '@eskovan/core/sound';
import * as Comlink from 'comlink';

const api = {
  /** The wave and the beats of a piece of music. @param samples one channel at the rate of `BEAT_RATE` */
  listen: (samples: Float32Array, pieces: number): { peaks: Float32Array; beats: Beats | null } => ({
    peaks: wavePeaks(samples, pieces),
    beats: findBeats(samples),
  }),
};

export type SoundWorker = typeof api;
Comlink.expose(api);
