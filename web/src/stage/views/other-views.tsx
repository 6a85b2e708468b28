import { aspectOf, frameOf, type Row, type Vec3 } from '@eskovan/core/document';
import { fieldLines, lineInPicture, type PictureLine, type SceneLine } from '@eskovan/core/framing';
import type { CameraSample } from '@eskovan/core/move';
import { Projection, throughLens } from '@eskovan/core/optics';
import type { Footing } from '@eskovan/core/survey';
import { memo, useMemo } from 'react';
import { useProject } from '../../data/use-project.ts';
import { howOf, type How } from '../../desk/selection.ts';
import { cx, useLengthUnit, useStable } from '../../kit/index.ts';

interface OtherViewsProps {
  views: readonly Row<'view'>[];
  /** The one that is shown, or scouted away from. */
  row: Row<'view'> | null;
  /** Is the eye where that one is? Then it is not seen. */
  atView: boolean;
  sample: CameraSample;
  /** Width over height of the picture. */
  aspect: number;
  solids: Footing['solids'] | null;
  onPress: (id: string, how: How) => void;
}

/** What a view sees is drawn up to what is in its middle, and no further than this, metres: of the chosen one, and of others. */
const FARTHEST = { chosen: 6, other: 0.9 };
const NEAREST = 0.05;
/** So many views are shown at most: the nearest. */
const MOST_SHOWN = 40;
/** What is hidden of a line is told apart in so many pieces. */
const PIECES = 8;

/** The other views in the picture: where their eyes are, and what they see, fainter where something is in front of it. */
export function OtherViews({ views, row, atView, sample, aspect, solids, onPress }: OtherViewsProps) {
  const { body } = useProject().project;
  const picture = useMemo(
    () => new Projection(sample.view, aspect, sample.position, sample.orientation),
    [sample, aspect],
  );
  const press = useStable(onPress);
  const away = ({ body: { pose } }: Row<'view'>) => Math.hypot(...pose.position.map((v, k) => v - sample.position[k]!));
  const shown = views
    .map((view, i) => ({ view, label: String(i + 1), away: away(view) }))
    .filter(({ view }) => view.id !== row?.id || !atView)
    .sort((a, b) => a.away - b.away)
    .slice(0, MOST_SHOWN);
  return (
    <div data-testid="other-views" className="absolute inset-0">
      {shown.map(({ view, label }) => (
        <OtherView
          key={view.id}
          {...{ view, label, picture, solids }}
          chosen={view.id === row?.id}
          aspect={aspectOf({ frame: frameOf(view.body, body) })}
          onPress={press}
        />
      ))}
    </div>
  );
}

interface OtherViewProps {
  view: Row<'view'>;
  label: string;
  chosen: boolean;
  /** Width over height of its own picture. */
  aspect: number;
  picture: Projection;
  solids: Footing['solids'] | null;
  onPress: (id: string, how: How) => void;
}

const OtherView = memo(function OtherView({ view, label, chosen, aspect, picture, solids, onPress }: OtherViewProps) {
  const { pose, lens } = view.body;
  const { steps } = useLengthUnit();
  const field = useMemo(() => {
    const camera = new Projection(throughLens(lens), aspect, pose.position, pose.orientation);
    const { from, direction } = camera.ray(0, 0);
    const most = steps * (chosen ? FARTHEST.chosen : FARTHEST.other);
    const met = solids?.first(from, direction, most)?.distance ?? most;
    return fieldLines(camera, Math.max(NEAREST * steps, met * camera.alongAxes(direction)[2] * 0.98));
  }, [pose, lens, aspect, solids, chosen, steps]);
  const lines = useMemo(() => field.flatMap((line) => seenPieces(line, picture, solids)), [field, picture, solids]);
  const { x, y, depth } = picture.project(pose.position);
  const isThere = (depth > NEAREST * steps || picture.view.kind === 'parallel') && Math.abs(x) <= 1 && Math.abs(y) <= 1;
  return (
    <>
      <svg className="absolute inset-0 h-full w-full" viewBox="-1 -1 2 2" preserveAspectRatio="none" aria-hidden>
        <g stroke={chosen ? 'var(--ochre)' : 'white'} strokeWidth={chosen ? 2 : 1.25}>
          {lines.map(({ line: [[x1, y1], [x2, y2]], hidden }) => (
            <line
              key={`${x1} ${y1} ${x2} ${y2}`}
              {...{ x1, x2 }}
              y1={-y1}
              y2={-y2}
              strokeOpacity={hidden ? 0.25 : 0.85}
              vectorEffect="non-scaling-stroke"
            />
          ))}
        </g>
      </svg>
      {isThere && (
        <button
          type="button"
          aria-label={`Go to ${view.name}`}
          title={view.name}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={(event) => onPress(view.id, howOf(event))}
          className={cx(
            'pointer-events-auto absolute -translate-x-1/2 -translate-y-1/2 rounded-full border px-1.5 font-mono text-xs',
            chosen ? 'border-ochre bg-ochre text-ink' : 'border-white/80 bg-surround text-surround-ink',
          )}
          style={{ left: `${50 * (x + 1)}%`, top: `${50 * (1 - y)}%` }}
        >
          {label}
        </button>
      )}
    </>
  );
});

/** A line in the picture, in pieces that are seen or hidden. */
function seenPieces(
  [from, to]: SceneLine,
  picture: Projection,
  solids: Footing['solids'] | null,
): { line: PictureLine; hidden: boolean }[] {
  const at = (part: number) => from.map((value, k) => value + (to[k]! - value) * part) as Vec3;
  const pieces: { line: PictureLine; hidden: boolean }[] = [];
  let begun = 0;
  let before: boolean | null = null;
  const end = (part: number, hidden: boolean) => {
    const line = lineInPicture(picture, [at(begun), at(part)]);
    if (line) pieces.push({ line, hidden });
    begun = part;
  };
  for (let i = 0; i < PIECES; i += 1) {
    const middle = at((i + 0.5) / PIECES);
    const hidden = solids !== null && picture.view.kind === 'lens' && solids.meets(picture.position, middle);
    if (before !== null && hidden !== before) end(i / PIECES, before);
    before = hidden;
  }
  end(1, before!);
  return pieces;
}
