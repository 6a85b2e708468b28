import { aspectOf, type Frame, type Rate } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { frameAt } from '@eskovan/core/reel';
import type { Stance } from '@eskovan/render';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { tellShown } from '../desk/playing.ts';
import { workbench } from '../desk/workbench.ts';
import { useProject } from '../data/use-project.ts';
import { useSize } from '../kit/index.ts';
import { tellBurnt } from './burnt.ts';
import { drawPicture, leaveSharpPicture, loadPicture, standPerson, usePictureState } from './client.ts';
import { GuideLines, type Guides } from './guides.tsx';
import { KeptFrames } from './kept-frames.ts';
import { sceneKey } from './source.ts';
import { PicturePump } from './pump.ts';
import { useScene } from './scene.ts';
import type { Hands } from './hands.ts';
import { useHands } from './use-hands.ts';

interface PicturePaneProps {
  /** What to show; null shows nothing yet. */
  sample: CameraSample | null;
  /** How looking around changes the eye; absent: the picture only shows. */
  hands?: Hands;
  /** How dark it is outside the frame, 0…1. */
  mask?: number;
  guides?: Guides;
  /** Drawn over the frame, as large as it is. */
  over?: ReactNode;
  /** Somebody who walks along, for scale: where at a time of the move, seconds. */
  company?: ((time: number) => Stance) | null;
  /** Width over height of the frame, where that is not the project's. */
  frame?: Frame;
  /** What plays: its frames are kept while it does, and shown again the next time. */
  film?: Film | null;
  /** Another number asks for the picture to be drawn again: something in it that is not the model has changed. */
  version?: number;
  label: string;
  children?: ReactNode;
}

/** Something that can be played: its frames are the same pictures as long as it is the same object. */
interface Film {
  rate: Rate;
}

/** How much of what lies just outside the frame is shown, as a part of the smaller side. */
const MARGIN = 0.05;

/** The frame as large as it fits, and the picture around it: a little larger, never larger than the pane. */
function fit(width: number, height: number, aspect: number) {
  const margin = Math.round(Math.min(width, height) * MARGIN);
  const frameWidth = Math.max(16, Math.floor(Math.min(width - 2 * margin, (height - 2 * margin) * aspect)));
  const frame = { width: frameWidth, height: Math.max(9, Math.round(frameWidth / aspect)) };
  return { frame, picture: { width: frame.width + 2 * margin, height: frame.height + 2 * margin } };
}

/** Shows exactly what will be rendered, and around it, shaded, a little of what will not. */
export function PicturePane({
  sample,
  hands,
  mask = 0.72,
  guides,
  over,
  company = null,
  frame: own,
  film = null,
  version = 0,
  label,
  children,
}: PicturePaneProps) {
  const { project } = useProject();
  const aspect = aspectOf({ frame: own ?? project.body.frame });
  const scene = useScene();
  const [projectOf, setProjectOf] = useState<string | null>(null);
  const { drawable, loaded, loading, error, renewed } = usePictureState();
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const pump = useRef<PicturePump | null>(null);
  const opening = useRef(true);
  const walks = useRef(company);
  walks.current = company;
  const plays = useRef(film);
  plays.current = film;
  const [frames] = useState(() => new KeptFrames());
  opening.current = projectOf !== project.id;
  const size = useSize(box);
  const { frame, picture } = fit(size.width, size.height, aspect);

  useEffect(() => {
    if (scene) void loadPicture(scene, opening.current);
  }, [scene]);
  const key = sceneKey(scene);
  useEffect(() => {
    if (drawable !== null && drawable === key) setProjectOf(project.id);
  }, [drawable, key, project.id]);

  useEffect(() => {
    const context = canvas.current!.getContext('bitmaprenderer')!;
    const made = new PicturePump({
      draw: (sample, ...how) => {
        if (walks.current) void standPerson(walks.current(sample.moveTime));
        return drawPicture(sample, ...how);
      },
      giveWay: leaveSharpPicture,
      patient: () => workbench.get().everyFrame && workbench.get().playing,
      again: (sample, width) => {
        const frame = playedFrame(plays.current, sample);
        const again = frame === null ? null : frames.get(frame, width);
        if (again && canvas.current) countUp(canvas.current, 'again');
        return again;
      },
      drawn: (bitmap, sample) => {
        const frame = playedFrame(plays.current, sample);
        if (frame !== null) void frames.keep(frame, bitmap);
      },
      show: (bitmap, sharp, shown, burnt) => {
        tellShown(shown.moveTime);
        context.transferFromImageBitmap(bitmap);
        if (canvas.current) {
          canvas.current.dataset['sharp'] = String(sharp);
          if (sharp) tellBurnt(shown, burnt);
          countUp(canvas.current, 'pictures');
        }
      },
    });
    pump.current = made;
    return () => made.stop();
  }, [frames]);

  // What was drawn is shown again only as long as nothing of it would be other.
  useEffect(
    () => () => frames.clear(),
    [frames, film, drawable, loaded, renewed, version, company, picture.width, picture.height, frame.width],
  );

  useEffect(() => {
    if (company) return () => void standPerson(null);
    return undefined;
  }, [company]);

  // While a changed scene is being made ready, the one before goes on being shown.
  const ready = scene !== null && drawable !== null && (drawable === key || projectOf === project.id);
  useEffect(() => {
    if (!ready || !sample || size.width < 32 || size.height < 32) return;
    if (canvas.current) canvas.current.dataset['sharp'] = 'false';
    pump.current?.show(sample, {
      width: picture.width,
      height: picture.height,
      frame: { width: frame.width, height: frame.height },
    });
    // Sizes are compared by their numbers, not by the objects that carry them.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [ready, drawable, loaded, renewed, version, sample, size, frame.width, frame.height, company]);

  const bind = useHands(box, hands, frame, sample?.siteTime);
  const placed = (what: { width: number; height: number }) => ({
    left: (size.width - what.width) / 2,
    top: (size.height - what.height) / 2,
    width: what.width,
    height: what.height,
  });

  return (
    <div
      ref={box}
      {...bind}
      tabIndex={hands ? 0 : -1}
      role="group"
      aria-label={label}
      // A layer of its own: what changes with every picture must not make the browser paint its neighbours again.
      className="on-surround relative h-full w-full touch-none overflow-hidden bg-surround will-change-transform focus-visible:-outline-offset-2"
    >
      <canvas ref={canvas} className="absolute" style={placed(picture)} data-testid="picture-canvas" aria-hidden />
      {size.width > 0 && (
        <>
          <Mask picture={placed(picture)} frame={placed(frame)} strength={mask} />
          <div
            aria-hidden
            data-testid="frame"
            className="pointer-events-none absolute outline outline-1 outline-white/35"
            style={placed(frame)}
          >
            {guides && <GuideLines guides={guides} aspect={aspect} />}
          </div>
          {over && (
            <div className="pointer-events-none absolute overflow-hidden" style={placed(frame)}>
              {over}
            </div>
          )}
        </>
      )}
      {!ready && (
        <p className="absolute inset-0 flex items-center justify-center text-surround-soft" role="status">
          {error ?? (loading || !scene ? 'Bringing the picture…' : '')}
        </p>
      )}
      {children}
    </div>
  );
}

/** The frame of what plays that a sample is; null where nothing plays. */
const playedFrame = (film: Film | null, { moveTime }: CameraSample): number | null =>
  film && workbench.get().playing ? frameAt(moveTime, film.rate) : null;

function countUp(canvas: HTMLCanvasElement, what: string): void {
  canvas.dataset[what] = String(Number(canvas.dataset[what] ?? 0) + 1);
}

interface Rectangle {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** The shade outside the frame: four plain strips, which cost a weak machine least. */
function Mask({ picture, frame, strength }: { picture: Rectangle; frame: Rectangle; strength: number }) {
  const side = frame.left - picture.left;
  const edge = frame.top - picture.top;
  const strips: Rectangle[] = [
    { ...picture, height: edge },
    { ...picture, top: frame.top + frame.height, height: edge },
    { left: picture.left, top: frame.top, width: side, height: frame.height },
    { left: frame.left + frame.width, top: frame.top, width: side, height: frame.height },
  ];
  return strips.map((strip, i) => (
    <div
      key={i}
      aria-hidden
      className="pointer-events-none absolute"
      style={{ ...strip, background: `rgb(28 33 38 / ${strength})` }}
    />
  ));
}
