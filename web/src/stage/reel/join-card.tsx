import { frameTime, type Match } from '@eskovan/core/reel';
import type { Join } from '@eskovan/core/document';
import { memo, useDeferredValue, useEffect, useState } from 'react';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, Segmented } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { joinAs, setJoin } from './edit-reel.ts';
import { JoinLight } from './join-light.tsx';
import { takeMatch, tryMatch, untry } from './match.ts';
import { useReelDesk } from './reel-desk.ts';
import type { OpenReel } from './open-reel.ts';
import { useReelFacts } from './reel-facts.ts';
import type { ReelLink } from './reel-link.ts';
import { useAheadImages, type Ahead } from './use-ahead.ts';
import { useLightness } from './use-lightness.ts';
import { FLOW_COLOURS, flowSentence, joinText, matchText, noteSentence } from './words.ts';

interface JoinCardProps {
  open: OpenReel;
  /** Index of the shot that the join leads to. */
  index: number;
  link: ReelLink | null;
  ahead: Ahead | null;
}

type JoinKind = Join['kind'] | 'cut';
const KINDS: readonly { value: JoinKind; label: string }[] = [
  { value: 'cut', label: 'Cut' },
  { value: 'blend', label: 'Blend' },
  { value: 'dissolve', label: 'Dissolve' },
  { value: 'dip', label: 'Dip' },
];
/** So long an arrow is for a frame width a second, pixels. */
const ARROW = 300;

/** How two shots meet: the last and the first picture with their movement, a word for it, and what would mend it. */
export const JoinCard = memo(function JoinCard({ open, index, link, ahead }: JoinCardProps) {
  const document = useProject();
  const { keys, joins } = useReelFacts();
  const imageOf = useAheadImages(ahead);
  const { plan, shots, rate } = open;
  const [before, after] = [plan.shots[index - 1], plan.shots[index]];
  const row = shots[index];
  const [matches, setMatches] = useState<{ of: string; list: readonly Match[] | 'looking' } | null>(null);
  const [keepLength, setKeepLength] = useState(true);
  const asked = `${row?.id} ${JSON.stringify([before, after])}`;
  // While a proposal is pointed at, the shots are as it would have them; this card learns of both a moment later.
  const trying = useReelDesk((state) => state.trying);
  const tried = useDeferredValue(trying);
  useEffect(() => untry, []);
  const urls = joinFrames(open, index).map((frame) => imageOf(keys[frame]));
  const light = useLightness(urls);
  if (!before || !after || !row) return null;
  const fact = joins[row.id];
  const names = [shots[index - 1]!.name, row.name] as const;
  const kind: JoinKind = after.join?.kind ?? 'cut';
  const look = () => {
    if (!link) return;
    setMatches({ of: asked, list: 'looking' });
    void link.match(index, keepLength).then(
      (list) => setMatches((now) => (now?.of === asked ? { of: asked, list } : now)),
      () => setMatches(null),
    );
  };
  const list = matches && (matches.of === asked || trying || tried) ? matches.list : null;
  return (
    <Card title={`Join ${index} → ${index + 1}`} note={joinText(after.join, after.overlap, rate)}>
      <div className="grid grid-cols-2 gap-2">
        {urls.map((url, i) => (
          <figure key={i}>
            <div
              className="overflow-hidden rounded-md bg-surround"
              style={{ aspectRatio: open.aspect, maxHeight: 120 }}
            >
              {url && (
                <img
                  src={url}
                  alt={i === 0 ? `Last of ${names[0]}` : `First of ${names[1]}`}
                  className="h-full w-full object-contain"
                />
              )}
            </div>
            <Arrow
              speed={fact ? (i === 0 ? fact.flow.before : fact.flow.after) : 0}
              colour={fact && i === 1 ? FLOW_COLOURS[fact.flow.word] : 'var(--lagoon)'}
              back={i === 1 && fact?.flow.word === 'turns back'}
            />
          </figure>
        ))}
      </div>
      {fact ? (
        <p className="mt-1">
          <b style={{ color: FLOW_COLOURS[fact.flow.word] }}>{fact.flow.word}</b>{' '}
          <span
            className="font-mono text-sm"
            data-testid="join-flow"
            data-before={fact.flow.before}
            data-after={fact.flow.after}
          >
            {fact.flow.before.toFixed(2)} → {fact.flow.after.toFixed(2)}
          </span>{' '}
          <span className="text-ink-soft">frame widths a second</span>
          <span className="block text-sm text-ink-faint">{flowSentence(fact.flow).split(':')[0]}.</span>
        </p>
      ) : (
        <p className="mt-1 text-ink-faint">Looking how the pictures move…</p>
      )}
      {fact?.notes.map((note) => (
        <p key={note.kind} className="mt-1 text-sm text-ink-soft">
          {noteSentence(note)}
        </p>
      ))}
      <JoinLight open={open} index={index} light={light} />
      {fact && fact.through.length > 0 && (
        <p role="status" className="mt-1 text-madder">
          The blended camera goes through something solid. Dissolve instead, or lead one of the moves nearer to the
          other.
        </p>
      )}
      <Segmented
        className="mt-2"
        label="How they are joined"
        value={kind}
        options={KINDS}
        onChange={(next) => joinAs(open, row, next)}
      />
      {row.body.join && (
        <TimeField
          label="Takes"
          value={row.body.join.seconds}
          step={0.1}
          min={0.04}
          max={60}
          onChange={(seconds) => setJoin(open, row, { ...row.body.join!, seconds })}
        />
      )}
      {row.body.join &&
        row.body.join.kind !== 'dip' &&
        frameTime(after.overlap, rate) < row.body.join.seconds - frameTime(1, rate) && (
          <p className="text-sm text-ink-faint">
            The shots are too short for more than {frameTime(after.overlap, rate).toFixed(2)} s.
          </p>
        )}
      {row.body.join?.kind === 'dip' && (
        <Segmented
          label="Dips to"
          value={row.body.join.to ?? 'black'}
          options={[
            { value: 'black', label: 'Black' },
            { value: 'paper', label: 'Paper' },
          ]}
          onChange={(to) => setJoin(open, row, { ...row.body.join!, to })}
        />
      )}
      <div className="mt-2 flex items-center gap-2">
        <Button tone="primary" small disabled={!link || !fact || list === 'looking'} onClick={look}>
          {list === 'looking' ? 'Looking…' : 'Match…'}
        </Button>
        <label className="flex min-h-7 items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            checked={keepLength}
            onChange={(event) => (setKeepLength(event.target.checked), setMatches(null))}
          />
          keep the reel’s length
        </label>
      </div>
      {list !== null && list !== 'looking' && (
        <ul className="mt-1.5 grid gap-1" aria-label="What would match">
          {list.length === 0 && (
            <li className="text-ink-soft">
              {keepLength
                ? 'Nothing that keeps the reel as long as it is carries better. Try without that, or blend.'
                : 'Nothing carries better than this. A blend or a dissolve would hide it.'}
            </li>
          )}
          {list.slice(0, 6).map((match) => (
            <li key={match.kind}>
              <button
                type="button"
                className="grid w-full rounded-md border border-rule bg-raised px-2 py-1 text-left hover:border-lagoon"
                onPointerEnter={() => tryMatch(document, open, index, match)}
                onPointerLeave={untry}
                onFocus={() => tryMatch(document, open, index, match)}
                onBlur={untry}
                onClick={() => {
                  takeMatch(document, open, index, match);
                  setMatches(null);
                }}
              >
                <span className="min-w-0">{matchText(match, names, rate)}</span>
                <span className="font-mono text-sm" style={{ color: FLOW_COLOURS[match.flow.word] }}>
                  {match.flow.word} {(match.flow.score * 100).toFixed(0)}
                  {match.beside < -0.05 && (
                    <span className="text-ink-faint"> · beside it −{(-match.beside * 100).toFixed(0)}</span>
                  )}
                  {match.longer !== 0 && (
                    <span className="text-ink-faint">
                      {' '}
                      {match.longer > 0 ? '+' : '−'}
                      {frameTime(Math.abs(match.longer), rate).toFixed(1)} s
                    </span>
                  )}
                </span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </Card>
  );
});

/** The last frame before a join and the first after it, without what they share. @param index of the shot that it leads to */
export function joinFrames(open: OpenReel | null, index: number): number[] {
  const [before, after] = [open?.plan.shots[index - 1], open?.plan.shots[index]];
  if (!open || !before || !after) return [];
  const last = before.start + before.frames - 1 - after.overlap;
  return [last, after.start + after.overlap].map((frame) => Math.max(0, Math.min(open.plan.frames - 1, frame)));
}

/** How fast, as long as it is. */
function Arrow({ speed, colour, back }: { speed: number; colour: string; back: boolean }) {
  const length = Math.min(118, Math.max(speed > 0.005 ? 9 : 0, speed * ARROW));
  return (
    <svg width="100%" height="16" viewBox="0 0 128 16" preserveAspectRatio="xMidYMid meet" aria-hidden>
      {length === 0 ? (
        <circle cx="64" cy="8" r="2.5" fill={colour} />
      ) : (
        <g
          transform={`translate(64 8) scale(${back ? -1 : 1} 1)`}
          stroke={colour}
          strokeWidth="2.2"
          fill="none"
          strokeLinecap="round"
        >
          <path d={`M${-length / 2} 0H${length / 2}m-6 -5l6 5l-6 5`} />
        </g>
      )}
    </svg>
  );
}
