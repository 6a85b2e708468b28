import type { Finding, Fix } from '@eskovan/core/check';
import type { MoveBody, Row } from '@eskovan/core/document';
import { SlidersHorizontal } from 'lucide-react';
import { createContext, useContext, useEffect, useRef, useState, type ReactNode } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card, useLengthUnit, useStable } from '../../kit/index.ts';
import { CheckLine } from '../shared/check-line.tsx';
import { describeFinding } from '../shared/describe-finding.ts';
import { loseTrying, lostJustNow, stopTrying, tryOut } from './trying.ts';
import { LimitsDialog } from './limits-dialog.tsx';

interface ChecksCardProps {
  row: Row<'move'>;
  findings: readonly Finding[];
  /** What it means that nothing was found. */
  fine: string;
  /** Are the findings of what is shown now? */
  current?: boolean;
  /** What a fix would make of the move; without it nothing is offered. */
  mend?: (body: MoveBody, fix: Fix) => MoveBody;
  /** What else can be done about a finding. */
  more?: (finding: Finding) => ReactNode;
}

/** What is pressed to mend something, and what the step of undo is called. */
const FIXES: Record<Fix['kind'], { label: string; step: string }> = {
  slower: { label: 'More time', step: 'Give it more time' },
  'slower here': { label: 'Slow down here', step: 'Slow down here' },
  'more time': { label: 'More time here', step: 'Give it more time here' },
  'softer turn': { label: 'Turn more slowly', step: 'Turn more slowly' },
  clear: { label: 'Lead it clear', step: 'Lead the path clear' },
  eyes: { label: 'Hold the eye', step: 'Hold the eye at the height of people' },
};

const Settled = createContext(true);
/** Tells whether the cards have come to what a hand has just made: before that, nothing is said of it. */
export const CardsSettled = Settled.Provider;

/** What would spoil a move, before it is rendered: where, how much, and what to do. */
export function ChecksCard({ row, findings, fine, current = true, mend, more }: ChecksCardProps) {
  const [limits, setLimits] = useState(false);
  const lengths = useLengthUnit();
  const known = useContext(Settled) && current;
  return (
    <Card
      title="Checks"
      note={
        <span className="flex items-center gap-1.5">
          {!known ? 'looking' : findings.length === 0 ? 'fine' : `${findings.length} to look at`}
          <Button
            small
            tone="quiet"
            icon={<SlidersHorizontal size={13} />}
            aria-label="Limits of the checks"
            onClick={() => setLimits(true)}
          />
        </span>
      }
    >
      {limits && <LimitsDialog onClose={() => setLimits(false)} />}
      <ul className="grid max-h-56 gap-1.5 overflow-y-auto">
        {findings.length === 0 && known && <CheckLine severity="fine">{fine}</CheckLine>}
        {findings.map((finding) => {
          const { rule, severity, at: time, fix } = finding;
          return (
            <CheckLine key={`${rule} ${finding.from}`} severity={severity}>
              <span className="min-w-0 flex-1">{describeFinding(finding, lengths)}</span>
              {fix && mend && <FixButton row={row} fix={fix} at={time} mend={mend} />}
              {more?.(finding)}
              {time !== null && (
                <Button
                  small
                  aria-label={`Show ${time.toFixed(1)} s`}
                  onClick={() => workbench.set({ time, playing: false, scout: null })}
                >
                  Show
                </Button>
              )}
            </CheckLine>
          );
        })}
      </ul>
    </Card>
  );
}

interface FixButtonProps {
  row: Row<'move'>;
  fix: Fix;
  at: number | null;
  mend: (body: MoveBody, fix: Fix) => MoveBody;
}

/** While it is pointed at or focused, plan, strips and picture show the move as it would be. */
function FixButton({ row, fix, at, mend }: FixButtonProps) {
  const { label, step } = FIXES[fix.kind];
  const look = () => tryOut(row.id, mend(row.body, fix), at);
  const around = useRef<HTMLSpanElement>(null);
  const lookNow = useStable(look);
  useEffect(() => {
    // A newer answer has put another button under the hand, which has not moved: it goes on looking.
    if (lostJustNow() && around.current?.matches(':hover')) lookNow();
    return loseTrying;
  }, [lookNow]);
  return (
    <span ref={around}>
      <Button
        small
        onPointerEnter={look}
        onPointerLeave={stopTrying}
        onFocus={look}
        onBlur={stopTrying}
        onClick={() => {
          stopTrying();
          editBody('move', row, step, (body) => mend(body, fix));
        }}
      >
        {label}
      </Button>
    </span>
  );
}
