import { frameTime } from '@eskovan/core/reel';
import { gainAt } from '@eskovan/core/sound';
import { useEffect, useRef } from 'react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import type { OpenReel } from './open-reel.ts';
import { listenTo, useSoundFact, type SoundFact } from './sound-facts.ts';

/** The clock and the sound may be so far apart before the sound is set right, seconds. */
const APART = 0.12;
/** How often that is looked after, and how loud it is, milliseconds. */
const LOOKED_AFTER = 40;

/** Plays the sound of the reel along with it, forward at its own speed; otherwise it is silent. */
export function useReelSound(open: OpenReel | null): { fact: SoundFact | null; failed: string | null } {
  const state = useSoundFact();
  const sound = open?.row.body.sound;
  const sha256 = sound?.file.sha256 ?? null;
  useEffect(() => void listenTo(sha256), [sha256]);
  const playing = useWorkbench(({ playing: on, playRate }) => on && playRate === 1);
  const duration = open ? frameTime(open.plan.frames, open.rate) : 0;
  const context = useRef<AudioContext | null>(null);
  const buffer = state.fact?.buffer ?? null;
  useEffect(() => {
    if (!playing || !sound || !buffer) return;
    context.current ??= new AudioContext();
    const audio = context.current;
    void audio.resume().catch(() => undefined);
    const gain = audio.createGain();
    gain.connect(audio.destination);
    let source: AudioBufferSourceNode | null = null;
    let began = { at: 0, offset: 0 };
    const begin = (time: number) => {
      source?.stop();
      const offset = sound.from + time - sound.start;
      if (offset < 0 || offset >= buffer.duration) {
        source = null;
        return;
      }
      source = audio.createBufferSource();
      source.buffer = buffer;
      source.connect(gain);
      source.start(0, offset);
      began = { at: audio.currentTime, offset };
    };
    const follow = () => {
      const { time } = workbench.get();
      gain.gain.value = gainAt(sound, { duration, length: buffer.duration }, time);
      const heard = began.offset + audio.currentTime - began.at;
      const meant = sound.from + time - sound.start;
      if (!source ? meant >= 0 && meant < buffer.duration : Math.abs(heard - meant) > APART) begin(time);
    };
    follow();
    const timer = setInterval(follow, LOOKED_AFTER);
    return () => {
      clearInterval(timer);
      source?.stop();
      gain.disconnect();
    };
  }, [playing, sound, buffer, duration]);
  return state;
}
