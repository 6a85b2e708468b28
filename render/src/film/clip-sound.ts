import { AudioSampleSink, type AudioSample } from 'mediabunny';
import { openFilm } from './open-film.ts';

/** A stretch of the sound of a film. */
export interface ClipSound {
  channels: Float32Array<ArrayBuffer>[];
  /** samples a second */
  rate: number;
  /** When its first sample is heard, seconds since the film's first picture. */
  begins: number;
}

/** More channels than two are not heard. */
const MOST_CHANNELS = 2;
const SILENT_RATE = 48_000;

/**
 * What is heard of a film between two times, as far as it has sound there.
 * @param from seconds since its first picture
 * @returns without channels for a film without sound; null where this browser cannot read it
 */
export async function clipSound(source: Blob | URL, from: number, to: number): Promise<ClipSound | null> {
  const input = openFilm(source);
  try {
    const track = await input.getPrimaryAudioTrack();
    if (!track) return { channels: [], rate: SILENT_RATE, begins: from };
    if (!(await track.canDecode())) return null;
    // Both tracks go by the film's clock, which need not begin with its pictures.
    const first = (await (await input.getPrimaryVideoTrack())?.getFirstTimestamp()) ?? 0;
    const rate = track.sampleRate;
    const count = Math.max(0, Math.ceil((to - from) * rate));
    const channels = Array.from(
      { length: Math.min(MOST_CHANNELS, track.numberOfChannels) },
      () => new Float32Array(count),
    );
    for await (const sample of new AudioSampleSink(track).samples(Math.max(0, first + from), first + to)) {
      const at = Math.round((sample.timestamp - first - from) * rate);
      channels.forEach((out, planeIndex) => put(out, at, planeOf(sample, planeIndex)));
      sample.close();
    }
    return { channels, rate, begins: from };
  } catch {
    return null;
  } finally {
    input.dispose();
  }
}

function planeOf(sample: AudioSample, planeIndex: number): Float32Array {
  const how = { planeIndex, format: 'f32-planar' } as const;
  const plane = new Float32Array(sample.allocationSize(how) / 4);
  sample.copyTo(plane, how);
  return plane;
}

/** Puts samples where they belong; what lies outside is left out. */
function put(out: Float32Array, at: number, samples: Float32Array): void {
  const skip = Math.max(0, -at);
  const room = out.length - Math.max(0, at);
  if (skip < samples.length && room > 0) out.set(samples.subarray(skip, skip + room), Math.max(0, at));
}
