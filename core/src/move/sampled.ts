import type { CameraTracks } from './camera-tracks.ts';
import { SAMPLE_STRIDE, sampleOf, within, type CameraSample } from './sample.ts';

/** A camera that writes its samples as numbers: what every kind of move gives of itself follows from that. */
export abstract class SampledCamera {
  abstract readonly duration: number;
  abstract readonly loops: boolean;
  protected abstract readonly tracks: CameraTracks;
  protected readonly scratch = new Float64Array(SAMPLE_STRIDE);

  /** Writes {@link SAMPLE_STRIDE} numbers for an instant, without allocating. */
  protected abstract write(instant: number, out: Float64Array, offset: number): void;

  sampleAt(time: number): CameraSample {
    this.write(time, this.scratch, 0);
    return sampleOf(this.scratch, this.tracks.viewAt(within(time, this)), time);
  }

  fill(times: ArrayLike<number>, out: Float64Array): void {
    for (let i = 0; i < times.length; i += 1) this.write(times[i]!, out, i * SAMPLE_STRIDE);
  }
}
