import { toDegrees } from '@eskovan/core/geometry';
import { turnFindings, type TurnFinding } from '@eskovan/core/check';
import type { CompiledWalk } from '@eskovan/core/move';
import { CircleAlert, CircleCheck, CircleDot } from 'lucide-react';
import { useMemo } from 'react';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card, cx } from '../../kit/index.ts';

interface Finding {
  key: string;
  severity: 'note' | 'problem';
  text: string;
  /** When it is worst, seconds. */
  time?: number;
}

/** Faster than people walk, m/s, with some room for a walk that has to arrive in time. */
const HASTE = 1.45;

const degrees = (radians: number) => Math.round(toDegrees(radians));

const ofTurn = ({ severity, from, to, worst, at }: TurnFinding): Finding => ({
  key: `turn-${from}`,
  severity,
  text:
    `The eye turns by up to ${degrees(worst)}° a second from ${from.toFixed(1)} to ${to.toFixed(1)} s` +
    (severity === 'problem' ? ', too fast to follow.' : ', faster than 30°.') +
    ' Walk slower there, round the corner, or look at something farther away.',
  time: at,
});

/** Problems first, each in the order of the walk. */
function findingsOf(walk: CompiledWalk): Finding[] {
  const speed = walk.pace.cruise;
  const findings: Finding[] = [
    ...walk.profile.gaps.map((gap): Finding => ({
      key: `gap-${gap.from}`,
      severity: 'problem',
      text: `No floor under the path from ${gap.from.toFixed(1)} to ${gap.to.toFixed(1)} m. The eye keeps its height there; lead the path over a floor.`,
    })),
    ...(speed > HASTE
      ? [
          {
            key: 'haste',
            severity: 'problem' as const,
            text: `${speed.toFixed(2)} m/s is faster than people walk (0.8 to 1.4 m/s). Give the walk more time.`,
          },
        ]
      : []),
    ...turnFindings(walk).map(ofTurn),
  ];
  const of = (wanted: Finding['severity']) => findings.filter(({ severity }) => severity === wanted);
  return [...of('problem'), ...of('note')];
}

/** What would spoil a walk, before it is rendered: where, how much, and what to do. */
export function ChecksCard({ walk }: { walk: CompiledWalk }) {
  const findings = useMemo(() => findingsOf(walk), [walk]);
  return (
    <Card title="Checks" note={findings.length === 0 ? 'fine' : `${findings.length} to look at`}>
      <ul className="grid max-h-56 gap-1.5 overflow-y-auto">
        {findings.length === 0 && (
          <li className="flex gap-2">
            <CircleCheck size={15} className="mt-0.5 shrink-0 text-moss" aria-hidden />
            There is floor all the way, the pace is a walk, and the eye turns calmly.
          </li>
        )}
        {findings.map(({ key, severity, text, time }) => {
          const Icon = severity === 'problem' ? CircleAlert : CircleDot;
          return (
            <li key={key} className="flex gap-2">
              <Icon
                size={15}
                className={cx('mt-0.5 shrink-0', severity === 'problem' ? 'text-madder' : 'text-ochre')}
                aria-label={severity === 'problem' ? 'Problem' : 'Note'}
              />
              <span className="min-w-0 flex-1">{text}</span>
              {time !== undefined && (
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
