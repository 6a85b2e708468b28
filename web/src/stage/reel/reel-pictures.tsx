import type { Row } from '@eskovan/core/document';
import { frameTime } from '@eskovan/core/reel';
import { SquareSplitHorizontal, X } from 'lucide-react';
import { memo } from 'react';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Menu, Segmented, useKept, Wipe } from '../../kit/index.ts';
import type { OpenReel } from './open-reel.ts';
import { reelDesk, useReelDesk } from './reel-desk.ts';
import { useReelFacts } from './reel-facts.ts';
import type { ReelLink } from './reel-link.ts';
import { ReelPicture } from './reel-picture.tsx';
import { useWishes, type Ahead } from './use-ahead.ts';
import { useReelScenes } from './use-reel-scenes.ts';
import { useReelWork } from './use-reel-work.ts';
import { lengthText } from './words.ts';

/** The reel that another one is compared with; null for none. */
export function useBesideReel(row: Row<'reel'> | null): Row<'reel'> | null {
  const { reel } = useProject();
  const beside = useReelDesk((state) => state.beside);
  return (beside !== row?.id && liveRows(reel).find(({ id }) => id === beside)) || null;
}

/** Chooses what the reel is compared with, and how. */
export const CompareWith = memo(function CompareWith({ row }: { row: Row<'reel'> }) {
  const { reel } = useProject();
  const beside = useBesideReel(row);
  const way = useReelDesk((state) => state.compare);
  const others = liveRows(reel).filter(({ id }) => id !== row.id);
  if (!beside)
    return (
      <Menu
        trigger={
          <Button
            tone="surround"
            small
            icon={<SquareSplitHorizontal size={13} />}
            disabled={others.length === 0}
            title={others.length === 0 ? 'Duplicate the reel first: then there are two to compare' : undefined}
          >
            Compare
          </Button>
        }
        items={others.map(({ id, name }) => ({ label: name, onSelect: () => reelDesk.set({ beside: id }) }))}
      />
    );
  return (
    <span className="flex items-center gap-1.5">
      <Segmented
        label="How the reels are compared"
        value={way}
        options={[
          { value: 'beside', label: 'Beside' },
          { value: 'wipe', label: 'Wipe' },
        ]}
        onChange={(compare) => reelDesk.set({ compare })}
      />
      <Button
        tone="surround"
        small
        icon={<X size={13} />}
        aria-label="Compare no longer"
        onClick={() => reelDesk.set({ beside: null })}
      />
    </span>
  );
});

interface ReelPicturesProps {
  open: OpenReel;
  link: ReelLink | null;
  ahead: Ahead | null;
  /** What it is compared with. */
  beside: OpenReel | null;
}

/** The picture of the reel, alone or with that of another one at the same time. */
export function ReelPictures({ open, link, ahead, beside }: ReelPicturesProps) {
  const keys = useReelFacts((state) => state.keys);
  const own = <ReelPicture open={open} link={link} ahead={ahead} keys={keys} />;
  return beside && beside.shots.length > 0 ? (
    <Compared open={open} beside={beside} ahead={ahead}>
      {own}
    </Compared>
  ) : (
    own
  );
}

const NO_FRAMES: readonly number[] = [];

function Compared({
  open,
  beside,
  ahead,
  children,
}: {
  open: OpenReel;
  beside: OpenReel;
  ahead: Ahead | null;
  children: React.ReactNode;
}) {
  const way = useReelDesk((state) => state.compare);
  const rows = useKept(beside.shots);
  const scenes = useReelScenes(rows);
  const { link } = useReelWork(beside, rows, scenes, 'beside');
  const keys = useReelFacts((state) => state.besideKeys);
  useWishes(ahead, { open: beside, link, scenes, keys, first: NO_FRAMES, of: 'beside' });
  const other = <ReelPicture open={beside} link={link} ahead={ahead} keys={keys} label={beside.row.name} />;
  const names = (
    <p className="flex justify-between gap-4 px-3.5 text-sm text-surround-soft">
      <Name reel={open} than={beside} />
      <Name reel={beside} than={open} />
    </p>
  );
  if (way === 'beside')
    return (
      <div role="group" aria-label="Two reels compared" className="flex h-full flex-col">
        <div className="flex min-h-0 flex-1">
          <div className="min-w-0 flex-1">{children}</div>
          <div className="min-w-0 flex-1">{other}</div>
        </div>
        {names}
      </div>
    );
  return (
    <div role="group" aria-label="Two reels compared" className="flex h-full flex-col">
      <Wipe left={children} right={other} label="Edge between the two reels" name={open.row.name} />
      {names}
    </div>
  );
}

/** A reel, how long it is, and how much longer or shorter than the other. */
function Name({ reel: { row, plan, rate }, than }: { reel: OpenReel; than: OpenReel }) {
  const more = frameTime(plan.frames, rate) - frameTime(than.plan.frames, than.rate);
  return (
    <span className="truncate">
      <b className="font-semibold text-surround-ink">{row.name}</b> {lengthText(plan.frames, rate)}
      {Math.abs(more) >= frameTime(1, rate) && ` (${more > 0 ? '+' : '−'}${Math.abs(more).toFixed(1)} s)`}
    </span>
  );
}
