import type { Rate, Row } from '@eskovan/core/document';
import type { PlannedShot } from '@eskovan/core/reel';
import { Film, Image as ImageIcon, TriangleAlert, Type } from 'lucide-react';
import { memo, type KeyboardEvent, type PointerEvent } from 'react';
import { useProject } from '../../data/use-project.ts';
import type { How } from '../../desk/selection.ts';
import { cx } from '../../kit/index.ts';
import { KIND_LOOKS } from '../shared/kind-look.tsx';
import { lengthText } from './words.ts';

interface ShotBlockProps {
  row: Row<'shot'>;
  planned: PlannedShot;
  left: number;
  width: number;
  height: number;
  rate: Rate;
  aspect: number;
  chosen: boolean;
  /** Others who have it chosen. */
  people: readonly string[];
  keys: readonly string[];
  imageOf: (key: string | undefined) => string | null;
  onOpen: (row: Row<'shot'>) => void;
  onDown: (event: PointerEvent, row: Row<'shot'>) => void;
  onMove: (event: PointerEvent) => void;
  onUp: (event: PointerEvent, row: Row<'shot'>) => void;
  onEdgeDown: (event: PointerEvent, edge: 'start' | 'end') => void;
  onEdgeMove: (event: PointerEvent) => void;
  onEdgeUp: () => void;
  /** Goes to the shot so many further. */
  onGo: (by: number, how: How) => void;
}

/** The line with the name below the pictures, pixels. */
const NAME = 20;

/** Frames of the reel that stand for a shot in a strip so wide: one where each small picture begins. */
export function stripFramesOf(
  { start, frames, overlap }: PlannedShot,
  width: number,
  height: number,
  aspect: number,
): number[] {
  const pictureWidth = Math.max(12, (height - NAME) * aspect);
  const count = Math.max(1, Math.ceil((width - 2) / pictureWidth));
  return Array.from({ length: count }, (_, i) => {
    // The middle of what each small picture covers; a first one shows what is there when the shot is on alone.
    const part = Math.min(1, ((i + 0.5) * pictureWidth) / Math.max(width, pictureWidth));
    return Math.min(start + frames - 1, Math.max(start + overlap, start + Math.floor(part * frames)));
  });
}

/** One shot of the strip. */
export const ShotBlock = memo(function ShotBlock(props: ShotBlockProps) {
  const { row, planned, left, width, height, rate, aspect, chosen, people, keys, imageOf } = props;
  const frames = stripFramesOf(planned, width, height, aspect);
  const pictureWidth = (height - NAME) * aspect;
  const number = planned.index + 1;
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by !== undefined) props.onGo(by, event.shiftKey ? 'range' : 'only');
    else if (event.key === 'Enter') props.onOpen(row);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const edge = (which: 'start' | 'end') => (
    <span
      data-edge={which}
      className={cx(
        'absolute inset-y-0 z-10 w-2 cursor-ew-resize opacity-0 hover:opacity-100',
        which === 'start' ? 'left-0 border-l-4 border-lagoon' : 'right-0 border-r-4 border-lagoon',
      )}
      onPointerDown={(event) => props.onEdgeDown(event, which)}
      onPointerMove={props.onEdgeMove}
      onPointerUp={props.onEdgeUp}
      onPointerCancel={props.onEdgeUp}
    />
  );
  return (
    <div role="listitem" className="absolute inset-y-0 px-px" style={{ left, width }}>
      <div
        role="button"
        tabIndex={chosen || number === 1 ? 0 : -1}
        data-shot={row.id}
        aria-pressed={chosen}
        aria-label={`Shot ${number}, ${row.name}, ${lengthText(planned.frames, rate)}${people.length > 0 ? `, ${people.join(', ')} here` : ''}`}
        title={`${row.name} · ${lengthText(planned.frames, rate)}`}
        className={cx(
          'relative flex h-full cursor-grab flex-col overflow-hidden rounded-[7px] border bg-paper text-left outline-offset-0 active:cursor-grabbing',
          chosen ? 'border-lagoon ring-2 ring-lagoon' : 'border-rule hover:border-ink-faint',
          planned.lost === 'gone' && 'border-madder',
        )}
        onPointerDown={(event) => props.onDown(event, row)}
        onPointerMove={props.onMove}
        onPointerUp={(event) => props.onUp(event, row)}
        onDoubleClick={() => props.onOpen(row)}
        onKeyDown={onKeyDown}
      >
        <span className="pointer-events-none flex overflow-hidden bg-surround-raised" style={{ height: height - NAME }}>
          {frames.map((frame, i) => (
            <Picture key={i} url={imageOf(keys[frame])} width={pictureWidth} />
          ))}
        </span>
        <span className="pointer-events-none flex min-w-0 items-center gap-1 px-1.5 text-sm leading-[19px]">
          <b className="font-semibold text-ink-faint">{number}</b>
          <UseMark row={row} />
          <span className="truncate">{row.name}</span>
          {planned.lost && (
            <TriangleAlert size={12} className="ml-auto shrink-0 text-madder" aria-label="Something is missing" />
          )}
        </span>
        {people.length > 0 && (
          <span className="pointer-events-none absolute top-1 right-1 rounded bg-plum px-1 text-xs font-semibold text-paper">
            {people[0]}
            {people.length > 1 && ` +${people.length - 1}`}
          </span>
        )}
      </div>
      {edge('start')}
      {edge('end')}
    </div>
  );
});

function Picture({ url, width }: { url: string | null; width: number }) {
  return (
    <span className="h-full shrink-0 border-r border-surround/30" style={{ width }}>
      {url && <img src={url} alt="" draggable={false} className="h-full w-full object-cover" />}
    </span>
  );
}

/** The mark of what a shot uses. */
function UseMark({ row: { body } }: { row: Row<'shot'> }) {
  const { move } = useProject();
  const { use } = body;
  if (use.kind === 'title') return <Type size={12} className="shrink-0 text-ink-faint" aria-hidden />;
  if (use.kind === 'picture') return <Film size={12} className="shrink-0 text-ink-faint" aria-hidden />;
  if (use.kind === 'view') return <ImageIcon size={12} className="shrink-0 text-ink-faint" aria-hidden />;
  const kind = move.find(({ id }) => id === use.move)?.body.kind;
  if (!kind) return null;
  const { Mark } = KIND_LOOKS[kind];
  return (
    <span className="shrink-0">
      <Mark size={14} />
    </span>
  );
}
