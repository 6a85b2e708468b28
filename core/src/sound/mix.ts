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

/** A stretch of a sound file at its place in a reel. */
export interface Voice {
  /** What of the file is heard first, seconds. */
  from: number;
  /** When it is heard, seconds of the reel; not any more at the end itself. */
  start: number;
  end: number;
  /** Seconds of the file in one of the reel: a stretch at another pace is heard higher or lower. */
  speed: number;
  fadeIn: number;
  fadeOut: number;
  gain: number;
}

/** The sound of a reel as a voice. */
export function voiceOf(sound: Placed, heard: Heard): Voice {
  const [start, end] = heardSpan(sound, heard);
  const { from, fadeIn, fadeOut, gain } = sound;
  return { from, start, end, speed: 1, fadeIn, fadeOut, gain };
}

/** How loud a voice is at a time of the reel: nothing before and after it, swelling and dying away at its ends. */
export function gainAt({ start, end, fadeIn, fadeOut, gain }: Voice, time: number): number {
  if (time < start || time >= end) return 0;
  const swell = fadeIn > 0 ? Math.min(1, (time - start) / fadeIn) : 1;
  const fade = fadeOut > 0 ? Math.min(1, (end - time) / fadeOut) : 1;
  return gain * swell * fade;
}

/** What of a file is heard at a time of the reel, seconds of the file. */
export const heardAt = ({ from, start, speed }: Voice, time: number): number => from + (time - start) * speed;

/** A voice with what it says. */
export interface Speaking {
  voice: Voice;
  /** Of the file, at `rate` samples a second, the first of them at `begins` seconds of the file. */
  channels: readonly Float32Array[];
  rate: number;
  begins: number;
}

/**
 * Several voices as they are heard together, as long as the reel to the sample; what is too loud is cut off.
 * One channel speaks on all.
 * @param rate samples a second wanted @param duration of the reel, seconds @param channels wanted
 */
export function mixVoices(voices: readonly Speaking[], rate: number, duration: number, channels = 2): Float32Array[] {
  const count = Math.round(duration * rate);
  const out = Array.from({ length: channels }, () => new Float32Array(count));
  for (const speaking of voices) {
    const { voice } = speaking;
    const [first, end] = [Math.max(0, Math.floor(voice.start * rate)), Math.min(count, Math.ceil(voice.end * rate))];
    out.forEach((samples, k) => {
      const own = speaking.channels[Math.min(k, speaking.channels.length - 1)];
      if (!own) return;
      for (let i = first; i < end; i += 1) {
        const gain = gainAt(voice, i / rate);
        if (gain > 0) samples[i]! += gain * sampleAt(own, (heardAt(voice, i / rate) - speaking.begins) * speaking.rate);
      }
    });
  }
  for (const samples of out) for (let i = 0; i < count; i += 1) samples[i] = Math.max(-1, Math.min(1, samples[i]!));
  return out;
}

/** Between samples, by the cubic through the four about the place (Catmull and Rom); silence outside. */
function sampleAt(samples: Float32Array, at: number): number {
  const i = Math.floor(at + 1e-6);
  const t = at - i;
  const of = (k: number) => samples[k] ?? 0;
  // Most voices are at the rate of the mix: their samples are taken as they are.
  if (t < 1e-5) return of(i);
  const [a, b, c, d] = [of(i - 1), of(i), of(i + 1), of(i + 2)];
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
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
