import type { Rate } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { frameTime } from '@eskovan/core/reel';
import {
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  type StreamTargetChunk,
  VideoSample,
  VideoSampleSource,
} from 'mediabunny';
import type { PictureSize } from '../picture/picture-size.ts';
import { bitrateOf } from './bitrate.ts';
import { FilmPieces } from './film-pieces.ts';
import { addSound, type FilmSound } from './sound.ts';
import type { PictureRenderer } from '../picture/renderer.ts';
import { noPixels, unbroken } from '../picture/unbroken.ts';

/** A film, frame by frame. */
export interface FilmJob {
  rate: Rate;
  /** Whole frames, from frame 0. */
  frames: number;
  size: PictureSize;
  sound?: FilmSound | null;
  /** Pixels of a frame, RGBA, top row first. Asked once for each, in their order. */
  pixelsAt: (frame: number) => Promise<Uint8Array<ArrayBuffer>>;
  /** Ends it between two frames; whoever has a worker of its own just ends that. */
  signal?: AbortSignal;
  /** Called after every frame with the number done. */
  onProgress: (done: number) => void;
}

/** A film that was made. */
export interface Film {
  file: Blob;
  /** Pixels of the frame that stands for it, as `pixelsAt` gave them: a third into it there is more to see than at its start. */
  poster: Uint8Array<ArrayBuffer>;
}

/** A film of one camera. */
export interface VideoJob extends Omit<FilmJob, 'pixelsAt'> {
  /** Part of a frame's time that the shutter is open, 0…1: what moves meanwhile is blurred. It opens at the frame's instant. */
  shutter: number;
  /** The camera at a time in seconds. */
  sampleAt: (time: number) => CameraSample;
  /** The frame after the last one is the first again. */
  loops?: boolean;
  subframes: number;
}

/** Pieces of a film that is being written, bytes: a few seconds of it. */
const PIECE = 2 * 1024 * 1024;

/**
 * Computes a film of one camera, frame by frame: frame i is the instant i·den/num. A frame during which the graphics card
 * was lost is drawn again. See {@link encodeFilm}.
 */
export function renderVideo(renderer: PictureRenderer, job: VideoJob): Promise<Film> {
  const { rate, frames, size, subframes } = job;
  const open = job.shutter * frameTime(1, rate);
  const duration = frameTime(frames, rate);
  const exposure = renderer.exposureAlong({ poseAt: job.sampleAt, duration, loops: job.loops ?? false });
  return encodeFilm({
    ...job,
    pixelsAt: (frame) => {
      const time = frameTime(frame, rate);
      return unbroken(
        renderer,
        () => renderer.frame((part) => job.sampleAt(time + part * open), size, subframes, exposure.at(time)),
        { isEmpty: noPixels },
      );
    },
  });
}

/**
 * Encodes a film as H.264 in MP4, with its sound. Nothing depends on how fast this machine is: the file has exactly `frames`
 * frames.
 * @throws RangeError for odd sizes (H.264 stores colour for pairs of pixels); the signal's reason when aborted
 */
export async function encodeFilm(job: FilmJob): Promise<Film> {
  const { rate, frames, size, signal, sound } = job;
  if (size.width % 2 || size.height % 2)
    throw new RangeError(`width and height of a film must be even, got ${size.width} × ${size.height}`);
  const pieces = new FilmPieces();
  const output = outputTo(pieces);
  const source = new VideoSampleSource({
    codec: 'avc',
    quality: new Quality({ bitrate: bitrateOf(size, rate) }),
    keyFrameInterval: 2,
  });
  output.addVideoTrack(source, { frameRate: rate.num / rate.den, maximumPacketCount: frames });
  const soundTrack = sound ? await addSound(output, sound) : null;
  await output.start();
  const third = Math.floor(frames / 3);
  let poster = new Uint8Array(0);
  try {
    // Beside the pictures: the file wants both in their time.
    const heard = soundTrack?.write();
    heard?.catch(() => undefined);
    // The encoder works on one frame while the next is drawn: one promise in flight is enough.
    let encoding: Promise<void> = Promise.resolve();
    for (let i = 0; i < frames; i += 1) {
      signal?.throwIfAborted();
      const time = frameTime(i, rate);
      const pixels = await job.pixelsAt(i);
      if (i === third) poster = pixels;
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
    await heard;
    await output.finalize();
  } catch (error) {
    await output.cancel();
    throw error;
  }
  return { file: pieces.whole('video/mp4'), poster };
}

/** Where a film goes, piece by piece. Players begin before they have all: what they need stands first. */
function outputTo(pieces: FilmPieces): Output {
  const writing = new WritableStream<StreamTargetChunk>({
    write: ({ data, position }) => pieces.write(data, position),
  });
  const target = new StreamTarget(writing, { chunked: true, chunkSize: PIECE });
  return new Output({ format: new Mp4OutputFormat({ fastStart: 'reserve' }), target });
}
