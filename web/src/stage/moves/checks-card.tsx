import type { Finding } from '@eskovan/core/check';
import type { Row } from '@eskovan/core/document';
import { atTempo } from '@eskovan/core/move';
import { SlidersHorizontal } from 'lucide-react';
import { useState } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card } from '../../kit/index.ts';
import { CheckLine } from '../shared/check-line.tsx';
import { describeFinding } from './describe-finding.ts';
import { LimitsDialog } from './limits-dialog.tsx';

interface ChecksCardProps {
  row: Row<'move'>;
  findings: readonly Finding[];
  /** What it means that nothing was found. */
  fine: string;
  /** Leads the path clear of what a stretch of it is too near to. */
  onClear?: (stretch: readonly [from: number, to: number]) => void;
}

/** What would spoil a move, before it is rendered: where, how much, and what to do. */
export function ChecksCard({ row, findings, fine, onClear }: ChecksCardProps) {
  const [limits, setLimits] = useState(false);
  return (
    <Card
      title="Checks"
      note={
        <span className="flex items-center gap-1.5">
          {findings.length === 0 ? 'fine' : `${findings.length} to look at`}
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
        {findings.length === 0 && <CheckLine severity="fine">{fine}</CheckLine>}
        {findings.map((finding) => {
          const { rule, severity, at: time, fix } = finding;
          return (
            <CheckLine key={`${rule} ${finding.from}`} severity={severity}>
              <span className="min-w-0 flex-1">{describeFinding(finding)}</span>
              {fix?.kind === 'clear' && onClear && (
                <Button small onClick={() => onClear(fix.stretch)}>
                  Lead it clear
                </Button>
              )}
              {fix?.kind === 'slower' && (
                <Button
                  small
                  onClick={() => editBody('move', row, 'Give it more time', (body) => atTempo(body, fix.factor))}
                >
                  More time
                </Button>
              )}
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
