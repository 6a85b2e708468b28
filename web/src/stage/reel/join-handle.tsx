import { frameTime } from '@eskovan/core/reel';
import type { PlannedShot } from '@eskovan/core/reel';
import { memo } from 'react';
import { cx } from '../../kit/index.ts';
import type { StripScale } from '../../strips/scales.ts';
import type { OpenReel } from './open-reel.ts';
import { reelDesk } from './reel-desk.ts';
import type { JoinFact } from './reel-facts.ts';
import { carries, FLOW_COLOURS, joinText } from './words.ts';

/** A handle is so wide where there is room; where there is less than that for its mark, it is a stroke: pixels. */
const WIDE = 28;
const MARK = 14;

/** How a shot meets the one before it, as its handle shows it. */
export interface JoinLook {
  name: string;
  /** pixels */
  width: number;
  blends: boolean;
  dips: boolean;
  /** Of what movement does there; null where it carries, or nobody knows yet. */
  colour: string | null;
  chosen: boolean;
}

/**
 * @param fact what movement does there, as far as it is known
 * @param room pixels to the nearest other one
 */
export function joinLook(
  { index, start, overlap, join }: PlannedShot,
  { rate }: Pick<OpenReel, 'rate'>,
  scale: StripScale,
  fact: JoinFact | undefined,
  room: number,
  chosen: boolean,
): JoinLook {
  const shared = scale.x(frameTime(start + overlap, rate)) - scale.x(frameTime(start, rate));
  const { word } = fact?.flow ?? {};
  return {
    name: `Join ${index} to ${index + 1}, ${joinText(join, overlap, rate)}${word ? `, ${word}` : ''}`,
    width: Math.max(Math.min(WIDE, Math.max(MARK / 2, room)), Math.round(shared)),
    blends: overlap > 0,
    dips: join?.kind === 'dip',
    colour: word && !carries(fact!.flow) ? FLOW_COLOURS[word] : null,
    chosen,
  };
}

interface JoinHandleProps extends JoinLook {
  /** Of the shot that it leads to: the handle hangs at the left edge of that. */
  id: string;
}

/** Under the strip, where two shots meet: a handle with what is between them, and whether movement carries. */
export const JoinHandle = memo(function JoinHandle(props: JoinHandleProps) {
  const { id, name, width, blends, dips, colour, chosen } = props;
  return (
    <button
      type="button"
      data-join={id}
      aria-label={name}
      aria-pressed={chosen}
      title={name}
      className={cx('mt-px flex h-6.5 items-center justify-center rounded-full', blends && 'relative')}
      style={{ width, marginLeft: -width / 2 }}
      onPointerDown={(event) => event.stopPropagation()}
      onClick={() => reelDesk.set({ join: chosen ? null : id })}
    >
      {blends && <span className="absolute inset-x-0 h-1.5 rounded-full bg-slate/45" />}
      <span
        className={cx(
          'shrink-0 border-[1.5px]',
          width < MARK ? 'h-3.5 w-1' : 'h-3 w-3',
          width >= MARK && (dips ? 'rotate-45' : 'rounded-full'),
          blends && 'relative',
          chosen && 'ring-2 ring-lagoon ring-offset-1 ring-offset-desk',
        )}
        style={{ borderColor: colour ?? 'var(--ink-faint)', background: colour ?? 'var(--paper)' }}
      />
    </button>
  );
});
