import type { StillFinding } from '@eskovan/core/check';
import { CircleAlert, CircleCheck, CircleDot } from 'lucide-react';
import { Button, Card, cx } from '../../kit/index.ts';
import { describeStill } from './describe-still.ts';
import { scoutAs } from './use-seen.ts';

/** What would spoil a still. What mends it is looked at first: nothing kept changes by it. */
export function StillChecksCard({ findings }: { findings: readonly StillFinding[] }) {
  return (
    <Card title="Checks" note={findings.length === 0 ? 'fine' : `${findings.length} to look at`}>
      <ul className="grid gap-1.5">
        {findings.length === 0 && (
          <li className="flex gap-2">
            <CircleCheck size={15} className="mt-0.5 shrink-0 text-moss" aria-hidden />
            Level, upright, and nothing in the way.
          </li>
        )}
        {findings.map((finding) => {
          const { rule, severity, fix } = finding;
          const Icon = severity === 'problem' ? CircleAlert : CircleDot;
          const { says, mend } = describeStill(finding);
          return (
            <li key={rule} className="flex gap-2">
              <Icon
                size={15}
                className={cx('mt-0.5 shrink-0', severity === 'problem' ? 'text-madder' : 'text-ochre')}
                aria-label={severity === 'problem' ? 'Problem' : 'Note'}
              />
              <span className="grid min-w-0 flex-1 gap-1">
                {says}
                {fix && (
                  <Button small className="justify-self-start" onClick={() => scoutAs(fix)}>
                    {mend}
                  </Button>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </Card>
  );
}
