import { describe, expect, test } from '@jest/globals';
import {
  BEAT_RATE,
  findBeats,
  gainAt,
  heardSpan,
  mixVoices,
  nearestBeat,
  voiceOf,
  wavePeaks,
  type Speaking,
} from './index.ts';

const sound = { from: 0, start: 0, fadeIn: 0, fadeOut: 0, gain: 1 };

/** Knocks at a tempo: each a tone that dies away. */
function knocks(perMinute: number, seconds: number, first = 0.5): Float32Array {
  const samples = new Float32Array(BEAT_RATE * seconds);
  for (let at = first; at < seconds; at += 60 / perMinute)
    for (let i = 0; i < 2000; i += 1) {
      const k = Math.floor(at * BEAT_RATE) + i;
      if (k < samples.length) samples[k]! += Math.exp(-i / 300) * Math.sin(i * 0.2);
    }
  return samples;
}

describe('beats', () => {
  test.each([90, 120, 128])('knocks at %i a minute are found, each within 30 ms', (perMinute) => {
    const beats = findBeats(knocks(perMinute, 12))!;
    expect(beats.tempo).toBeCloseTo(perMinute, 0);
    const off = beats.times.map(
      (time) => Math.abs((((time - 0.5) / (60 / perMinute) + 0.5) % 1) - 0.5) * (60 / perMinute),
    );
    expect(Math.max(...off)).toBeLessThan(0.03);
    expect(beats.times.length).toBeGreaterThan(0.8 * (11.5 / (60 / perMinute)));
  });

  test('silence and what is too short have none', () => {
    expect(findBeats(new Float32Array(BEAT_RATE * 8))).toBeNull();
    expect(findBeats(knocks(120, 2))).toBeNull();
  });

  test('a time goes to the beat that is near, and stays where none is', () => {
    expect(nearestBeat([0.5, 1, 1.5], 1.04, 0.1)).toBe(1);
    expect(nearestBeat([0.5, 1, 1.5], 1.25, 0.1)).toBe(1.25);
    expect(nearestBeat([], 3, 1)).toBe(3);
  });
});

describe('a sound in a reel', () => {
  const rate = 1000;
  const one = new Float32Array(5000).fill(0.8);
  const mixSound = (channels: Float32Array[], sound: Parameters<typeof voiceOf>[0], duration: number) => {
    const voice = voiceOf(sound, { duration, length: channels[0]!.length / rate });
    return mixVoices([{ voice, channels, rate, begins: 0 }], rate, duration);
  };

  test('is as long as the reel to the sample, and silent where it is not heard', () => {
    for (const duration of [0.001, 2, 4.123, 9]) {
      const [mixed] = mixSound([one], { ...sound, start: 1 }, duration);
      expect(mixed!.length).toBe(Math.round(duration * rate));
      expect(mixed!.every((value, i) => Math.abs(value - (i >= 1000 && i < 6000 ? 0.8 : 0)) < 1e-6)).toBe(true);
    }
  });

  test('swells, dies away at the end of the reel, is trimmed and never louder than can be kept', () => {
    const faded = { ...sound, fadeIn: 1, fadeOut: 2, gain: 1 };
    const heard = { duration: 4, length: 5 };
    expect(heardSpan(faded, heard)).toEqual([0, 4]);
    const gains = [0, 0.5, 1.5, 3, 3.9, 4].map((time) => gainAt(voiceOf(faded, heard), time));
    [0, 0.5, 1, 0.5, 0.05, 0].forEach((gain, i) => expect(gains[i]).toBeCloseTo(gain, 9));
    const [loud] = mixSound([one], { ...sound, gain: 4 }, 1);
    expect(Math.max(...loud!)).toBe(1);
    const ramp = Float32Array.from({ length: 4000 }, (_, i) => i / 4000);
    expect(mixSound([ramp], { ...sound, from: 2 }, 1)[0]![0]).toBeCloseTo(0.5, 6);
    expect(heardSpan({ ...sound, start: 9 }, heard)).toEqual([4, 4]);
  });

  test('voices are heard together; one channel speaks on both', () => {
    const voice = { from: 1, start: 0.5, end: 2, speed: 1, fadeIn: 0, fadeOut: 0, gain: 0.5 };
    const left = new Float32Array(2000).fill(0.4);
    const right = new Float32Array(2000).fill(-0.2);
    const speaking: Speaking[] = [
      { voice, channels: [one], rate, begins: 0 },
      { voice: { ...voice, from: 0.2, start: 1, gain: 1 }, channels: [left, right], rate, begins: 0.2 },
    ];
    const [a, b] = mixVoices(speaking, rate, 3) as [Float32Array, Float32Array];
    const at = [400, 600, 1500, 2000];
    [0, 0.4, 0.8, 0].forEach((value, i) => expect(a[at[i]!]).toBeCloseTo(value, 6));
    [0, 0.4, 0.2, 0].forEach((value, i) => expect(b[at[i]!]).toBeCloseTo(value, 6));
  });

  test('a tone of another rate, at another pace, is the tone that it must be', () => {
    const [own, hertz] = [44_100, 440];
    const tone = Float32Array.from({ length: 2 * own }, (_, i) => Math.sin((2 * Math.PI * hertz * i) / own));
    for (const speed of [1, 0.75, 1.5]) {
      const voice = { from: 0.25, start: 0, end: 1, speed, fadeIn: 0, fadeOut: 0, gain: 0.5 };
      const [mixed] = mixVoices([{ voice, channels: [tone], rate: own, begins: 0 }], 48_000, 1);
      const worst = mixed!.reduce(
        (most, value, i) =>
          Math.max(most, Math.abs(value - 0.5 * Math.sin(2 * Math.PI * hertz * (0.25 + (speed * i) / 48_000)))),
        0,
      );
      // A thousandth of it is heard by nobody: 60 dB below.
      expect(worst).toBeLessThan(0.0005);
    }
  });

  test('its wave is the largest of each piece', () => {
    const samples = Float32Array.from({ length: 100 }, (_, i) => (i === 37 ? -0.9 : 0.1));
    const peaks = wavePeaks(samples, 10);
    expect(peaks[3]).toBeCloseTo(0.9, 6);
    expect(peaks[4]).toBeCloseTo(0.1, 6);
  });
});
