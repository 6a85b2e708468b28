import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';

/** Stream facts of a film, by ffprobe. */
export function probe(
  bytes: Buffer,
  name: string,
): { codec: string; frames: number; rate: string; width: number; height: number } {
  const path = join(tmpdir(), `${name}-${process.pid}.mp4`);
  writeFileSync(path, bytes);
  const json = execFileSync(
    'ffprobe',
    [
      '-v',
      'error',
      '-count_frames',
      '-select_streams',
      'v:0',
      '-show_entries',
      'stream=codec_name,nb_read_frames,r_frame_rate,avg_frame_rate,width,height',
      '-of',
      'json',
      path,
    ],
    { encoding: 'utf8' },
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

/** Frames of a film as grey pixels of 64 × 36, by ffmpeg. */
export function greyFrames(bytes: Buffer, name: string): Buffer[] {
  const path = join(tmpdir(), `${name}-${process.pid}-grey.mp4`);
  writeFileSync(path, bytes);
  const size = 64 * 36;
  const args = ['-v', 'error', '-i', path, '-vf', 'scale=64:36', '-pix_fmt', 'gray', '-f', 'rawvideo', '-'];
  const raw = execFileSync('ffmpeg', args, { maxBuffer: 64 * 1024 * 1024 });
  return Array.from({ length: raw.length / size }, (_, i) => raw.subarray(i * size, (i + 1) * size));
}

/** A frame of a film as a PNG, by ffmpeg. */
export function frameOf(bytes: Buffer, frame: number): Buffer {
  const path = join(tmpdir(), `frame-${process.pid}.mp4`);
  writeFileSync(path, bytes);
  try {
    const args = [
      '-v',
      'error',
      '-i',
      path,
      '-vf',
      `select=eq(n\\,${frame})`,
      '-frames:v',
      '1',
      '-f',
      'image2',
      '-c:v',
    ];
    return execFileSync('ffmpeg', [...args, 'png', '-'], { maxBuffer: 16 * 1024 * 1024 });
  } finally {
    rmSync(path, { force: true });
  }
}

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
