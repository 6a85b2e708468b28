import { frameTime } from '@eskovan/core/reel';
import { workbench } from '../../desk/workbench.ts';
import { Card, useLengthUnit } from '../../kit/index.ts';
import { CheckLine } from '../shared/check-line.tsx';
import { describeFinding } from '../shared/describe-finding.ts';
import { chooseShot } from './edit-reel.ts';
import { reelDesk } from './reel-desk.ts';
import type { OpenReel } from './open-reel.ts';
import { useReelFacts } from './reel-facts.ts';
import { missingObjects, missingRooms } from './seen.ts';
import { carries, flowSentence, outsideText } from './words.ts';
import { memo } from 'react';

interface Line {
  key: string;
  severity: 'note' | 'problem';
  text: string;
  go: () => void;
}

/** So many are listed; more are counted. */
const LISTED = 40;

/** What the checks say of all shots and joins, each leading to where it is. */
export const ReelChecksCard = memo(function ReelChecksCard({ open }: { open: OpenReel }) {
  const { findings, joins, cover, objects, outside, current } = useReelFacts();
  const { shots, plan, rate, row } = open;
  const lengths = useLengthUnit();
  const nameOf = (id: string) => {
    const index = shots.findIndex((shot) => shot.id === id);
    return `${index + 1} ${shots[index]?.name ?? ''}`;
  };
  const goTo = (id: string, time: number) => {
    chooseShot(id);
    workbench.set({ time, playing: false });
  };
  const lines: Line[] = [
    ...plan.shots.flatMap(({ id, lost, start }): Line[] =>
      lost === null
        ? []
        : [
            {
              key: `lost ${id}`,
              severity: lost === 'gone' ? 'problem' : 'note',
              text: `${nameOf(id)}: ${lost === 'gone' ? 'what it showed is not in the project any more.' : 'its move has become shorter than the shot shows of it.'}`,
              go: () => goTo(id, frameTime(start, rate)),
            },
          ],
    ),
    ...plan.shots.slice(1).flatMap((shot): Line[] => {
      const fact = joins[shot.id];
      const go = () => {
        reelDesk.set({ join: shot.id });
        workbench.set({ time: frameTime(Math.max(0, shot.start - 1), rate), playing: false });
      };
      const name = `Join ${shot.index} → ${shot.index + 1}`;
      if (!fact) return [];
      return [
        ...(fact.through.length > 0
          ? [
              {
                key: `through ${shot.id}`,
                severity: 'problem' as const,
                text: `${name}: the blended camera goes through something solid.`,
                go,
              },
            ]
          : []),
        ...(!carries(fact.flow) && shot.join?.kind !== 'blend'
          ? [
              {
                key: `flow ${shot.id}`,
                severity: 'note' as const,
                text: `${name} ${fact.flow.word}. ${flowSentence(fact.flow)}`,
                go,
              },
            ]
          : []),
      ];
    }),
    ...findings.map(({ shot, from, finding }, i): Line => ({
      key: `${shot} ${i}`,
      severity: finding.severity,
      text: `${nameOf(shot)}: ${describeFinding(finding, lengths)}`,
      go: () => goTo(shot, from),
    })),
    ...outside.map(({ shot, from, to }): Line => ({
      key: `outside ${shot} ${from}`,
      severity: 'note',
      text: `${nameOf(shot)}: ${outsideText(to - from)}`,
      go: () => goTo(shot, from),
    })),
    ...(objects ? missingObjects(row.body.promisedObjects ?? [], objects) : []).map(({ name, there }): Line => ({
      key: `object ${name}`,
      severity: 'problem',
      text: there ? `${name} was promised and is never seen.` : `${name} was promised and is not in the site any more.`,
      go: () => {},
    })),
    ...missingRooms(row.body.promised ?? [], cover).map((name): Line => ({
      key: `promised ${name}`,
      severity: 'problem',
      text: `${name} was promised and is never seen.`,
      go: () => {},
    })),
  ];
  const problems = lines.filter(({ severity }) => severity === 'problem').length;
  const sorted = [...lines].sort((a, b) => Number(b.severity === 'problem') - Number(a.severity === 'problem'));
  return (
    <Card
      title="Checks"
      note={
        current
          ? lines.length === 0
            ? 'all fine'
            : `${problems} problems · ${lines.length - problems} notes`
          : 'looking'
      }
    >
      <ul className="grid gap-1.5" aria-label="Findings of the reel">
        {sorted.slice(0, LISTED).map(({ key, severity, text, go }) => (
          <CheckLine key={key} severity={severity}>
            <button type="button" className="min-h-6 text-left hover:underline" onClick={go}>
              {text}
            </button>
          </CheckLine>
        ))}
        {current && lines.length === 0 && (
          <CheckLine severity="fine">Paces, joins, clearances and what was promised: nothing to say.</CheckLine>
        )}
        {sorted.length > LISTED && <li className="text-ink-faint">and {sorted.length - LISTED} more</li>}
      </ul>
    </Card>
  );
});
