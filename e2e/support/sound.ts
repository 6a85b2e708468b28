import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ofFile } from './film.ts';

/** Samples a second that sound is looked at with. */
const RATE = 48_000;

/** A film with a steady tone instead of its sound: an eighth of full scale. @param hertz of the tone */
export function withTone(film: Buffer, hertz: number): Buffer {
  const [from, to] = ['from', 'to'].map((name) => join(tmpdir(), `tone-${name}-${process.pid}.mp4`)) as [
    string,
    string,
  ];
  writeFileSync(from, film);
  try {
    const tone = ['-f', 'lavfi', '-i', `sine=frequency=${hertz}:sample_rate=44100:duration=30`];
    const tracks = ['-map', '0:v', '-map', '1:a', '-c:v', 'copy', '-c:a', 'aac', '-b:a', '192k', '-shortest'];
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', from, ...tone, ...tracks, to]);
    return readFileSync(to);
  } finally {
    for (const path of [from, to]) rmSync(path, { force: true });
  }
}

/** The sound of a film, its first channel, −1…1. */
export const samplesOf = (film: Buffer): Float32Array =>
  ofFile(film, (path) => {
    const raw = execFileSync(
      'ffmpeg',
      ['-v', 'error', '-i', path, '-map', '0:a:0', '-af', 'pan=mono|c0=c0', '-ar', String(RATE), '-f', 'f32le', '-'],
      { maxBuffer: 2 ** 28 },
    );
    return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength));
  });

const between = (samples: Float32Array, from: number, to: number) =>
  samples.subarray(Math.round(from * RATE), Math.round(to * RATE));

/** How loud it is between two times, seconds: the root of the mean square. */
export function levelOf(samples: Float32Array, from: number, to: number): number {
  const part = between(samples, from, to);
  return Math.sqrt(part.reduce((sum, value) => sum + value * value, 0) / part.length);
}

/** How often it swings a second between two times, by its crossings of nothing. */
export function pitchOf(samples: Float32Array, from: number, to: number): number {
  const part = between(samples, from, to);
  let crossings = 0;
  for (let i = 1; i < part.length; i += 1) if (part[i - 1]! < 0 !== part[i]! < 0) crossings += 1;
  return crossings / 2 / (to - from);
}
