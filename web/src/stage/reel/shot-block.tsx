import type { MoveBody, Rate, Row } from '@eskovan/core/document';
import type { PlannedShot } from '@eskovan/core/reel';
import { FileImage, Film, Image as ImageIcon, Link2, TriangleAlert, Type } from 'lucide-react';
import { memo, type KeyboardEvent, type PointerEvent } from 'react';
import { shallow } from 'zustand/shallow';
import type { How } from '../../desk/selection.ts';
import { cx } from '../../kit/index.ts';
import type { useDrag } from '../../strips/use-drag.ts';
import { KIND_LOOKS } from '../shared/kind-look.tsx';
import { lengthText } from './words.ts';

/** The frames that stand for a shot in the strip: their pictures, as far as they are drawn; null while they are not. */
export type ShotPictures = readonly (string | null)[];

interface ShotBlockProps {
  row: Row<'shot'>;
  /** Of the move that it uses; null where it uses none, or one that is gone. */
  kind: MoveBody['kind'] | null;
  /** Its place in the order, from 0, and how long it is, frames. Where it lies in the strip is a matter of who shows it. */
  index: number;
  frames: number;
  lost: PlannedShot['lost'];
  pictures: ShotPictures;
  width: number;
  height: number;
  rate: Rate;
  aspect: number;
  chosen: boolean;
  /** Others who have it chosen. */
  people: readonly string[];
  hands: ShotHands;
}

/** What hands do with shots. */
export interface ShotHands {
  onOpen: (row: Row<'shot'>) => void;
  onDown: (event: PointerEvent, row: Row<'shot'>) => void;
  onMove: (event: PointerEvent) => void;
  onUp: (event: PointerEvent, row: Row<'shot'>) => void;
  onEdgeDown: (event: PointerEvent, index: number, edge: 'start' | 'end') => void;
  edgeHands: ReturnType<typeof useDrag>['hands'];
  /** Goes from the shot at a place to the one so many further. */
  onGo: (index: number, by: number, how: How) => void;
}

/** An edge to take hold of, and the narrowest shot that has some, pixels. */
const EDGE = 8;
const LEAST_WITH_EDGES = 14;
/** The narrowest with more below its pictures than its number, pixels. */
const LEAST_WITH_MARK = 40;
export const isNarrow = (width: number): boolean => width < LEAST_WITH_EDGES;
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

/** One shot of the strip. It is drawn again only when something of its own changes, however many there are. */
export const ShotBlock = memo(function ShotBlock(props: ShotBlockProps) {
  const { row, index, frames, lost, pictures, width, height, rate, chosen, people, hands } = props;
  const number = index + 1;
  const narrow = isNarrow(width);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by !== undefined) hands.onGo(index, by, event.shiftKey ? 'range' : 'only');
    else if (event.key === 'Enter') hands.onOpen(row);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const edge = (which: 'start' | 'end') => (
    <span
      data-edge={which}
      className={cx(
        'absolute inset-y-0 z-10 cursor-ew-resize border-transparent hover:border-lagoon',
        which === 'start' ? 'left-0 border-l-4' : 'right-0 border-r-4',
      )}
      style={{ width: Math.min(EDGE, width / 4) }}
      onPointerDown={(event) => hands.onEdgeDown(event, index, which)}
      {...hands.edgeHands}
    />
  );
  return (
    <>
      <div
        role="button"
        tabIndex={chosen || number === 1 ? 0 : -1}
        data-shot={row.id}
        aria-pressed={chosen}
        aria-label={`Shot ${number}, ${row.name}, ${lengthText(frames, rate)}${row.body.group ? `, in ${row.body.group}` : ''}${people.length > 0 ? `, ${people.join(', ')} here` : ''}`}
        title={[row.name, lengthText(frames, rate), ...(row.body.group ? [row.body.group] : [])].join(' · ')}
        className={cx(
          'h-full cursor-grab bg-paper text-left outline-offset-0 active:cursor-grabbing',
          !narrow && 'relative flex flex-col overflow-hidden rounded-[7px] border',
          chosen ? 'border-lagoon ring-2 ring-lagoon' : 'border-rule hover:border-ink-faint',
          lost === 'gone' && 'border-madder',
        )}
        onPointerDown={(event) => hands.onDown(event, row)}
        onPointerMove={hands.onMove}
        onPointerUp={(event) => hands.onUp(event, row)}
        onDoubleClick={() => hands.onOpen(row)}
        onKeyDown={onKeyDown}
      >
        {narrow ? (
          <Slice url={pictures[0] ?? null} height={height - NAME} taken={people.length > 0} />
        ) : (
          <Faces {...props} />
        )}
      </div>
      {/* A shot too narrow for that is there to be chosen; closer by, its edges are there. */}
      {!narrow && edge('start')}
      {!narrow && edge('end')}
    </>
  );
}, isSame);

/** Its pictures, its name, and who is there. */
function Faces({ row, kind, index, lost, pictures, width, height, aspect, people }: ShotBlockProps) {
  const pictureWidth = (height - NAME) * aspect;
  return (
    <>
      <span className="pointer-events-none flex overflow-hidden bg-surround-raised" style={{ height: height - NAME }}>
        {pictures.map((url, i) => (
          <Picture key={i} url={url} width={pictureWidth} />
        ))}
      </span>
      <span
        className={cx(
          'pointer-events-none flex min-w-0 items-center gap-1 text-sm leading-[19px]',
          width < LEAST_WITH_MARK ? 'justify-center' : 'px-1.5',
        )}
      >
        <b className="font-semibold text-ink-faint">{index + 1}</b>
        {width >= LEAST_WITH_MARK && <UseMark use={row.body.use} kind={kind} />}
        <span className="truncate">{row.name}</span>
        {row.body.group && <Link2 size={12} className="ml-auto shrink-0 text-lagoon" aria-hidden />}
        {lost && <TriangleAlert size={12} className="ml-auto shrink-0 text-madder" aria-label="Something is missing" />}
      </span>
      {people.length > 0 && (
        <span className="pointer-events-none absolute top-1 right-1 rounded bg-plum px-1 text-xs font-semibold text-paper">
          {people[0]}
          {people.length > 1 && ` +${people.length - 1}`}
        </span>
      )}
    </>
  );
}

/**
 * Of a shot that has no room for more a slice of its picture. Hundreds of these lie in a strip: nothing in them is cut off
 * or rounded, for each such edge is a layer of its own to the browser.
 */
function Slice({ url, height, taken }: { url: string | null; height: number; taken: boolean }) {
  return (
    <span
      className={cx(
        'pointer-events-none block bg-surround-raised bg-cover bg-center',
        taken && 'border-b-4 border-plum',
      )}
      style={{ height, ...(url && { backgroundImage: `url("${url}")` }) }}
    />
  );
}

/** Lists of pictures are compared by what is in them. */
function isSame(one: ShotBlockProps, other: ShotBlockProps): boolean {
  const names = Object.keys(one) as (keyof ShotBlockProps)[];
  return names.every((name) =>
    name === 'pictures' ? shallow(one[name], other[name]) : Object.is(one[name], other[name]),
  );
}

function Picture({ url, width }: { url: string | null; width: number }) {
  return (
    <span className="h-full shrink-0 border-r border-surround/30" style={{ width }}>
      {url && <img src={url} alt="" draggable={false} className="h-full w-full object-cover" />}
    </span>
  );
}

/** The mark of what a shot uses. */
function UseMark({ use, kind }: { use: Row<'shot'>['body']['use']; kind: MoveBody['kind'] | null }) {
  if (use.kind === 'title') return <Type size={12} className="shrink-0 text-ink-faint" aria-hidden />;
  if (use.kind === 'picture') return <FileImage size={12} className="shrink-0 text-ink-faint" aria-hidden />;
  if (use.kind === 'clip') return <Film size={12} className="shrink-0 text-ink-faint" aria-hidden />;
  if (use.kind === 'view') return <ImageIcon size={12} className="shrink-0 text-ink-faint" aria-hidden />;
  if (!kind) return null;
  const { Mark } = KIND_LOOKS[kind];
  return (
    <span className="shrink-0">
      <Mark size={14} />
    </span>
  );
}
