import { calmed } from '@eskovan/core/check';
import type { Row, Walk } from '@eskovan/core/document';
import { ArrowDown, ArrowUp, Route, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Dialog, Finder } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import type { SiteData } from '../../site/use-site.ts';
import { useCompiledMove, useCompiling } from '../shared/use-compiled-move.ts';
import { useWay } from './use-way.ts';
import { WayChoice } from './way-choice.tsx';
import { WayEnd } from './way-end.tsx';
import { walkAlong, wayPlaces, type WayPlace, type WayStop } from './way-walk.ts';

interface WayDialogProps {
  site: SiteData;
  onWalk: (body: Walk, name: string) => void;
  onClose: () => void;
}

/** How long one stays in a place between the ends, until somebody says otherwise, seconds. */
const FIRST_PAUSE = 3;

/** A way through rooms follows nothing that moves. */
const NONE: readonly Row<'move'>[] = [];

/** Rooms and views in their order; the way through them is found. */
export function WayDialog({ site, onWalk, onClose }: WayDialogProps) {
  const document = useProject();
  const [stops, setStops] = useState<readonly WayStop[]>([]);
  const places = useMemo(() => wayPlaces(site, liveRows(document.view)), [site, document.view]);
  const at = useMemo(() => stops.map(({ place }) => place.at), [stops]);
  const found = useWay(at, site);
  const { way, looking } = found;
  const find = (typed: string) => {
    const words = typed.trim().toLowerCase();
    return places.filter(({ name, about }) => `${name} ${about}`.toLowerCase().includes(words));
  };
  const add = (place: WayPlace) =>
    setStops([...stops, { id: crypto.randomUUID(), place, pause: stops.length === 0 ? 0 : FIRST_PAUSE }]);
  const swap = (i: number, j: number) => {
    if (j < 0 || j >= stops.length) return;
    const next = [...stops];
    [next[i], next[j]] = [next[j]!, next[i]!];
    setStops(next);
  };
  const name = (i: number) => stops[i]?.place.name ?? '';
  const compile = useCompiling(NONE);
  const asked = useMemo(() => (way?.found ? walkAlong(document, way, stops) : null), [document, way, stops]);
  const body = useMemo(() => {
    const { limits } = document.project.body;
    return asked && calmed(asked, { compile, limits, newId: () => crypto.randomUUID() });
  }, [document, asked, compile]);
  const move = useCompiledMove(body);
  return (
    <Dialog
      open
      onClose={onClose}
      title="Find the way"
      description="Choose rooms and views in the order in which they are to be walked through."
      wide
    >
      <div className="grid grid-cols-2 gap-5">
        <div>
          {stops.length > 0 && (
            <ol aria-label="Through these places" className="mb-3 grid gap-1">
              {stops.map(({ id, place, pause }, i) => (
                <li key={id} className="flex items-center gap-2 rounded-lg border border-rule bg-raised px-2 py-1">
                  <span className="w-5 font-mono text-ink-faint">{i + 1}</span>
                  <span className="min-w-0 flex-1 truncate" title={`${place.name}, ${place.about}`}>
                    {place.name} <span className="text-ink-faint">{place.about}</span>
                  </span>
                  <span className="w-24 shrink-0" title="How long one stays there">
                    <TimeField
                      label={`Stays at ${i + 1}`}
                      bare
                      value={pause}
                      step={0.5}
                      min={0}
                      max={600}
                      onChange={(seconds) =>
                        setStops(stops.map((stop) => (stop.id === id ? { ...stop, pause: seconds } : stop)))
                      }
                    />
                  </span>
                  <Button
                    small
                    tone="quiet"
                    icon={<ArrowUp size={13} />}
                    aria-label={`${place.name} earlier`}
                    disabled={i === 0}
                    onClick={() => swap(i, i - 1)}
                  />
                  <Button
                    small
                    tone="quiet"
                    icon={<ArrowDown size={13} />}
                    aria-label={`${place.name} later`}
                    disabled={i === stops.length - 1}
                    onClick={() => swap(i, i + 1)}
                  />
                  <Button
                    small
                    tone="quiet"
                    icon={<Trash2 size={13} />}
                    aria-label={`Leave ${place.name} out`}
                    onClick={() => setStops(stops.filter((stop) => stop.id !== id))}
                  />
                </li>
              ))}
            </ol>
          )}
          <Finder
            label="Room or view"
            listLabel="Rooms and views"
            placeholder="Add a room or a view"
            find={find}
            keyOf={({ key }) => key}
            onChoose={add}
            nothing="No room and no view is called that."
          >
            {({ name: called, about }) => (
              <>
                {called} <span className="text-ink-faint">{about}</span>
              </>
            )}
          </Finder>
        </div>
        {found.ways.length > 0 && !looking ? (
          <WayChoice {...found} site={site} />
        ) : (
          <p className="flex min-h-52 items-center justify-center rounded-lg border border-dashed border-rule p-4 text-ink-faint">
            The way is drawn here.
          </p>
        )}
      </div>
      <WayEnd
        {...{ found, move, site, onClose }}
        names={stops.map(({ place }) => place.name)}
        longer={body !== null && stayed(body) > stayed(asked!)}
      >
        <Button onClick={onClose}>Close</Button>
        <Button
          tone="primary"
          icon={<Route size={14} />}
          disabled={!body || looking}
          onClick={() => body && onWalk(body, `${name(0)} to ${name(stops.length - 1)}`)}
        >
          Make the walk
        </Button>
      </WayEnd>
    </Dialog>
  );
}

/** How long a walk stays in all, seconds. */
const stayed = ({ pace }: Walk) => (pace.pauses ?? []).reduce((sum, { seconds }) => sum + seconds, 0);
