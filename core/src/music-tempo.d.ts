/** Beats of a piece of music, by a library. */
declare module 'music-tempo' {
  export default class MusicTempo {
    constructor(samples: Float32Array | readonly number[], params?: Record<string, number>);
    readonly tempo: number | string;
    readonly beats: number[];
  }
}
