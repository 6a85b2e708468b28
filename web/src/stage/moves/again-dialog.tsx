import { wayFindings } from '@eskovan/core/check';
import type { Row, Walk } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { foundAgain, placesOfWay } from '@eskovan/core/wayfind';
import { Route } from 'lucide-react';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { Button, Dialog } from '../../kit/index.ts';
import { useSiteData, type SiteData } from '../../site/use-site.ts';
import { useCompiledMove } from '../shared/use-compiled-move.ts';
import { editMove } from './edit-move.ts';
import { useWay } from './use-way.ts';
import { WayChoice } from './way-choice.tsx';
import { WayEnd } from './way-end.tsx';

interface AgainDialogProps {
  row: Row<'move'>;
  walk: Walk;
  site: SiteData;
  onClose: () => void;
}

/** Looks for the way of a walk once more, where it was found through places; more so where something is in it now. */
export function AgainButton({ row, walk, move }: { row: Row<'move'>; walk: Walk; move: CompiledMove | null }) {
  const { data: site } = useSiteData();
  const [asking, setAsking] = useState(false);
  const blocked = useMemo(() => move !== null && wayFindings(move).length > 0, [move]);
  if (placesOfWay(walk).length < 2) return null;
  return (
    <>
      <Button
        small
        tone={blocked ? 'primary' : 'plain'}
        icon={<Route size={13} />}
        disabled={!site}
        title={blocked ? 'Something is in its way now' : 'Through the same places, which may be moved before'}
        onClick={() => setAsking(true)}
      >
        Find it again
      </Button>
      {asking && site && <AgainDialog {...{ row, walk, site }} onClose={() => setAsking(false)} />}
    </>
  );
}

/** The way of a walk looked for once more through its places: in a model that has changed, or another one than the first. */
function AgainDialog({ row, walk, site, onClose }: AgainDialogProps) {
  const places = useMemo(() => placesOfWay(walk), [walk]);
  const found = useWay(
    useMemo(() => places.map(({ at }) => at), [places]),
    site,
  );
  const way = found.way?.found ? found.way : null;
  const body = useMemo(() => (way ? foundAgain(walk, way) : null), [walk, way]);
  const move = useCompiledMove(body);
  return (
    <Dialog
      open
      onClose={onClose}
      title="Find the way again"
      description={`Through ${places.map(({ name }) => name).join(', ')}. Stays, gazes and keys go along.`}
    >
      {found.ways.length > 0 && <WayChoice {...found} site={site} />}
      <WayEnd {...{ found, move, site, onClose }} names={places.map(({ name }) => name)}>
        <Button onClick={onClose}>Leave it</Button>
        <Button
          tone="primary"
          icon={<Route size={14} />}
          disabled={!way || found.looking}
          onClick={() => {
            if (way)
              editMove(row, 'walk', 'Find the way again', (now) => {
                const again = foundAgain(now, way);
                if (!again) toast('Its places have changed meanwhile. Look for the way once more.');
                return again ?? now;
              });
            onClose();
          }}
        >
          Walk this way
        </Button>
      </WayEnd>
    </Dialog>
  );
}
