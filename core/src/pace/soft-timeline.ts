import { pieceAt } from '../geometry/index.ts';
/** Stations passed at times, with the speeds there; between two of them the acceleration stays the same. */
export interface Timeline {
  /** seconds, from 0 on, never decreasing */
  times: Float64Array;
  /** metres, never decreasing */
  stations: Float64Array;
  /** m/s */
  speeds: Float64Array;
}

/**
 * A timeline averaged over a window of time, so that its acceleration changes no faster than twice its largest
 * acceleration over the window: jerk is bounded. Way, top speed and top acceleration are not made larger by it; from rest
 * to rest the way stays the same to the last digit, and it takes a window longer.
 */
export class SoftTimeline {
  readonly duration: number;
  private readonly begin: number;
  /** ∫ of the station up to each time. */
  private readonly sums: Float64Array;

  /**
   * @param window seconds
   * @param rests does it stand at its ends? Else it goes on beyond them as if seen from there in a mirror, so that what is
   * averaged begins and ends in the same places.
   */
  constructor(
    private readonly line: Timeline,
    private readonly window: number,
    private readonly rests: { start: boolean; end: boolean },
  ) {
    const { times, stations, speeds } = line;
    const last = times.length - 1;
    this.sums = new Float64Array(times.length);
    for (let k = 0; k < last; k += 1) {
      const dt = times[k + 1]! - times[k]!;
      const rise = speeds[k + 1]! - speeds[k]!;
      this.sums[k + 1] = this.sums[k]! + dt * (stations[k]! + dt * (speeds[k]! / 2 + rise / 6));
    }
    const half = window / 2;
    this.begin = rests.start ? -half : 0;
    this.duration = times[last]! + (rests.end ? half : 0) - this.begin;
  }

  stationAt(time: number): number {
    if (time <= 0) return 0;
    const { stations } = this.line;
    const end = stations.at(-1)!;
    if (time >= this.duration) return end;
    return Math.min(end, Math.max(0, this.averaged(this.begin + time)));
  }

  speedAt(time: number): number {
    const at = this.begin + Math.min(this.duration, Math.max(0, time));
    const half = this.window / 2;
    return Math.max(0, (this.station(at + half) - this.station(at - half)) / this.window);
  }

  private averaged(at: number): number {
    const half = this.window / 2;
    return (this.sum(at + half) - this.sum(at - half)) / this.window;
  }

  private station(at: number): number {
    const { times, stations, speeds } = this.line;
    const last = times.length - 1;
    if (at <= 0) return this.rests.start || at === 0 ? 0 : -this.station(-at);
    const [end, whole] = [times[last]!, stations[last]!];
    if (at >= end) return this.rests.end || at === end ? whole : 2 * whole - this.station(2 * end - at);
    const k = pieceAt(times, at);
    const [t, dt] = [at - times[k]!, times[k + 1]! - times[k]!];
    return stations[k]! + t * (speeds[k]! + ((speeds[k + 1]! - speeds[k]!) * t) / (2 * dt));
  }

  private sum(at: number): number {
    const { times, stations, speeds } = this.line;
    const last = times.length - 1;
    if (at <= 0) return this.rests.start || at === 0 ? 0 : this.sum(-at);
    const [end, whole] = [times[last]!, stations[last]!];
    if (at >= end)
      return this.rests.end || at === end
        ? this.sums[last]! + whole * (at - end)
        : 2 * whole * (at - end) + this.sum(2 * end - at);
    const k = pieceAt(times, at);
    const [t, dt] = [at - times[k]!, times[k + 1]! - times[k]!];
    const rise = (speeds[k + 1]! - speeds[k]!) / dt;
    return this.sums[k]! + t * (stations[k]! + t * (speeds[k]! / 2 + (rise * t) / 6));
  }
}
