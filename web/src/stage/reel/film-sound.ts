import { frameTime } from '@eskovan/core/reel';
import { mixVoices, voiceOf, type Speaking } from '@eskovan/core/sound';
import { soundOfClip } from './clip-sounds.ts';
import type { OpenReel } from './open-reel.ts';
import { voicesOf } from './use-reel-sound.ts';

/** Samples a second of a film whose reel has no sound of its own. */
const RATE = 48_000;

/** What is heard with a reel: its own sound and that of its clips. */
export interface FilmHeard {
  /** Null where nothing is heard. */
  channels: Float32Array[] | null;
  sampleRate: number;
  /** Names of shots whose clips have sound that could not be read. */
  silent: string[];
}

/** @param buffer the reel's own sound, as far as it has one */
export async function heardWith(open: OpenReel, buffer: AudioBuffer | null): Promise<FilmHeard> {
  const { plan, rate, row, shots } = open;
  const duration = frameTime(plan.frames, rate);
  const sampleRate = buffer?.sampleRate ?? RATE;
  const voices: Speaking[] = [];
  const silent: string[] = [];
  for (const clip of voicesOf(open)) {
    const sound = await soundOfClip(clip.sha256, clip.voice.from, clip.to);
    if (sound?.channels.length) voices.push({ voice: clip.voice, ...sound });
    else if (!sound) silent.push(shots.find(({ id }) => id === clip.shot)!.name);
  }
  const { sound } = row.body;
  if (sound && buffer)
    voices.push({
      voice: voiceOf(sound, { duration, length: buffer.duration }),
      channels: Array.from({ length: Math.min(2, buffer.numberOfChannels) }, (_, k) => buffer.getChannelData(k)),
      rate: buffer.sampleRate,
      begins: 0,
    });
  return { channels: voices.length > 0 ? mixVoices(voices, sampleRate, duration) : null, sampleRate, silent };
}
