import type { Row } from '@eskovan/core/document';
import { frameTime, type PlannedShot } from '@eskovan/core/reel';
import { nearestBeat } from '@eskovan/core/sound';
import { useMemo, useRef, useState, type DragEvent, type PointerEvent } from 'react';
import { useProject } from '../../data/use-project.ts';
import { howOf, useChosenRows, type How } from '../../desk/selection.ts';
import { useStable } from '../../kit/index.ts';
import type { StripScale } from '../../strips/scales.ts';
import { useDrag } from '../../strips/use-drag.ts';
import { beatsInReel } from './beats.ts';
import { addShots, chooseShot, moveShots, reelNow, rollCut, trimShot } from './edit-reel.ts';
import { editedShot, type OpenReel } from './open-reel.ts';
import { DRAGGED, readDragged } from './dragged.ts';
import { withGroup } from './group-shots.ts';
import { FilmStretch, stretchesOf, type PlacedBlock } from './film-stretch.tsx';
import { joinLook } from './join-handle.tsx';
import { useReelDesk } from './reel-desk.ts';
import { keyInShot, type JoinFact } from './reel-facts.ts';
import { stripFramesOf, type ShotHands } from './shot-block.tsx';
import { useSoundFact } from './sound-facts.ts';
import type { ShotPeople } from './use-shot-people.ts';

interface FilmStripProps {
  open: OpenReel;
  scale: StripScale;
  top: number;
  height: number;
  /** Names of the frames of each shot. */
  named: ReadonlyMap<string, readonly string[]>;
  joins: Readonly<Record<string, JoinFact>>;
  imageOf: (key: string | undefined) => string | null;
  people: ShotPeople;
  onOpen: (row: Row<'shot'>) => void;
}

/** An edge that is dragged, and the reel as it was then. */
interface HeldEdge {
  index: number;
  edge: 'start' | 'end';
  from: OpenReel;
}

/** A hand that goes less far moves nothing, pixels. */
const STILL = 4;

/** Where in the order a place in the strip is: before the shot whose middle comes after it. */
function placeAt(open: OpenReel, scale: StripScale, x: number): number {
  const after = open.plan.shots.findIndex((shot) => scale.x(frameTime(shot.start + shot.frames / 2, open.rate)) > x);
  return after < 0 ? open.shots.length : after;
}

const edgeX = (open: OpenReel, scale: StripScale, place: number): number => {
  const shot = open.plan.shots[place];
  return scale.x(frameTime(shot ? shot.start + shot.overlap / 2 : open.plan.frames, open.rate));
};

/**
 * The shots as a strip of film: as wide as they are long, dragged to other places, trimmed by their edges; and under them
 * how each meets the next.
 */
export function FilmStrip({ open, scale, top, height, named, joins, imageOf, people, onOpen }: FilmStripProps) {
  const { move, view } = useProject();
  const chosen = useChosenRows('shot');
  const join = useReelDesk((state) => state.join);
  const kinds = useMemo(() => new Map(move.map(({ id, body }) => [id, body.kind])), [move]);
  const box = useRef<HTMLDivElement>(null);
  const [drop, setDrop] = useState<number | null>(null);
  const hold = useRef<{ x: number; ids: readonly string[]; moved: boolean } | null>(null);
  const order = open.shots.map(({ id }) => id);
  const xIn = (clientX: number) => clientX - box.current!.getBoundingClientRect().left;
  const framesFor = (pixels: number) =>
    Math.round((scale.timeAt(scale.x(0) + Math.abs(pixels)) * open.rate.num) / open.rate.den) * Math.sign(pixels);

  const onDown = useStable((event: PointerEvent, row: Row<'shot'>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const ids = withGroup(open, chosen.ids.includes(row.id) ? chosen.ids : [row.id]);
    hold.current = { x: event.clientX, ids, moved: false };
  });
  const onMove = useStable((event: PointerEvent) => {
    const held = hold.current;
    if (!held || Math.abs(event.clientX - held.x) < STILL) return;
    held.moved = true;
    setDrop(placeAt(open, scale, xIn(event.clientX)));
  });
  const onUp = useStable((event: PointerEvent, row: Row<'shot'>) => {
    const held = hold.current;
    hold.current = null;
    setDrop(null);
    if (!held) return;
    if (held.moved) moveShots(open, held.ids, placeAt(open, scale, xIn(event.clientX)));
    else chooseShot(row.id, howOf(event), order);
  });
  const onGo = useStable((index: number, by: number, how: How) => {
    const next = open.shots[index + by];
    if (next) chooseShot(next.id, how, order);
    const id = (next ?? open.shots[index])?.id;
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-shot="${id}"]`)?.focus());
  });

  const edges = useDrag<HeldEdge>((held, dx, _dy, { altKey }) => trimBy(held, framesFor(dx), altKey));
  const onEdgeDown = useStable((event: PointerEvent, index: number, edge: 'start' | 'end') =>
    edges.begin(event, { index, edge, from: open }),
  );
  const trimBy = ({ index, edge, from }: HeldEdge, wanted: number, roll: boolean) => {
    const [shot, before, after] = [index, index - 1, index + 1].map((i) => editedShot(from, i));
    if (!shot) return;
    const { planned } = shot;
    // The cut that the hand has hold of goes to a beat that is near.
    const at = edge === 'start' ? planned.start : planned.start + planned.frames;
    const moves = roll || edge === 'end';
    const frames = moves ? framesToBeat(from, at, wanted, scale) : wanted;
    // Without ripple the neighbour gives what this one takes.
    if (roll && edge === 'end' && after) rollCut(open, index + 1, frames, [shot, after]);
    else if (roll && edge === 'start' && before) rollCut(open, index, frames, [before, shot]);
    else trimShot(open, from.shots[index]!, edge, frames, shot);
  };
  const onDragOver = (event: DragEvent) => {
    if (!event.dataTransfer.types.includes(DRAGGED)) return;
    event.preventDefault();
    event.dataTransfer.dropEffect = 'copy';
    setDrop(placeAt(open, scale, xIn(event.clientX)));
  };
  const onDrop = (event: DragEvent) => {
    const added = readDragged(event.dataTransfer, { move, view });
    setDrop(null);
    if (!added) return;
    event.preventDefault();
    const now = reelNow(open);
    addShots(open, [added], now ? placeAt(now, scale, xIn(event.clientX)) : undefined);
  };

  const hands = useMemo(
    (): ShotHands => ({ onOpen, onDown, onMove, onUp, onGo, onEdgeDown, edgeHands: edges.hands }),
    [onOpen, onDown, onMove, onUp, onGo, onEdgeDown, edges.hands],
  );
  const shown = new Set(chosen.ids);
  const blocks = open.shots.map((row, i): PlacedBlock | null => {
    const planned = open.plan.shots[i]!;
    const place = blockOf(planned, open, scale);
    if (place.left + place.width < scale.x(scale.ends[0]) - 2 || place.left > scale.x(scale.ends[1]) + 2) return null;
    return {
      row,
      ...place,
      kind: row.body.use.kind === 'move' ? (kinds.get(row.body.use.move) ?? null) : null,
      frames: planned.frames,
      lost: planned.lost,
      pictures: stripFramesOf(planned, place.width, height, open.aspect).map((frame) =>
        imageOf(keyInShot(named, planned, frame)),
      ),
      chosen: shown.has(row.id),
      people: people[row.id] ?? NOBODY,
      join: i > 0 ? joinLook(planned, open, scale, joins[row.id], place.width, join === row.id) : null,
    };
  });

  return (
    <div
      ref={box}
      role="list"
      aria-label="Shots"
      className="absolute inset-x-0"
      style={{ top, height }}
      onDragOver={onDragOver}
      onDragLeave={() => setDrop(null)}
      onDrop={onDrop}
    >
      {stretchesOf(blocks).map(({ first, left, blocks: some }) => (
        <div
          key={first}
          className="absolute inset-y-0 left-0 flex will-change-transform"
          style={{ transform: `translateX(${left}px)` }}
        >
          <FilmStretch blocks={some} rate={open.rate} aspect={open.aspect} {...{ first, height, hands }} />
        </div>
      ))}
      {drop !== null && (
        <span
          aria-hidden
          className="pointer-events-none absolute -top-1 -bottom-1 w-[3px] rounded bg-lagoon"
          style={{ left: edgeX(open, scale, drop) - 1.5 }}
        />
      )}
    </div>
  );
}

const NOBODY: readonly string[] = [];
/** So near to a beat a hand means it, pixels. */
const NEAR = 6;

/** Frames that bring a cut to a beat, where one is near to where the hand would have it. */
function framesToBeat(open: OpenReel, at: number, frames: number, scale: StripScale): number {
  const { fact } = useSoundFact.getState();
  const { sound } = open.row.body;
  if (!sound || !fact?.beats) return frames;
  const time = frameTime(at + frames, open.rate);
  const within = scale.timeAt(scale.x(scale.ends[0]) + NEAR) - scale.ends[0];
  const beat = nearestBeat(beatsInReel(fact.beats.times, sound), time, within);
  return Math.round((beat * open.rate.num) / open.rate.den) - at;
}

/** A shot's place; what it shares with its neighbours is halved between them. */
export function blockOf(
  { index, start, frames, overlap }: PlannedShot,
  { plan, rate }: Pick<OpenReel, 'plan' | 'rate'>,
  scale: StripScale,
) {
  const after = plan.shots[index + 1]?.overlap ?? 0;
  const left = scale.at(frameTime(start + overlap / 2, rate));
  const right = scale.at(frameTime(start + frames - after / 2, rate));
  return { left, width: Math.max(3, right - left) };
}
