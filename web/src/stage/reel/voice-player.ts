import { gainAt, heardAt, type Voice } from '@eskovan/core/sound';

/** The clock and a sound may be so far apart before the sound is set right, seconds. */
const APART = 0.12;

/** Plays one voice of a reel along with the reel's clock. */
export class VoicePlayer {
  private readonly gain: GainNode;
  private source: AudioBufferSourceNode | null = null;
  /** When what plays began, by the clock of the sounds, and what of the buffer was heard then, seconds. */
  private began = { at: 0, offset: 0 };

  /** @param begins what of its file the buffer begins with, seconds */
  constructor(
    private readonly audio: AudioContext,
    private readonly voice: Voice,
    private readonly buffer: AudioBuffer,
    private readonly begins: number,
  ) {
    this.gain = audio.createGain();
    this.gain.connect(audio.destination);
  }

  /** @param time of the reel, seconds */
  follow(time: number): void {
    const { voice, buffer, audio } = this;
    const loud = gainAt(voice, time);
    this.gain.gain.value = loud;
    const meant = heardAt(voice, time) - this.begins;
    if (loud === 0 || meant < 0 || meant >= buffer.duration) {
      // What swells from nothing may be silent for an instant: it goes on.
      if (time < voice.start || time >= voice.end) this.hush();
      return;
    }
    const heard = this.began.offset + (audio.currentTime - this.began.at) * voice.speed;
    if (!this.source || Math.abs(heard - meant) > APART * voice.speed) this.begin(meant);
  }

  stop(): void {
    this.hush();
    this.gain.disconnect();
  }

  private begin(offset: number): void {
    this.hush();
    const source = this.audio.createBufferSource();
    source.buffer = this.buffer;
    source.playbackRate.value = this.voice.speed;
    source.connect(this.gain);
    source.start(0, offset);
    this.source = source;
    this.began = { at: this.audio.currentTime, offset };
  }

  private hush(): void {
    this.source?.stop();
    this.source = null;
  }
}
