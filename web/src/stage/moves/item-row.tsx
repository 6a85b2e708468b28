import type { ChannelItem } from '@eskovan/core/track';
import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { workbench } from '../../desk/workbench.ts';
import { Button } from '../../kit/index.ts';

interface ItemRowProps {
  item: ChannelItem;
  /** When, as it is written. */
  when: string;
  /** The number of it that is changed here. */
  children: ReactNode;
  onRemove: () => void;
}

/** Something that lies in a strip, in the list of a card: pressed it is gone to. */
export function ItemRow({ item, when, children, onRemove }: ItemRowProps) {
  return (
    <li className="flex items-center gap-1.5">
      <button
        type="button"
        className="min-w-0 flex-1 truncate rounded text-left hover:underline"
        title={`${item.about}: go to ${item.from.toFixed(2)} s`}
        onClick={() => workbench.set({ time: item.from, playing: false, scout: null })}
      >
        {item.about}
        <span className="ml-1.5 font-mono text-xs text-ink-faint">{when}</span>
      </button>
      <span className="w-24 shrink-0">{children}</span>
      <Button
        small
        tone="quiet"
        icon={<Trash2 size={13} />}
        aria-label={`Take away: ${item.about} at ${item.from.toFixed(1)} s`}
        onClick={onRemove}
      />
    </li>
  );
}
