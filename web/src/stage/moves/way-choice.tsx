import { roomsOnWay, type FoundWay } from '@eskovan/core/wayfind';
import { PlanCurve } from '@eskovan/core/path';
import { storeyOfEye } from '@eskovan/core/survey';
import { useMemo, useState } from 'react';
import { useProject } from '../../data/use-project.ts';
import { cx } from '../../kit/index.ts';
import { chainToSvg } from '../../plan/path-layer.tsx';
import { Plan, usePlan } from '../../plan/plan.tsx';
import type { SiteData } from '../../site/use-site.ts';

interface WayChoiceProps {
  ways: readonly FoundWay[];
  /** Index of the one that is chosen. */
  chosen: number;
  choose: (index: number) => void;
  site: SiteData;
}

/** So much of what is around ways is shown, metres. */
const AROUND = 2;

/** Ways through the same places, on the plan and in words: one of them is chosen. */
export function WayChoice({ ways, chosen, choose, site }: WayChoiceProps) {
  const { project } = useProject();
  const { eyeHeight } = project.body;
  const { survey } = site;
  const way = ways[chosen] ?? ways[0]!;
  const [shown, setShown] = useState<number | null>(null);
  const begins = storeyOfEye(way.path.nodes[0]!.y + eyeHeight, survey.storeys);
  const whole = useMemo(() => {
    const nodes = ways.flatMap(({ path }) => path.nodes);
    const [xs, zs] = [nodes.map(({ x }) => x), nodes.map(({ z }) => z)];
    return {
      minX: Math.min(...xs) - AROUND,
      maxX: Math.max(...xs) + AROUND,
      minZ: Math.min(...zs) - AROUND,
      maxZ: Math.max(...zs) + AROUND,
    };
  }, [ways]);
  return (
    <div className="grid content-start gap-2">
      <div className="h-52 overflow-hidden rounded-lg border border-rule">
        <Plan
          compact
          survey={survey}
          storey={shown ?? begins}
          onStorey={setShown}
          label="Plan of the way"
          north={project.body.sun.north}
          whole={whole}
        >
          {ways.map((one, i) => i !== chosen && <WayLine key={i} way={one} onPress={() => choose(i)} />)}
          <WayLine way={way} chosen />
        </Plan>
      </div>
      {ways.length > 1 && (
        <ul aria-label="Ways" className="grid gap-1">
          {ways.map((one, i) => (
            <li key={i}>
              <button
                type="button"
                aria-pressed={i === chosen}
                onClick={() => choose(i)}
                className={cx(
                  'flex w-full items-baseline gap-2 rounded-lg border px-2 py-1 text-left',
                  i === chosen ? 'border-lagoon bg-raised' : 'border-rule hover:border-ink-faint',
                )}
              >
                <span className="w-14 shrink-0 font-mono">{one.length.toFixed(1)} m</span>
                <span className="min-w-0 flex-1 truncate text-ink-soft">
                  {roomsOnWay(one.path, survey.storeys, eyeHeight).join(', ') || 'outdoors'}
                </span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function WayLine({ way, chosen, onPress }: { way: FoundWay; chosen?: boolean; onPress?: () => void }) {
  const { scale } = usePlan();
  const d = useMemo(() => chainToSvg(new PlanCurve(way.path).chain), [way]);
  const line = { d, fill: 'none', vectorEffect: 'non-scaling-stroke', strokeLinecap: 'round' } as const;
  return (
    <>
      {chosen && <path {...line} stroke="var(--paper)" strokeWidth={6} />}
      <path
        {...line}
        stroke={chosen ? 'var(--lagoon)' : 'var(--ink-faint)'}
        strokeWidth={chosen ? 2.5 : 2}
        {...(!chosen && { strokeDasharray: '5 4' })}
        data-testid={chosen ? 'chosen-way' : 'other-way'}
      />
      {onPress && (
        <path
          {...line}
          stroke="transparent"
          strokeWidth={12}
          style={{ cursor: 'pointer' }}
          onPointerDown={(event) => {
            event.stopPropagation();
            onPress();
          }}
        />
      )}
      {chosen &&
        way.stops.map((node) => {
          const { x, z } = way.path.nodes[node]!;
          return (
            <circle
              key={node}
              cx={x}
              cy={z}
              r={5 / scale}
              fill="var(--paper)"
              stroke="var(--lagoon)"
              strokeWidth={2 / scale}
            />
          );
        })}
    </>
  );
}
