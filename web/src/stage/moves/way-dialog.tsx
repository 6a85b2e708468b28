import type { Walk } from '@eskovan/core/document';
import type { Block } from '@eskovan/core/wayfind';
import { ArrowDown, ArrowUp, Route, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Dialog, Finder, NumberField } from '../../kit/index.ts';
import type { SiteData } from '../../site/use-site.ts';
import { useCompiledMove } from '../shared/use-compiled-move.ts';
import { showPlace } from './show-place.ts';
import { useWay } from './use-way.ts';
import { walkAlong, wayPlaces, type WayPlace, type WayStop } from './way-walk.ts';

interface WayDialogProps {
  site: SiteData;
  onWalk: (body: Walk, name: string) => void;
  onClose: () => void;
}

/** How long one stays in a place between the ends, until somebody says otherwise, seconds. */
const FIRST_PAUSE = 3;

/** Rooms and views in their order; the way through them is found. */
export function WayDialog({ site, onWalk, onClose }: WayDialogProps) {
  const document = useProject();
  const [stops, setStops] = useState<readonly WayStop[]>([]);
  const places = useMemo(() => wayPlaces(site, liveRows(document.view)), [site, document.view]);
  const { way, looking, failed, walkable } = useWay(
    useMemo(() => stops.map(({ place }) => place.at), [stops]),
    site,
  );
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
  const body = useMemo(() => (way?.found ? walkAlong(document, way, stops) : null), [document, way, stops]);
  const move = useCompiledMove(body);
  return (
    <Dialog
      open
      onClose={onClose}
      title="Find the way"
      description="Choose rooms and views in the order in which they are to be walked through."
    >
      {stops.length > 0 && (
        <ol aria-label="Through these places" className="mb-3 grid gap-1">
          {stops.map(({ id, place, pause }, i) => (
            <li key={id} className="flex items-center gap-2 rounded-lg border border-rule bg-raised px-2 py-1">
              <span className="w-5 font-mono text-ink-faint">{i + 1}</span>
              <span className="min-w-0 flex-1 truncate" title={`${place.name}, ${place.about}`}>
                {place.name} <span className="text-ink-faint">{place.about}</span>
              </span>
              <span className="w-24 shrink-0" title="How long one stays there">
                <NumberField
                  label={`Stays at ${i + 1}`}
                  bare
                  unit="s"
                  measure="time"
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
      <p role="status" className="mt-3 min-h-10 text-ink-soft">
        {!walkable
          ? 'Where one can walk is not known yet. It is worked out after the model has been measured.'
          : stops.length < 2
            ? 'Two places make a way.'
            : looking
              ? 'Looking for the way…'
              : failed
                ? 'The way could not be worked out. Measure the model again on the Model stage, or draw the path by hand.'
                : way?.found
                  ? `${way.length.toFixed(1)} m, ${move ? `${move.duration.toFixed(0)} s, ` : ''}${way.path.nodes.length} nodes.${
                      way.clear ? '' : ' It comes nearer to something than it should: see its checks.'
                    }${
                      way.shut.length > 0
                        ? ` It leads through ${way.shut.length === 1 ? 'a closed door' : `${way.shut.length} closed doors`}.`
                        : ''
                    }`
                  : way
                    ? `There is no way from ${name(way.from)} to ${name(way.to)}: ${blockText(way.block)}`
                    : ''}
      </p>
      <div className="flex justify-end gap-2">
        {way && !way.found && way.block && (
          <Button
            onClick={() => {
              showPlace(way.block!.at, site);
              onClose();
            }}
          >
            Show the place
          </Button>
        )}
        <Button onClick={onClose}>Close</Button>
        <Button
          tone="primary"
          icon={<Route size={14} />}
          disabled={!body || looking}
          onClick={() => body && onWalk(body, `${name(0)} to ${name(stops.length - 1)}`)}
        >
          Make the walk
        </Button>
      </div>
    </Dialog>
  );
}

/** What keeps one from getting there, and by how much. */
function blockText(block: Block | null): string {
  if (!block) return 'no floor leads there. Look at where one can walk on the Model stage.';
  const { reason, size, needed, at } = block;
  const where = `at x ${at[0].toFixed(1)}, z ${at[2].toFixed(1)} m`;
  switch (reason) {
    case 'narrow':
      return `a passage ${where} is ${size.toFixed(2)} m wide, and ${needed.toFixed(2)} m are needed.`;
    case 'low':
      return `the headroom ${where} is ${size.toFixed(2)} m, and ${needed.toFixed(2)} m are needed.`;
    case 'step':
      return `a step ${where} is ${size.toFixed(2)} m high, and the walker takes ${needed.toFixed(2)} m.`;
  }
}
