import type { Row } from '@eskovan/core/document';
import { X } from 'lucide-react';
import { useState } from 'react';
import { fileUrl } from '../../data/api.ts';
import { Button, cx, Segmented, Select, useObjectUrl, Wipe } from '../../kit/index.ts';
import { useAsidePicture } from '../../picture/use-aside-picture.ts';
import { lensText } from '../shared/lens-text.ts';
import { useCompared, type Compared, type Link } from './use-compared.ts';

interface CompareViewsProps {
  /** Two to four. */
  rows: readonly Row<'view'>[];
  onClose: () => void;
  onChoose: (id: string) => void;
}

/** Views compared at once, at most. */
export const MOST_COMPARED = 4;

const WAYS = [
  { value: 'beside', label: 'Beside' },
  { value: 'flick', label: 'Flick' },
  { value: 'wipe', label: 'Wipe' },
] as const;
type Way = (typeof WAYS)[number]['value'];

const LINKS: readonly { value: Link; label: string }[] = [
  { value: 'nothing', label: 'Each its own' },
  { value: 'lens', label: 'The first one’s lens' },
  { value: 'light', label: 'The first one’s light' },
  { value: 'pose', label: 'The first one’s pose' },
];

/** Two to four views beside each other, one for the other in place, or two with an edge between them. */
export function CompareViews({ rows, onClose, onChoose }: CompareViewsProps) {
  const [way, setWay] = useState<Way>('beside');
  const [link, setLink] = useState<Link>('nothing');
  const compared = useCompared(rows, link);
  return (
    <div className="on-surround flex h-full flex-col bg-surround text-surround-ink" role="group" aria-label="Compare">
      <header className="flex h-11 shrink-0 items-center gap-3 px-3">
        <span className="font-semibold">{rows.length} pictures</span>
        <Segmented label="How to compare" value={way} options={WAYS} onChange={setWay} />
        <Select label="What they share" value={link} options={LINKS} onChange={setLink} />
        <Button tone="surround" small icon={<X size={13} />} className="ml-auto" onClick={onClose}>
          Done
        </Button>
      </header>
      <div className="min-h-0 flex-1 p-3 pt-0">
        {way === 'beside' && <Beside compared={compared} onChoose={onChoose} />}
        {way === 'flick' && <Flick compared={compared} />}
        {way === 'wipe' && <OnBothSides compared={compared} />}
      </div>
    </div>
  );
}

function Beside({ compared, onChoose }: { compared: readonly Compared[]; onChoose: (id: string) => void }) {
  return (
    <div className="grid h-full auto-rows-fr grid-cols-2 gap-3">
      {compared.map((one) => (
        <button
          key={one.row.id}
          type="button"
          aria-label={`Go on with ${one.row.name}`}
          onClick={() => onChoose(one.row.id)}
          className="flex min-h-0 flex-col rounded-md text-left"
        >
          <span className="relative min-h-0 flex-1">
            <Picture one={one} />
          </span>
          <Caption one={one} />
        </button>
      ))}
    </div>
  );
}

function Flick({ compared }: { compared: readonly Compared[] }) {
  const [at, setAt] = useState(0);
  const shown = compared[at % compared.length]!;
  return (
    <button
      type="button"
      autoFocus
      aria-label="Next of the compared views"
      onClick={() => setAt((at + 1) % compared.length)}
      className="flex h-full w-full flex-col rounded-md text-left"
    >
      {/* All are there, so that the next one is shown at once. */}
      <span className="relative min-h-0 flex-1">
        {compared.map((one) => (
          <span key={one.row.id} className={one === shown ? 'absolute inset-0' : 'invisible absolute inset-0'}>
            <Picture one={one} />
          </span>
        ))}
      </span>
      <Caption one={shown} more={`${(at % compared.length) + 1} of ${compared.length} · press for the next one`} />
    </button>
  );
}

function OnBothSides({ compared }: { compared: readonly Compared[] }) {
  const [left, right] = [compared[0]!, compared[1]!];
  return (
    <div className="flex h-full flex-col">
      <Wipe
        left={<Picture one={left} />}
        right={<Picture one={right} />}
        label="Edge between the two views"
        name={left.row.name}
      />
      <div className="flex justify-between">
        <Caption one={left} />
        <Caption one={right} />
      </div>
    </div>
  );
}

function Picture({ one }: { one: Compared }) {
  const { name, body } = one.row;
  const drawn = useObjectUrl(useAsidePicture(one.wish));
  const shown = drawn ?? (body.thumbnail && fileUrl(body.thumbnail.sha256));
  return (
    <span className="absolute inset-0 flex items-center justify-center bg-black/20" data-drawn={drawn !== null}>
      {shown && <img src={shown} alt={name} className={cx('h-full w-full object-contain', !drawn && 'opacity-60')} />}
    </span>
  );
}

function Caption({ one, more }: { one: Compared; more?: string }) {
  const { name, body } = one.row;
  const drawn = useAsidePicture(one.wish) !== null;
  const says = [lensText(body.lens), ...(more ? [more] : []), ...(drawn ? [] : ['drawing…'])];
  return (
    <span className="flex gap-2 py-1 text-sm">
      <span className="truncate font-semibold">{name}</span>
      <span className="text-surround-soft">{says.join(' · ')}</span>
    </span>
  );
}
