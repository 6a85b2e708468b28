import { checkWalk } from '@eskovan/core/check';
import type { CompiledWalk } from '@eskovan/core/move';
import { CircleAlert, CircleCheck, CircleDot } from 'lucide-react';
import { useMemo } from 'react';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card, cx } from '../../kit/index.ts';
import { describeFinding } from './describe-finding.ts';

/** What would spoil a walk, before it is rendered: where, how much, and what to do. */
export function ChecksCard({ walk }: { walk: CompiledWalk }) {
  const findings = useMemo(() => checkWalk(walk), [walk]);
  return (
    <Card title="Checks" note={findings.length === 0 ? 'fine' : `${findings.length} to look at`}>
      <ul className="grid max-h-56 gap-1.5 overflow-y-auto">
        {findings.length === 0 && (
          <li className="flex gap-2">
            <CircleCheck size={15} className="mt-0.5 shrink-0 text-moss" aria-hidden />
            There is floor all the way and nothing in it, the pace is a walk, and the eye turns calmly.
          </li>
        )}
        {findings.map((finding) => {
          const { rule, severity, at: time } = finding;
          const Icon = severity === 'problem' ? CircleAlert : CircleDot;
          return (
            <li key={`${rule} ${finding.from}`} className="flex gap-2">
              <Icon
                size={15}
                className={cx('mt-0.5 shrink-0', severity === 'problem' ? 'text-madder' : 'text-ochre')}
                aria-label={severity === 'problem' ? 'Problem' : 'Note'}
              />
              <span className="min-w-0 flex-1">{describeFinding(finding)}</span>
              {time !== null && (
                <Button
                  small
                  aria-label={`Show ${time.toFixed(1)} s`}
                  onClick={() => workbench.set({ time, playing: false, scout: null })}
                >
                  Show
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </Card>
  );
}
