import type { ModelBody, ModelGuess } from '@eskovan/core/document';
import { SILHOUETTE, SURE, unitName } from '@eskovan/core/site';
import { Check, TriangleAlert } from 'lucide-react';
import { useMemo } from 'react';
import { cx } from '../../kit/index.ts';

type Candidate = ModelGuess['candidates'][number];

/** A person for scale, metres. */
const PERSON = 1.75;
const PICTURE = { width: 84, height: 62 } as const;

const sizeIn = (
  { bounds }: Pick<ModelBody, 'bounds'>,
  { metresPerUnit, up }: Pick<Candidate, 'metresPerUnit' | 'up'>,
) => {
  const extent = (k: number) => (bounds.max[k]! - bounds.min[k]!) * metresPerUnit;
  return { width: extent(0), height: extent(up === 'y' ? 1 : 2) };
};

const metres = (value: number) =>
  value >= 1
    ? `${value.toFixed(value < 10 ? 1 : 0)} m`
    : value >= 0.01
      ? `${(100 * value).toFixed(0)} cm`
      : `${(1000 * value).toFixed(0)} mm`;

interface GuessedAsProps {
  body: ModelBody;
  onChoose: (choice: Pick<Candidate, 'metresPerUnit' | 'up'>) => void;
}

/** What a model is taken for, why, and how sure that is; where it is not sure, the next best as small pictures. */
export function GuessedAs({ body, onChoose }: GuessedAsProps) {
  const { guess, settled, placement } = body;
  if (!guess) return null;
  const is = ({ metresPerUnit, up }: Candidate) =>
    Math.abs(metresPerUnit / placement.metresPerUnit - 1) < 1e-6 && up === placement.up;
  const [first] = guess.candidates;
  const sure = first!.share >= SURE;
  if (settled && !guess.candidates.some(is)) return <p className="mb-1 text-ink-soft">As you have set it.</p>;
  const why = guess.candidates.find(is)?.why ?? [];
  if (settled || (sure && is(first!)))
    return (
      <p className="mb-1 flex gap-1.5 text-ink-soft">
        <Check size={15} aria-hidden className="mt-0.5 shrink-0 text-moss" />
        <span>
          {settled
            ? 'As you have set it.'
            : `${capital(unitName(placement.metresPerUnit))}, ${placement.up.toUpperCase()} up.`}{' '}
          {!settled && (why.length > 0 ? why.slice(0, 2).join(' ') : 'A size that buildings and products have.')}
        </span>
      </p>
    );
  return (
    <div className="mb-1.5">
      <p className="mb-1.5 flex gap-1.5 text-rust">
        <TriangleAlert size={15} aria-hidden className="mt-0.5 shrink-0" />
        <span>The file does not say it for sure. Which is it?</span>
      </p>
      <div className="flex gap-1.5">
        {guess.candidates.map((candidate) => (
          <button
            key={`${candidate.metresPerUnit} ${candidate.up}`}
            type="button"
            aria-pressed={is(candidate)}
            title={candidate.why.join(' ') || 'By its size alone.'}
            className={cx(
              'flex min-w-0 flex-1 flex-col items-center rounded-lg border p-1 text-sm transition-colors duration-150',
              is(candidate) ? 'border-lagoon bg-lagoon-wash' : 'border-rule bg-paper hover:border-ink-faint',
            )}
            onClick={() => onChoose({ metresPerUnit: candidate.metresPerUnit, up: candidate.up })}
          >
            <Beside body={body} candidate={candidate} silhouette={guess.silhouettes[candidate.up]} />
            <span className="mt-1 w-full truncate font-semibold">
              {unitName(candidate.metresPerUnit)}, {candidate.up.toUpperCase()} up
            </span>
            <span className="font-mono text-ink-faint">{metres(sizeIn(body, candidate).width)} wide</span>
          </button>
        ))}
      </div>
    </div>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** The model from the front beside a person, both to scale; a hand’s width or a kilometre where a person says nothing. */
function Beside({
  body,
  candidate,
  silhouette,
}: {
  body: ModelBody;
  candidate: Candidate;
  silhouette: readonly string[];
}) {
  const { width, height } = sizeIn(body, candidate);
  const path = useMemo(() => pathOf(silhouette), [silhouette]);
  const most = Math.max(width, height);
  const person = most > 0.35 && most < 60;
  const [w, h] = [person ? width + PERSON * 0.7 : width, person ? Math.max(height, PERSON) : height];
  const scale = Math.min((PICTURE.width - 6) / w, (PICTURE.height - 8) / h);
  const ground = PICTURE.height - 4;
  const cell = (most / SILHOUETTE) * scale;
  const figure = PERSON * scale;
  return (
    <svg width={PICTURE.width} height={PICTURE.height} aria-hidden className="max-w-full">
      <line x1={0} x2={PICTURE.width} y1={ground} y2={ground} stroke="var(--rule)" />
      <g transform={`translate(3 ${ground - most * scale}) scale(${cell})`}>
        <path d={path} fill="var(--ink-soft)" />
      </g>
      {person && (
        <g transform={`translate(${3 + (width + PERSON * 0.4) * scale} ${ground})`} fill="var(--rust)">
          <circle cy={-0.93 * figure} r={0.07 * figure} />
          <path
            d={`M${-0.13 * figure} ${-0.84 * figure}h${0.26 * figure}l${-0.05 * figure} ${0.84 * figure}h${-0.16 * figure}Z`}
          />
        </g>
      )}
    </svg>
  );
}

/** The rows of a silhouette as rectangles, a unit a point. */
function pathOf(rows: readonly string[]): string {
  let d = '';
  rows.forEach((row, y) => {
    const bits = [...row].map((digit) => parseInt(digit, 16).toString(2).padStart(4, '0')).join('');
    for (const run of bits.matchAll(/1+/g)) d += `M${run.index} ${y}h${run[0].length}v1.02h${-run[0].length}Z`;
  });
  return d;
}
