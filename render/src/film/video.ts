import type { Rate } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { frameTime } from '@eskovan/core/reel';
import {
  BufferTarget,
  Mp4OutputFormat,
  Output,
  QUALITY_HIGH,
  StreamTarget,
  type StreamTargetChunk,
  VideoSample,
  VideoSampleSource,
} from 'mediabunny';
import type { PictureSize } from '../picture/picture-size.ts';
import type { PictureRenderer } from '../picture/renderer.ts';
import { noPixels, unbroken } from '../picture/unbroken.ts';

export interface VideoJob {
  /** Part of a frame's time that the shutter is open, 0…1: what moves meanwhile is blurred. It opens at the frame's instant. */
  shutter: number;
  /** The camera at a time in seconds. */
  sampleAt: (time: number) => CameraSample;
  rate: Rate;
  /** Whole frames, from frame 0. */
  frames: number;
  /** The frame after the last one is the first again. */
  loops?: boolean;
  size: PictureSize;
  subframes: number;
  /** Ends it between two frames; whoever has a worker of its own just ends that. */
  signal?: AbortSignal;
  /** Where the film is written as it is made; without one it is held in memory. */
  file?: FilmFile;
  /** Called after every frame with the number done. */
  onProgress: (done: number) => void;
}

/** A file that is written piece by piece, each at its place. */
export interface FilmFile {
  write(bytes: Uint8Array<ArrayBuffer>, position: number): void;
  /** The whole of it, once it is written. */
  done(): Promise<Blob>;
}

/** Pieces of a film that is being written, bytes: a few seconds of it. */
const PIECE = 2 * 1024 * 1024;

/**
 * Computes a film frame by frame and encodes it as H.264 in MP4. Nothing depends on how fast this machine is: frame
 * i is the instant i·den/num, and the file has exactly `frames` of them. A frame during which the graphics card was lost
 * is drawn again.
 * @throws RangeError for odd sizes (H.264 stores colour for pairs of pixels); the signal's reason when aborted
 */
export async function renderVideo(renderer: PictureRenderer, job: VideoJob): Promise<Blob> {
  const { rate, frames, size, subframes, signal } = job;
  const open = job.shutter * frameTime(1, rate);
  if (size.width % 2 || size.height % 2)
    throw new RangeError(`width and height of a film must be even, got ${size.width} × ${size.height}`);
  const { output, whole } = outputTo(job.file);
  const source = new VideoSampleSource({ codec: 'avc', quality: QUALITY_HIGH, keyFrameInterval: 2 });
  output.addVideoTrack(source, { frameRate: rate.num / rate.den, maximumPacketCount: frames });
  await output.start();
  try {
    // The encoder works on one frame while the next is drawn: one promise in flight is enough.
    let encoding: Promise<void> = Promise.resolve();
    const duration = frameTime(frames, rate);
    const exposure = renderer.exposureAlong({ poseAt: job.sampleAt, duration, loops: job.loops ?? false });
    for (let i = 0; i < frames; i += 1) {
      signal?.throwIfAborted();
      const time = frameTime(i, rate);
      const pixels = await unbroken(
        renderer,
        () => renderer.frame((part) => job.sampleAt(time + part * open), size, subframes, exposure.at(time)),
        { isEmpty: noPixels },
      );
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
      // Lets messages in: of an abort, or of a card that is lost.
      await new Promise((resolve) => setTimeout(resolve));
    }
    await encoding;
    await output.finalize();
  } catch (error) {
    await output.cancel();
    throw error;
  }
  return new Blob([await whole()], { type: 'video/mp4' });
}

/** Where a film goes, and how to get the whole of it. Players begin before they have all: what they need stands first. */
function outputTo(file: FilmFile | undefined): { output: Output; whole: () => Promise<BlobPart> } {
  if (!file) {
    const target = new BufferTarget();
    const output = new Output({ format: new Mp4OutputFormat({ fastStart: 'in-memory' }), target });
    return { output, whole: () => Promise.resolve(target.buffer!) };
  }
  const writing = new WritableStream<StreamTargetChunk>({
    write: ({ data, position }) => file.write(data, position),
  });
  const target = new StreamTarget(writing, { chunked: true, chunkSize: PIECE });
  return {
    output: new Output({ format: new Mp4OutputFormat({ fastStart: 'reserve' }), target }),
    whole: () => file.done(),
  };
}
