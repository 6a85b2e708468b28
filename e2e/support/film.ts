import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';

/** What a tool says of a film that it finds in a file. @param tool how it is called with the file's path */
export function ofFile<T>(film: Buffer, tool: (path: string) => T): T {
  const path = join(tmpdir(), `film-${randomUUID()}.mp4`);
  writeFileSync(path, film);
  try {
    return tool(path);
  } finally {
    rmSync(path, { force: true });
  }
}

const ENTRIES = 'stream=codec_name,nb_read_frames,r_frame_rate,avg_frame_rate,width,height';

/** Stream facts of a film, by ffprobe. */
export function probe(film: Buffer): { codec: string; frames: number; rate: string; width: number; height: number } {
  const json = ofFile(film, (path) =>
    execFileSync(
      'ffprobe',
      ['-v', 'error', '-count_frames', '-select_streams', 'v:0', '-show_entries', ENTRIES, '-of', 'json', path],
      { encoding: 'utf8' },
    ),
  );
  const stream = (JSON.parse(json) as { streams: Record<string, string | number>[] }).streams[0]!;
  expect(stream['avg_frame_rate']).toBe(stream['r_frame_rate']);
  return {
    codec: String(stream['codec_name']),
    frames: Number(stream['nb_read_frames']),
    rate: String(stream['r_frame_rate']),
    width: Number(stream['width']),
    height: Number(stream['height']),
  };
}

/** What ffmpeg makes of a film, or of a picture. */
export const decoded = (film: Buffer, ...args: string[]): Buffer =>
  ofFile(film, (path) =>
    execFileSync('ffmpeg', ['-v', 'error', '-i', path, ...args, '-'], { maxBuffer: 256 * 1024 * 1024 }),
  );

/** The size of small frames, pixels. */
export const SMALL = { width: 64, height: 36 } as const;

/** Frames of a film as grey pixels, row by row: small, or in the size that the film has. */
export function greyFrames(film: Buffer, { width, height }: { width: number; height: number } = SMALL): Buffer[] {
  const raw = decoded(film, '-vf', `scale=${width}:${height}`, '-pix_fmt', 'gray', '-f', 'rawvideo');
  const size = width * height;
  return Array.from({ length: raw.length / size }, (_, i) => raw.subarray(i * size, (i + 1) * size));
}

/** A frame of a film as a PNG. */
export const frameOf = (film: Buffer, frame: number): Buffer =>
  decoded(film, '-vf', `select=eq(n\\,${frame})`, '-frames:v', '1', '-f', 'image2', '-c:v', 'png');

/** Mean difference of two grey pictures, 0…255. */
export const difference = (a: Buffer, b: Buffer): number =>
  a.reduce((sum, value, i) => sum + Math.abs(value - b[i]!), 0) / a.length;

/** A film of a second, 640 × 360, 25 frames, of blurred noise that goes by. @param pixels a frame */
export function passing(pixels: number): Buffer {
  const [noise, film] = ['png', 'mp4'].map((end) => join(tmpdir(), `passing-${process.pid}.${end}`)) as [
    string,
    string,
  ];
  const grain = "nullsrc=s=640x360:d=1,geq=lum='random(1)*255':cb=128:cr=128,boxblur=7:2";
  try {
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', grain, '-frames:v', '1', noise]);
    const scroll = ['-vf', `scroll=horizontal=${pixels / 640},format=yuv420p`, '-t', '1', '-c:v', 'libx264'];
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-loop', '1', '-framerate', '25', '-i', noise, ...scroll, film]);
    return readFileSync(film);
  } finally {
    for (const path of [noise, film]) rmSync(path, { force: true });
  }
}
