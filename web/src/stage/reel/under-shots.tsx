import { frameTime } from '@eskovan/core/reel';
import { memo, useMemo } from 'react';
import { LABELS, RULER, type StripScale } from '../../strips/scales.ts';
import { FlowLine } from './flow-line.tsx';
import type { OpenReel } from './open-reel.ts';
import { useReelFacts } from './reel-facts.ts';
import { seenThings } from './seen.ts';
import { SeenRows } from './seen-rows.tsx';
import { drawnPart, useAheadVersion, type Ahead } from './use-ahead.ts';
import { WaveRow } from './wave-row.tsx';

/** Room between what lies under the shots, and the height of a row of what is seen, pixels. */
export const GAP = 6;
export const ROW = 15;
/** What is drawn already is shown in so many pieces. */
const PIECES = 120;
/** Frames of a piece that are looked at. */
const LOOKED = 20;

interface UnderShotsProps {
  open: OpenReel;
  scale: StripScale;
  ahead: Ahead | null;
  /** Where the flow line lies, pixels. */
  flowTop: number;
  flowHeight: number;
  /** How high the sound is, pixels; 0 where there is none. */
  wave: number;
  /** So many rows of what is seen have room. */
  rows: number;
}

/** What follows from the shots, under the same axis: what is drawn ahead, how the picture moves, the sound, what is seen. */
export const UnderShots = memo(function UnderShots(props: UnderShotsProps) {
  const { open, scale, ahead, flowTop, flowHeight, wave, rows } = props;
  const { keys, flows, joins, cover, objects } = useReelFacts();
  const seen = useMemo(() => cover && seenThings(cover, objects ?? []), [cover, objects]);
  const waveTop = flowTop + flowHeight + GAP;
  const roomsTop = waveTop + (wave > 0 ? wave + GAP : 0);
  return (
    <>
      <DrawnAhead {...{ ahead, keys, scale, open }} top={RULER + 1} />
      <FlowLine {...{ open, scale, flows, joins }} top={flowTop} height={flowHeight} />
      {wave > 0 && <WaveRow {...{ open, scale }} top={waveTop} height={wave} />}
      {seen && <SeenRows seen={seen} scale={scale} top={roomsTop} rowHeight={ROW} rows={rows} />}
    </>
  );
});

/** A line along the ruler where the reel is drawn ahead: there it plays in real time. */
export function DrawnAhead({
  ahead,
  keys,
  scale,
  open,
  top,
}: {
  ahead: Ahead | null;
  keys: readonly string[];
  scale: StripScale;
  open: OpenReel;
  top: number;
}) {
  useAheadVersion(ahead);
  const { frames } = open.plan;
  const pieces = Array.from({ length: Math.min(PIECES, frames) }, (_, i) => {
    const [from, to] = [i, i + 1].map((k) => Math.round((frames * k) / Math.min(PIECES, frames))) as [number, number];
    return { from, to, part: drawnPart(ahead, keys, from, to, LOOKED) };
  });
  return pieces.map(({ from, to, part }, i) =>
    part > 0 ? (
      <rect
        key={i}
        x={Math.max(LABELS, scale.x(frameTime(from, open.rate)))}
        width={Math.max(
          0,
          Math.min(LABELS + scale.inner, scale.x(frameTime(to, open.rate))) -
            Math.max(LABELS, scale.x(frameTime(from, open.rate))),
        )}
        y={top}
        height={2}
        fill="var(--lagoon)"
        fillOpacity={0.25 + 0.6 * part}
      />
    ) : null,
  );
}
