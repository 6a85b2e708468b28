import type { MoveBody, Rate, Row } from '@eskovan/core/document';
import type { PlannedShot } from '@eskovan/core/reel';
import { memo } from 'react';
import { cx } from '../../kit/index.ts';
import { JoinHandle, type JoinLook } from './join-handle.tsx';
import { isNarrow, ShotBlock, type ShotHands, type ShotPictures } from './shot-block.tsx';

/** A shot as the strip shows it. */
export interface StripBlock {
  row: Row<'shot'>;
  /** Of the move that it uses; null where it uses none, or one that is gone. */
  kind: MoveBody['kind'] | null;
  /** How long it is, frames. */
  frames: number;
  lost: PlannedShot['lost'];
  /** What is left free before it, and how wide it is, pixels. */
  gap: number;
  width: number;
  pictures: ShotPictures;
  chosen: boolean;
  /** Others who have it chosen. */
  people: readonly string[];
  /** How it follows the one before it; null for the first. */
  join: JoinLook | null;
}

/** A shot of the strip, and where it begins, pixels. */
export type PlacedBlock = Omit<StripBlock, 'gap'> & { left: number };
/** So many shots are moved along as one. */
const STRETCH = 12;

/** Neighbours that are shown, from the places of their first ones. @param blocks null where a shot is not shown */
export function stretchesOf(blocks: readonly (PlacedBlock | null)[]) {
  const stretches: { first: number; left: number; blocks: StripBlock[] }[] = [];
  let end = 0;
  blocks.forEach((placed, i) => {
    if (!placed) return;
    const { left, ...block } = placed;
    let stretch = stretches.at(-1);
    if (!stretch || i % STRETCH === 0) {
      // A layer of its own to the browser, which is only moved: on whole pixels, or its words are blurred. What is in it
      // goes along by that half of a pixel, and stays as it is.
      end = left;
      stretches.push((stretch = { first: i, left: Math.round(left), blocks: [] }));
    }
    stretch.blocks.push({ ...block, gap: left - end });
    end = left + block.width;
  });
  return stretches;
}

interface FilmStretchProps {
  /** The place of its first shot in the order. */
  first: number;
  blocks: readonly StripBlock[];
  height: number;
  rate: Rate;
  aspect: number;
  hands: ShotHands;
}

/**
 * Some shots of the strip, each with how it follows the one before it. Where they only move along, whoever shows them moves
 * them as one, and nothing in here is looked at; and none of it is placed by itself, as far as it can be helped. Both keep an
 * edit quick in a reel of hundreds of shots.
 */
export const FilmStretch = memo(function FilmStretch({ first, blocks, ...of }: FilmStretchProps) {
  return blocks.map(({ join, gap, ...block }, i) => (
    <div
      key={block.row.id}
      role="listitem"
      className={cx('h-full shrink-0', !isNarrow(block.width) && 'relative px-px')}
      style={{ width: block.width, marginLeft: gap }}
    >
      <ShotBlock {...block} {...of} index={first + i} />
      {join && <JoinHandle {...join} id={block.row.id} />}
    </div>
  ));
}, isSameStretch);

function isSameStretch({ blocks: a, ...one }: FilmStretchProps, { blocks: b, ...other }: FilmStretchProps): boolean {
  return isAlike(one, other) && a.length === b.length && a.every((block, i) => isSameBlock(block, b[i]!));
}

/** Small lists and looks in it are compared by what is in them. */
function isSameBlock(one: StripBlock, other: StripBlock): boolean {
  for (const name in one) if (!isAlike(one[name as keyof StripBlock], other[name as keyof StripBlock])) return false;
  return true;
}

/** The same, or lists or plain things whose members are the same: asked two thousand times an edit, so written plainly. */
function isAlike(one: unknown, other: unknown): boolean {
  if (Object.is(one, other)) return true;
  if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) return false;
  const names = Object.keys(one) as (keyof object)[];
  return names.length === Object.keys(other).length && names.every((name) => Object.is(one[name], other[name]));
}
