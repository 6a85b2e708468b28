import type { StillFinding } from '@eskovan/core/check';
import { Button, Card, useLengthUnit } from '../../kit/index.ts';
import { CheckLine } from '../shared/check-line.tsx';
import { describeStill } from './describe-still.ts';
import { scoutAs } from './use-seen.ts';

/** What would spoil a still. What mends it is looked at first: nothing kept changes by it. */
export function StillChecksCard({ findings }: { findings: readonly StillFinding[] }) {
  const lengths = useLengthUnit();
  return (
    <Card title="Checks" note={findings.length === 0 ? 'fine' : `${findings.length} to look at`}>
      <ul className="grid gap-1.5">
        {findings.length === 0 && <CheckLine severity="fine">Level, and nothing in the way.</CheckLine>}
        {findings.map((finding) => {
          const { rule, severity, fix } = finding;
          const { says, mend } = describeStill(finding, lengths);
          return (
            <CheckLine key={rule} severity={severity}>
              <span className="grid min-w-0 flex-1 gap-1">
                {says}
                {fix && (
                  <Button small className="justify-self-start" onClick={() => scoutAs(fix)}>
                    {mend}
                  </Button>
                )}
              </span>
            </CheckLine>
          );
        })}
      </ul>
    </Card>
  );
}
