import type { Row } from '@eskovan/core/document';
import { frameAt, frameTime, timecodeOf } from '@eskovan/core/reel';
import { memo, useDeferredValue, useEffect, useMemo, useRef, type PointerEvent } from 'react';
import { workbench } from '../../desk/workbench.ts';
import { useKept, useSize } from '../../kit/index.ts';
import { AxisControls, useStripAxis } from '../../strips/axis.tsx';
import { Playhead } from '../../strips/playhead.tsx';
import { RoundBand } from '../../strips/round-band.tsx';
import { LABELS, RULER, type StripScale } from '../../strips/scales.ts';
import { StripRuler } from '../../strips/strip-chart.tsx';
import { blockOf, FilmStrip } from './film-strip.tsx';
import { Markers } from './markers.tsx';
import type { OpenReel } from './open-reel.ts';
import { useReelFacts } from './reel-facts.ts';
import { stripFramesOf } from './shot-block.tsx';
import { GAP, ROW, UnderShots } from './under-shots.tsx';
import { drawnPart, useAheadImages, type Ahead } from './use-ahead.ts';
import type { ShotPeople } from './use-shot-people.ts';

interface ReelStripsProps {
  open: OpenReel;
  ahead: Ahead | null;
  people: ShotPeople;
  /** Told which frames the strip shows: those are drawn first. */
  onStripFrames: (frames: readonly number[]) => void;
  onOpen: (row: Row<'shot'>) => void;
}

/** Heights of what lies in the strips, from the top, pixels. */
const SHOTS = 78;
const JOINS = 27;
const WAVE = 26;

/** The very frames that the strip shows. */
const framesShown = (open: OpenReel, scale: StripScale): number[] =>
  open.plan.shots.flatMap((shot) => stripFramesOf(shot, blockOf(shot, open, scale).width, SHOTS, open.aspect));

/** The reel over time: shots, joins, how the picture moves, what is seen. */
export const ReelStrips = memo(function ReelStrips({ open, ahead, people, onStripFrames, onOpen }: ReelStripsProps) {
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  const { plan, rate } = open;
  const duration = frameTime(plan.frames, rate);
  const axis = useStripAxis({ duration: Math.max(duration, 0.04), path: null }, size.width, box);
  const { scale } = axis;
  const { keys, named, joins, current } = useReelFacts();
  const imageOf = useAheadImages(ahead);
  const shotsTop = RULER + 5;
  const flowTop = shotsTop + SHOTS + JOINS + 3;
  const left = size.height - flowTop - GAP;
  const wave = open.row.body.sound ? WAVE + GAP : 0;
  const rows = Math.max(0, Math.min(8, Math.floor((left - wave - 56) / ROW)));
  const flowHeight = Math.max(24, Math.min(84, left - wave - rows * ROW - GAP));
  // Shots and their times follow a hand at once; what lies under them comes a moment later.
  const under = useDeferredValue(
    useMemo(
      () => ({ open, scale, flowTop, flowHeight, wave: wave > 0 ? WAVE : 0, rows }),
      [open, scale, flowTop, flowHeight, wave, rows],
    ),
  );
  const frames = useKept(useMemo(() => framesShown(under.open, under.scale), [under]));
  useEffect(() => onStripFrames(frames), [frames, onStripFrames]);

  const timeOf = (event: PointerEvent<HTMLDivElement>) => {
    const time = scale.timeAt(event.clientX - event.currentTarget.getBoundingClientRect().left);
    return frameTime(Math.min(plan.frames - 1, frameAt(time, rate)), rate);
  };
  const seek = (time: number) => workbench.set({ time, playing: false });
  return (
    <div
      ref={box}
      className="relative h-full w-full touch-none overflow-hidden bg-desk select-none"
      data-testid="reel-strips"
      data-current={current}
      data-drawn={drawnPart(ahead, keys, 0, plan.frames).toFixed(3)}
      onPointerDown={(event) => {
        if (event.clientX - event.currentTarget.getBoundingClientRect().left < LABELS - 8) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        seek(timeOf(event));
      }}
      onPointerMove={(event) =>
        event.buttons === 1 && event.currentTarget.hasPointerCapture(event.pointerId) && seek(timeOf(event))
      }
    >
      {size.width > 0 && (
        <>
          <svg width={size.width} height={size.height} className="absolute block" aria-hidden>
            <StripRuler scale={scale} top={RULER} />
            <g fontSize="12.5" fontWeight="600" fill="var(--ink)">
              <text x={12} y={shotsTop + 26}>
                Shots
              </text>
              <text x={12} y={flowTop + 16}>
                Flow
              </text>
            </g>
            <g fontSize="11" fill="var(--ink-faint)">
              <text x={12} y={shotsTop + 43} fontFamily="var(--font-mono)">
                {duration.toFixed(2)} s
              </text>
              <text x={12} y={shotsTop + 58} fontFamily="var(--font-mono)">
                {timecodeOf(plan.frames, rate)}
              </text>
              {flowHeight > 44 && (
                <>
                  <text x={12} y={flowTop + 31}>
                    how fast the
                  </text>
                  <text x={12} y={flowTop + 44}>
                    picture moves
                  </text>
                </>
              )}
            </g>
            <UnderShots {...under} ahead={ahead} />
          </svg>
          <AxisControls {...axis} />
          <Clip scale={scale}>
            <FilmStrip {...{ open, scale, named, joins, imageOf, people, onOpen }} top={shotsTop} height={SHOTS} />
          </Clip>
          <RoundBand scale={scale} />
          <Playhead duration={duration} rate={rate} scale={scale} onTime={seek} />
          {/* Above the playhead: one that was made where that is can be taken hold of, and the ruler still seeks. */}
          <Markers open={open} scale={scale} />
        </>
      )}
    </div>
  );
});

/** What lies under the names at the left is not seen. */
function Clip({ scale, children }: { scale: StripScale; children: React.ReactNode }) {
  return (
    <div
      className="pointer-events-none absolute inset-0 *:pointer-events-auto"
      style={{ clipPath: `inset(0 0 0 ${LABELS - 4}px)`, width: LABELS + scale.inner + 18 }}
    >
      {children}
    </div>
  );
}
