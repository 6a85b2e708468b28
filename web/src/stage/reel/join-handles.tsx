import { frameTime } from '@eskovan/core/reel';
import { memo } from 'react';
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
    const word = joins[shot.id]?.flow.word;
    const shared = scale.x(frameTime(shot.start + shot.overlap, open.rate)) - scale.x(frameTime(shot.start, open.rate));
    return (
      <div key={shot.id} className="absolute" style={{ left: scale.at(at), top }}>
        <JoinHandle
          id={shot.id}
          name={`Join ${i + 1} to ${i + 2}, ${joinText(shot.join, shot.overlap, open.rate)}${word ? `, ${word}` : ''}`}
          width={Math.max(28, Math.round(shared))}
          blends={shot.overlap > 0}
          dips={shot.join?.kind === 'dip'}
          colour={word && !carries(joins[shot.id]!.flow) ? FLOW_COLOURS[word] : null}
          chosen={chosen === shot.id}
        />
      </div>
    );
  });
}

interface JoinHandleProps {
  id: string;
  name: string;
  /** pixels */
  width: number;
  blends: boolean;
  dips: boolean;
  /** Of what movement does there; null where it carries, or nobody knows yet. */
  colour: string | null;
  chosen: boolean;
}

/** It is drawn again only when something of its own changes, not when it only moves along. */
const JoinHandle = memo(function JoinHandle({ id, name, width, blends, dips, colour, chosen }: JoinHandleProps) {
  return (
    <button
      type="button"
      data-join={id}
      aria-label={name}
      aria-pressed={chosen}
      title={name}
      className="absolute flex h-6.5 min-w-7 -translate-x-1/2 items-center justify-center rounded-full"
      style={{ width }}
      onPointerDown={(event) => event.stopPropagation()}
      onClick={() => reelDesk.set({ join: chosen ? null : id })}
    >
      {blends && <span className="absolute inset-x-0 h-1.5 rounded-full bg-slate/45" />}
      <span
        className={cx(
          'relative h-3 w-3 border-[1.5px]',
          dips ? 'rotate-45' : 'rounded-full',
          chosen && 'ring-2 ring-lagoon ring-offset-1 ring-offset-desk',
        )}
        style={{ borderColor: colour ?? 'var(--ink-faint)', background: colour ?? 'var(--paper)' }}
      />
    </button>
  );
});
