import type { Quaternion, Vec3 } from '../../document/index.ts';
import type { LightMeter } from './meter.ts';

/** What is metered of a move lies so far apart, seconds; a very long one is metered at so many instants. */
const STEP = 0.1;
const MOST_KEYS = 4000;
/** An eye, or whoever holds a camera, takes about so long to get used to another light: spread of a bell, seconds. */
const SPREAD = 0.5;
/** Bells end here, spreads. */
const REACH = 3;

export interface ExposedMove {
  poseAt: (time: number) => { position: Vec3; orientation: Quaternion };
  /** seconds */
  duration: number;
  /** Its end is its beginning, in light as well. */
  loops: boolean;
}

/**
 * Exposure and white balance along a move: metered at many instants and smoothed in time, before and after, so that a
 * door is no flash. The same for every frame, whichever is drawn first.
 */
export class ExposureTrack {
  /** Logarithms, three a key. */
  private readonly keys: Float64Array;
  private readonly step: number;

  constructor(meter: Pick<LightMeter, 'gainAt'>, { poseAt, duration, loops }: ExposedMove) {
    const count = Math.min(MOST_KEYS, Math.max(1, Math.ceil(duration / STEP)));
    this.step = duration / count;
    const metered = new Float64Array(3 * (count + 1));
    for (let i = 0; i <= count; i += 1) {
      const { position, orientation } = poseAt(i * this.step);
      metered.set(meter.gainAt(position, orientation).map(Math.log), 3 * i);
    }
    this.keys = smoothed(metered, this.step > 0 ? SPREAD / this.step : 0, loops);
  }

  /** What radiances are multiplied by at a time, seconds: red, green, blue. */
  at(time: number): Vec3 {
    const last = this.keys.length / 3 - 1;
    const place = this.step > 0 ? Math.min(last, Math.max(0, time / this.step)) : 0;
    const before = Math.min(last, Math.floor(place));
    const after = Math.min(last, before + 1);
    const part = place - before;
    return [0, 1, 2].map((k) =>
      Math.exp((1 - part) * this.keys[3 * before + k]! + part * this.keys[3 * after + k]!),
    ) as Vec3;
  }
}

/** @param spread in keys */
function smoothed(keys: Float64Array, spread: number, loops: boolean): Float64Array {
  const count = keys.length / 3;
  const reach = Math.ceil(REACH * spread);
  const out = new Float64Array(keys.length);
  // The last key of a loop is its first.
  const around = count - 1;
  const at = (i: number) =>
    loops && around > 0 ? ((i % around) + around) % around : Math.min(count - 1, Math.max(0, i));
  for (let i = 0; i < count; i += 1) {
    let whole = 0;
    for (let d = -reach; d <= reach; d += 1) {
      const weight = spread > 0 ? Math.exp(-0.5 * (d / spread) ** 2) : 1;
      whole += weight;
      for (let k = 0; k < 3; k += 1) out[3 * i + k]! += weight * keys[3 * at(i + d) + k]!;
    }
    for (let k = 0; k < 3; k += 1) out[3 * i + k]! /= whole;
  }
  return out;
}
