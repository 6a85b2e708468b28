import { BEAT_RATE, type Beats } from '@eskovan/core/sound';
import * as Comlink from 'comlink';
import { create } from 'zustand';
import { fileUrl } from '../../data/api.ts';
import { handOf } from '../../worker/hand.ts';
import type { SoundWorker } from '../../worker/sound.worker.ts';
import { startWorker } from '../../worker/start-worker.ts';

/** A piece of music, as far as it is shown and heard. */
export interface SoundFact {
  sha256: string;
  /** What is played; null where the browser cannot read it. */
  buffer: AudioBuffer | null;
  /** The largest values of equal pieces of it, 0…1. */
  peaks: Float32Array;
  beats: Beats | null;
}

export const useSoundFact = create<{ fact: SoundFact | null; failed: string | null }>()(() => ({
  fact: null,
  failed: null,
}));

/** Pieces of a wave: as many as a screen is wide. */
const PIECES = 1600;
let wanted: string | null = null;

/** Reads a sound, and finds its wave and its beats in a worker; asking again for the same one costs nothing. */
export async function listenTo(sha256: string | null): Promise<void> {
  if (wanted === sha256) return;
  wanted = sha256;
  useSoundFact.setState({ fact: null, failed: null });
  if (sha256 === null) return;
  try {
    const reply = await fetch(fileUrl(sha256));
    if (!reply.ok) throw new Error(String(reply.status));
    const bytes = await reply.arrayBuffer();
    const buffer = await decodeSound(bytes);
    const mono = await toMono(buffer);
    const hand = handOf<SoundWorker>(startWorker('sound'), 'The worker that listens');
    try {
      const listened = hand.remote.listen(Comlink.transfer(mono, [mono.buffer]), PIECES);
      const heard = await Promise.race([listened, hand.stopped]);
      if (wanted === sha256) useSoundFact.setState({ fact: { sha256, buffer, ...heard } });
    } finally {
      hand.stop();
    }
  } catch {
    if (wanted !== sha256) return;
    useSoundFact.setState({ failed: 'This sound cannot be read. A WAV, MP3 or OGG file would do.' });
  }
}

/** @throws DOMException for what is no sound */
export function decodeSound(bytes: ArrayBuffer): Promise<AudioBuffer> {
  return new OfflineAudioContext(2, 1, 48_000).decodeAudioData(bytes);
}

/** One channel at the rate that beats are looked for at. */
async function toMono(buffer: AudioBuffer): Promise<Float32Array<ArrayBuffer>> {
  const offline = new OfflineAudioContext(1, Math.max(1, Math.ceil(buffer.duration * BEAT_RATE)), BEAT_RATE);
  const source = offline.createBufferSource();
  source.buffer = buffer;
  source.connect(offline.destination);
  source.start();
  const rendered = await offline.startRendering();
  return rendered.getChannelData(0).slice();
}
