import type { CompiledMove } from '@eskovan/core/move';
import type { ReactNode } from 'react';
import { Button } from '../../kit/index.ts';
import type { SiteData } from '../../site/use-site.ts';
import { showPlace } from './show-place.ts';
import type { Way } from './use-way.ts';
import { wayText } from './way-text.ts';

interface WayEndProps {
  found: Way;
  /** What the places are called. */
  names: readonly string[];
  /** The walk along the way. */
  move: CompiledMove | null;
  /** Does it stay longer than it was told to? */
  longer?: boolean;
  site: SiteData;
  onClose: () => void;
  /** What can be done with it. */
  children: ReactNode;
}

/** How finding a way stands, and what is to be done: the place shown that is in it, say. */
export function WayEnd({ found, names, move, longer = false, site, onClose, children }: WayEndProps) {
  const block = found.way && !found.way.found ? found.way.block : null;
  return (
    <>
      <p role="status" className="mt-3 min-h-10 text-ink-soft">
        {wayText({ ...found, names, move, longer })}
      </p>
      <div className="flex justify-end gap-2">
        {block && (
          <Button
            onClick={() => {
              showPlace(block.at, site);
              onClose();
            }}
          >
            Show the place
          </Button>
        )}
        {children}
      </div>
    </>
  );
}
