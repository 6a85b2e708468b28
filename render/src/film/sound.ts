import { AudioSample, AudioSampleSource, canEncodeAudio, QUALITY_HIGH, type Output } from 'mediabunny';

/** What is heard with a film: as long as the film is. */
export interface FilmSound {
  /** Samples of each channel, −1…1. */
  channels: readonly Float32Array[];
  /** Samples a second. */
  sampleRate: number;
}

/** Samples that are handed over at once, seconds of them. */
const PIECE = 1;
/** No codec makes more packets a second than this. */
const PACKETS = 60;

/** Codecs of sound in a film, the best known first: what this browser can make is taken. */
const CODECS = ['aac', 'opus'] as const;

/**
 * Gives a film a track of sound, as good as this browser can encode it.
 * @returns what writes it, once the film has started; null where it can encode none
 */
export async function addSound(output: Output, sound: FilmSound): Promise<{ write: () => Promise<void> } | null> {
  const { channels, sampleRate } = sound;
  const numberOfChannels = channels.length;
  if (numberOfChannels === 0) return null;
  for (const codec of CODECS) {
    if (!(await canEncodeAudio(codec, { numberOfChannels, sampleRate, bitrate: QUALITY_HIGH }))) continue;
    const source = new AudioSampleSource({ codec, bitrate: QUALITY_HIGH });
    const seconds = channels[0]!.length / sampleRate;
    output.addAudioTrack(source, { maximumPacketCount: Math.ceil(seconds * PACKETS) + PACKETS });
    return { write: () => writeSound(source, sound) };
  }
  return null;
}

async function writeSound(source: AudioSampleSource, { channels, sampleRate }: FilmSound): Promise<void> {
  const length = channels[0]!.length;
  const piece = Math.round(PIECE * sampleRate);
  for (let from = 0; from < length; from += piece) {
    const count = Math.min(piece, length - from);
    const data = new Float32Array(count * channels.length);
    channels.forEach((samples, k) => data.set(samples.subarray(from, from + count), k * count));
    const sample = new AudioSample({
      data,
      format: 'f32-planar',
      numberOfChannels: channels.length,
      sampleRate,
      timestamp: from / sampleRate,
    });
    await source.add(sample);
    sample.close();
  }
  source.close();
}
