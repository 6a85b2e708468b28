import { frameTime } from '@eskovan/core/reel';
import { clipVoices, voiceOf, type ClipVoice } from '@eskovan/core/sound';
import type { ClipSound } from '@eskovan/render';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { soundOfClip } from './clip-sounds.ts';
import type { OpenReel } from './open-reel.ts';
import { listenTo, useSoundFact, type SoundFact } from './sound-facts.ts';
import { VoicePlayer } from './voice-player.ts';

/** How often it is looked after where the sounds are, and how loud they are, milliseconds. */
const LOOKED_AFTER = 40;

/** The clips of a reel that can be heard. */
export const voicesOf = ({ plan, shots }: OpenReel): ClipVoice[] => clipVoices(plan, (index) => shots[index]!.body.use);

/** Plays the sound of the reel and of its clips along with it, forward at its own speed; otherwise they are silent. */
export function useReelSound(open: OpenReel | null): { fact: SoundFact | null; failed: string | null } {
  const state = useSoundFact();
  const sound = open?.row.body.sound;
  const sha256 = sound?.file.sha256 ?? null;
  useEffect(() => void listenTo(sha256), [sha256]);
  const playing = useWorkbench(({ playing: on, playRate }) => on && playRate === 1);
  const duration = open ? frameTime(open.plan.frames, open.rate) : 0;
  const context = useRef<AudioContext | null>(null);
  const buffer = state.fact?.buffer ?? null;
  const clips = useClipBuffers(open);
  useEffect(() => {
    if (!playing || (!buffer && clips.length === 0)) return;
    context.current ??= new AudioContext();
    const audio = context.current;
    void audio.resume().catch(() => undefined);
    const players = clips.map(({ voice, buffer: own, begins }) => new VoicePlayer(audio, voice, own, begins));
    if (sound && buffer)
      players.push(new VoicePlayer(audio, voiceOf(sound, { duration, length: buffer.duration }), buffer, 0));
    const follow = () => {
      const { time } = workbench.get();
      for (const player of players) player.follow(time);
    };
    follow();
    const timer = setInterval(follow, LOOKED_AFTER);
    return () => {
      clearInterval(timer);
      for (const player of players) player.stop();
    };
  }, [playing, sound, buffer, duration, clips]);
  return state;
}

interface ClipBuffer extends Pick<ClipVoice, 'voice'> {
  buffer: AudioBuffer;
  begins: number;
}

/** The sound of the clips, as far as it has been read. */
function useClipBuffers(open: OpenReel | null): readonly ClipBuffer[] {
  const [read, setRead] = useState<readonly ClipBuffer[]>([]);
  // As text, so that nothing is read again while none of the clips changes.
  const asked = open ? JSON.stringify(voicesOf(open)) : '[]';
  const voices = useMemo(() => JSON.parse(asked) as ClipVoice[], [asked]);
  useEffect(() => {
    let over = false;
    void Promise.all(
      voices.map(async (clip): Promise<ClipBuffer[]> => {
        const sound = await soundOfClip(clip.sha256, clip.voice.from, clip.to);
        return sound && sound.channels.length > 0
          ? [{ voice: clip.voice, buffer: bufferOf(sound), begins: sound.begins }]
          : [];
      }),
    ).then((all) => {
      if (!over) setRead(all.flat());
    });
    return () => {
      over = true;
    };
  }, [voices]);
  return read;
}

function bufferOf({ channels, rate }: ClipSound): AudioBuffer {
  const buffer = new AudioBuffer({
    numberOfChannels: channels.length,
    length: Math.max(1, channels[0]?.length ?? 0),
    sampleRate: rate,
  });
  channels.forEach((samples, k) => buffer.copyToChannel(samples, k));
  return buffer;
}
