import type { Sound } from '../document/index.ts';

/** A sound that plays: what of it is heard, seconds. */
export interface Heard {
  /** Of the reel. */
  duration: number;
  /** Of the file. */
  length: number;
}

type Placed = Pick<Sound, 'from' | 'start' | 'fadeIn' | 'fadeOut' | 'gain'>;

/** From when to when a sound is heard in a reel, seconds of the reel; empty where it is not. */
export function heardSpan({ from, start }: Placed, { duration, length }: Heard): [from: number, to: number] {
  const to = Math.min(duration, start + Math.max(0, length - from));
  return [Math.min(start, to), to];
}

/** How loud a sound is at a time of the reel: nothing before and after it, swelling and dying away at its ends. */
export function gainAt(sound: Placed, heard: Heard, time: number): number {
  const [from, to] = heardSpan(sound, heard);
  if (time < from || time >= to) return 0;
  const swell = sound.fadeIn > 0 ? Math.min(1, (time - from) / sound.fadeIn) : 1;
  const fade = sound.fadeOut > 0 ? Math.min(1, (to - time) / sound.fadeOut) : 1;
  return sound.gain * swell * fade;
}

/**
 * A sound as it is heard in a reel, as long as the reel to the sample.
 * @param channels of the file, at `rate` samples a second
 * @param duration of the reel, seconds
 */
export function mixSound(
  channels: readonly Float32Array[],
  rate: number,
  sound: Placed,
  duration: number,
): Float32Array[] {
  const heard = { duration, length: (channels[0]?.length ?? 0) / rate };
  const count = Math.round(duration * rate);
  const offset = Math.round((sound.from - sound.start) * rate);
  return channels.map((samples) => {
    const out = new Float32Array(count);
    for (let i = 0; i < count; i += 1) {
      const gain = gainAt(sound, heard, i / rate);
      if (gain > 0) out[i] = Math.max(-1, Math.min(1, gain * (samples[i + offset] ?? 0)));
    }
    return out;
  });
}

/** The largest value in each of so many equal pieces: what a wave is drawn from. */
export function wavePeaks(samples: Float32Array, count: number): Float32Array {
  const out = new Float32Array(count);
  for (let i = 0; i < count; i += 1) {
    const [from, to] = [Math.floor((i * samples.length) / count), Math.floor(((i + 1) * samples.length) / count)];
    for (let k = from; k < to; k += 1) out[i] = Math.max(out[i]!, Math.abs(samples[k]!));
  }
  return out;
}
