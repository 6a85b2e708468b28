import { unpackModel } from '@eskovan/core/format';
import { orientationOf } from '@eskovan/core/geometry';
import { standing, type CameraSample } from '@eskovan/core/move';
import { AFTERNOON } from '@eskovan/core/survey';
import { PictureRenderer, renderVideo } from '@eskovan/render';

interface FilmBench {
  /** Milliseconds a plain picture of the moving kind, at 436 × 257. */
  pictureMs: number;
  /** Triangles drawn in it. */
  triangles: number;
  /** Milliseconds for all frames, drawn and read back but not encoded. */
  drawnMs: number;
  /** The same with encoding. */
  encodedMs: number;
  /** Milliseconds a frame as takes have it, with the sun's shadow drawn anew and contacts darkened; one without. */
  finishedMs: number;
  plainMs: number;
  frames: number;
}

const lens = { focalLengthMm: 22, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] as [number, number] };
const OPTIONS = { look: 'natural' as const, exposure: 0, light: AFTERNOON };
/** A slow turn in the hall. */
const sampleAt = (time: number): CameraSample =>
  standing(
    { position: [12, 2.11, 5.5], orientation: orientationOf({ pan: 2.6 + time * 0.4, tilt: 0.05, roll: 0 }) },
    lens,
    time,
  );

async function bench(sceneUrl: string): Promise<FilmBench> {
  const renderer = new PictureRenderer();
  const model = unpackModel(new Uint8Array(await (await fetch(sceneUrl)).arrayBuffer()));
  await renderer.setModel(model, OPTIONS);
  const size = { width: 1280, height: 720 };
  const small = { width: 436, height: 257 };
  const times: number[] = [];
  for (let i = 0; i < 40; i += 1) {
    const start = performance.now();
    const bitmap = renderer.draw(sampleAt(i / 20), small);
    // Reading one pixel back waits for the drawing itself.
    const canvas = new OffscreenCanvas(1, 1);
    canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
    canvas.getContext('2d')!.getImageData(0, 0, 1, 1);
    bitmap.close();
    times.push(performance.now() - start);
  }
  const { triangles } = renderer.drawn;
  const frames = 40;
  const subframes = 4;
  const draw = () => {
    const start = performance.now();
    for (let i = 0; i < frames; i += 1) renderer.frame(() => sampleAt(i / 20), size, subframes);
    return performance.now() - start;
  };
  const encode = async () => {
    const start = performance.now();
    await renderVideo(renderer, {
      sampleAt: (t) => sampleAt(t * 1.25),
      rate: { num: 25, den: 1 },
      frames,
      size,
      subframes,
      shutter: 0.5,
      signal: new AbortController().signal,
      onProgress: () => {},
    });
    return performance.now() - start;
  };
  draw();
  const drawn = [draw()];
  const encoded = [await encode()];
  drawn.push(draw());
  encoded.push(await encode());
  await renderer.setModel(model, OPTIONS, true);
  // The first frame draws the shadow maps that the others share.
  renderer.frame(() => sampleAt(0), size, subframes);
  const few = 12;
  const start = performance.now();
  for (let i = 0; i < few; i += 1) renderer.frame(() => sampleAt(i / 20), size, subframes);
  const finishedMs = (performance.now() - start) / few;
  renderer.dispose();
  return {
    pictureMs: times.sort((a, b) => a - b)[20]!,
    triangles,
    drawnMs: Math.min(...drawn),
    encodedMs: Math.min(...encoded),
    finishedMs,
    plainMs: Math.min(...drawn) / frames,
    frames,
  };
}

Object.assign(window, { bench });
