import type { Rate } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { frameTime } from '@eskovan/core/reel';
import { BufferTarget, Mp4OutputFormat, Output, QUALITY_HIGH, VideoSample, VideoSampleSource } from 'mediabunny';
import type { PictureSize } from '../picture/picture-size.ts';
import type { PictureRenderer } from '../picture/renderer.ts';

export interface VideoJob {
  /** Part of a frame's time that the shutter is open, 0…1: what moves meanwhile is blurred. It opens at the frame's instant. */
  shutter: number;
  /** The camera at a time in seconds. */
  sampleAt: (time: number) => CameraSample;
  rate: Rate;
  /** Whole frames, from frame 0. */
  frames: number;
  size: PictureSize;
  subframes: number;
  signal: AbortSignal;
  /** Called after every frame with the number done. */
  onProgress: (done: number) => void;
}

/**
 * Computes a film frame by frame and encodes it as H.264 in MP4. Nothing depends on how fast this machine is: frame
 * i is the instant i·den/num, and the file has exactly `frames` of them.
 * @throws RangeError for odd sizes (H.264 stores colour for pairs of pixels); the signal's reason when aborted
 */
export async function renderVideo(renderer: PictureRenderer, job: VideoJob): Promise<Blob> {
  const { rate, frames, size, subframes, signal } = job;
  const open = job.shutter * frameTime(1, rate);
  if (size.width % 2 || size.height % 2)
    throw new RangeError(`width and height of a film must be even, got ${size.width} × ${size.height}`);
  const target = new BufferTarget();
  const output = new Output({ format: new Mp4OutputFormat({ fastStart: 'in-memory' }), target });
  const source = new VideoSampleSource({ codec: 'avc', quality: QUALITY_HIGH, keyFrameInterval: 2 });
  output.addVideoTrack(source, { frameRate: rate.num / rate.den });
  await output.start();
  try {
    // The encoder works on one frame while the next is drawn: one promise in flight is enough.
    let encoding: Promise<void> = Promise.resolve();
    for (let i = 0; i < frames; i += 1) {
      signal.throwIfAborted();
      const time = frameTime(i, rate);
      const pixels = renderer.frame((part) => job.sampleAt(time + part * open), size, subframes);
      await encoding;
      const sample = new VideoSample(pixels, {
        format: 'RGBX',
        codedWidth: size.width,
        codedHeight: size.height,
        timestamp: time,
        duration: frameTime(i + 1, rate) - time,
      });
      encoding = source.add(sample).finally(() => sample.close());
      job.onProgress(i + 1);
      // Lets an abort message in.
      await new Promise((resolve) => setTimeout(resolve));
    }
    await encoding;
    await output.finalize();
  } catch (error) {
    await output.cancel();
    throw error;
  }
  return new Blob([target.buffer!], { type: 'video/mp4' });
}
