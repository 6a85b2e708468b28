import { frameAt } from '@eskovan/core/reel';
import { memo, useEffect, useRef } from 'react';
import { useSize } from '../../kit/index.ts';
import { GuideLines, type Guides } from '../../picture/guides.tsx';
import { useWorkbench } from '../../desk/workbench.ts';
import type { OpenReel } from './open-reel.ts';
import { useReelDesk } from './reel-desk.ts';
import type { ReelLink } from './reel-link.ts';
import { aheadSize, type Ahead } from './use-ahead.ts';
import { FramePlayer } from './frame-player.ts';

interface ReelPictureProps {
  open: OpenReel;
  link: ReelLink | null;
  ahead: Ahead | null;
  /** Names of all its frames. */
  keys: readonly string[];
  /** What it is, where there is another one beside it. */
  label?: string;
}

const GUIDES: Guides = { lines: 'thirds', safe: true, second: null };
/** About the picture, pixels. */
const MARGIN = 14;

/** The frame of the reel that time has come to: as it was drawn ahead while it plays, sharply when it rests. */
export const ReelPicture = memo(function ReelPicture({ open, link, ahead, keys, label }: ReelPictureProps) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(box);
  const player = useRef<FramePlayer | null>(null);
  const guides = useReelDesk((state) => state.guides);
  const time = useWorkbench((state) => state.time);
  const playing = useWorkbench((state) => state.playing);
  const { rate, plan, aspect } = open;
  const frame = Math.max(0, Math.min(plan.frames - 1, frameAt(time, rate)));
  const width = Math.max(16, Math.min(size.width - 2 * MARGIN, Math.round((size.height - 2 * MARGIN) * aspect)));
  const height = Math.round(width / aspect);

  useEffect(() => {
    if (!ahead || !link) return;
    const made = new FramePlayer(canvas.current!, ahead.desk, (at) => link.picture(at), aheadSize(aspect));
    player.current = made;
    return () => {
      made.close();
      player.current = null;
    };
  }, [ahead, link, aspect]);
  useEffect(() => {
    player.current?.show({ frame, keys, playing, size: { width, height } });
  }, [frame, keys, playing, width, height, aspect, ahead, link]);

  return (
    <div
      ref={box}
      role="group"
      aria-label={label ? `Picture of ${label}` : 'Picture of the reel'}
      className="on-surround relative h-full w-full overflow-hidden bg-surround will-change-transform"
    >
      <canvas
        ref={canvas}
        data-testid={label ? 'compared-canvas' : 'reel-canvas'}
        aria-hidden
        className="absolute bg-surround-raised"
        style={{ left: (size.width - width) / 2, top: (size.height - height) / 2, width, height }}
      />
      {guides && size.width > 0 && (
        <div
          aria-hidden
          className="pointer-events-none absolute"
          style={{ left: (size.width - width) / 2, top: (size.height - height) / 2, width, height }}
        >
          <GuideLines guides={GUIDES} aspect={aspect} />
        </div>
      )}
    </div>
  );
});
