import { frameTime } from '@eskovan/core/reel';
import { cx } from '../../kit/index.ts';
import type { StripScale } from '../../strips/scales.ts';
import type { OpenReel } from './open-reel.ts';
import { reelDesk, useReelDesk } from './reel-desk.ts';
import type { JoinFact } from './reel-facts.ts';
import { carries, FLOW_COLOURS, joinText } from './words.ts';

interface JoinHandlesProps {
  open: OpenReel;
  scale: StripScale;
  top: number;
  joins: Readonly<Record<string, JoinFact>>;
}

/** Under the strip, how each shot meets the next: as a handle with what is between them, and whether movement carries. */
export function JoinHandles({ open, scale, top, joins }: JoinHandlesProps) {
  const chosen = useReelDesk((state) => state.join);
  return open.plan.shots.slice(1).map((shot, i) => {
    const at = frameTime(shot.start + shot.overlap / 2, open.rate);
    if (!scale.shows(at)) return null;
    const fact = joins[shot.id];
    const name = `Join ${i + 1} to ${i + 2}, ${joinText(shot.join, shot.overlap, open.rate)}${fact ? `, ${fact.flow.word}` : ''}`;
    const width = Math.max(
      0,
      scale.x(frameTime(shot.start + shot.overlap, open.rate)) - scale.x(frameTime(shot.start, open.rate)),
    );
    return (
      <button
        key={shot.id}
        type="button"
        data-join={shot.id}
        aria-label={name}
        aria-pressed={chosen === shot.id}
        title={name}
        className="absolute flex h-6.5 min-w-7 -translate-x-1/2 items-center justify-center rounded-full"
        style={{ left: scale.x(at), top, width: Math.max(28, width) }}
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => reelDesk.set({ join: chosen === shot.id ? null : shot.id })}
      >
        {shot.overlap > 0 && <span className="absolute inset-x-0 h-1.5 rounded-full bg-slate/45" />}
        <span
          className={cx(
            'relative h-3 w-3 border-[1.5px]',
            shot.join?.kind === 'dip' ? 'rotate-45' : 'rounded-full',
            chosen === shot.id && 'ring-2 ring-lagoon ring-offset-1 ring-offset-desk',
          )}
          style={{
            borderColor: fact && !carries(fact.flow) ? FLOW_COLOURS[fact.flow.word] : 'var(--ink-faint)',
            background: fact && !carries(fact.flow) ? FLOW_COLOURS[fact.flow.word] : 'var(--paper)',
          }}
        />
      </button>
    );
  });
}
