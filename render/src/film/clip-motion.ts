import { pictureFlow, type ClipMotion, type GreyPicture } from '@eskovan/core/reel';
import { CanvasSink, type WrappedCanvas } from 'mediabunny';
import { openFilm } from './open-film.ts';

/** Pictures are looked at so wide, pixels: enough for what moves by a hundredth of its width a second. */
const WIDE = 240;
/** Looked at so often, seconds; in long films more seldom, so many times at most. */
const EVERY = 0.25;
const MOST = 160;

/**
 * How the pictures of a film move, each found again in the one after it.
 * @returns null where it cannot be read
 */
export async function clipMotion(source: Blob | URL): Promise<ClipMotion | null> {
  const input = openFilm(source);
  try {
    const track = await input.getPrimaryVideoTrack();
    if (!track || !(await track.canDecode())) return null;
    const aspect = track.displayWidth / track.displayHeight;
    const [width, height] = [WIDE, Math.max(2, Math.round(WIDE / aspect))];
    const sink = new CanvasSink(track, { width, height, fit: 'fill', poolSize: 2 });
    const first = await track.getFirstTimestamp();
    const duration = (await track.computeDuration()) - first;
    const every = Math.max(EVERY, duration / MOST);
    const fields: Float32Array[] = [];
    for (let time = 0; time < duration; time += every) {
      const two = await pairAt(sink, first + time, first + duration);
      // At its end there is no picture after the last: it goes on as it went.
      const field = two ? Float32Array.from(pictureFlow(...two).velocities) : fields.at(-1);
      if (field) fields.push(field);
    }
    return { aspect, every, fields };
  } catch {
    return null;
  } finally {
    input.dispose();
  }
}

/** The picture at a time and the one after it, and how long it is between them, seconds. */
async function pairAt(sink: CanvasSink, time: number, end: number): Promise<[GreyPicture, GreyPicture, number] | null> {
  const one = await sink.getCanvas(time);
  if (!one || one.timestamp + one.duration >= end - 1e-6) return null;
  const a = greyOf(one);
  const next = await sink.getCanvas(one.timestamp + one.duration + 1e-6);
  if (!next || next.timestamp <= one.timestamp) return null;
  return [a, greyOf(next), next.timestamp - one.timestamp];
}

function greyOf({ canvas }: WrappedCanvas): GreyPicture {
  const { width, height } = canvas;
  const pen = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
  const { data } = pen.getImageData(0, 0, width, height);
  const pixels = new Float32Array(width * height);
  // Rec. 709 weights.
  for (let i = 0, o = 0; i < pixels.length; i += 1, o += 4)
    pixels[i] = (0.2126 * data[o]! + 0.7152 * data[o + 1]! + 0.0722 * data[o + 2]!) / 255;
  return { width, height, pixels };
}
