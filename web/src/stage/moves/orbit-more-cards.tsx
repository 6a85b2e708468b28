import type { Orbit } from '@eskovan/core/document';
import { toDegrees } from '@eskovan/core/geometry';
import { MapPin, Pause, Route, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useProject } from '../../data/use-project.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, Card, NumberField } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { keepAllRound } from './all-round.ts';
import { makeTravel } from './convert-move.ts';
import { editMove } from './edit-move.ts';
import type { MoveCardsProps } from './move-props.ts';

/** A new stop lasts so long, seconds. */
const FIRST_STOP = 1;

/** Angles at which it stands still. */
export function StopsCard({ row, body, move }: MoveCardsProps<Orbit>) {
  const stops = body.stops ?? [];
  const setStops = (change: (stops: NonNullable<Orbit['stops']>) => NonNullable<Orbit['stops']>) =>
    editMove(row, 'orbit', 'Stops', (now) => ({ ...now, stops: change(now.stops ?? []) }));
  const stopHere = () => {
    const { time } = workbench.get();
    if (!move?.path) return;
    const angle = (move.path.stationAt(time) / move.path.length) * Math.abs(body.sweep);
    const stop = { id: crypto.randomUUID(), angle, seconds: FIRST_STOP };
    setStops((now) => [...now, stop].sort((a, b) => a.angle - b.angle));
  };
  return (
    <Card title="Stops" note={stops.length > 0 && `${stops.length}`}>
      <Button small icon={<Pause size={13} />} disabled={!move?.path || body.sweep === 0} onClick={stopHere}>
        Stop here
      </Button>
      {stops.length > 0 && (
        <ul aria-label="Stops" className="mt-2 grid gap-1">
          {stops.map((stop) => (
            <li key={stop.id} className="flex items-center gap-2">
              <span className="grow font-mono">{toDegrees(stop.angle).toFixed(1)}°</span>
              <TimeField
                label={`Stop at ${toDegrees(stop.angle).toFixed(1)}°`}
                bare
                value={stop.seconds}
                step={0.5}
                min={0.1}
                max={600}
                onChange={(seconds) =>
                  setStops((now) => now.map((one) => (one.id === stop.id ? { ...one, seconds } : one)))
                }
              />
              <Button
                small
                tone="quiet"
                icon={<Trash2 size={13} />}
                aria-label={`Take the stop at ${toDegrees(stop.angle).toFixed(1)}° away`}
                onClick={() => setStops((now) => now.filter(({ id }) => id !== stop.id))}
              />
            </li>
          ))}
        </ul>
      )}
    </Card>
  );
}

/** Where it begins by eye, and what else can be made of it: a travel, views all round. */
export function MadeOfCard({ row, move }: MoveCardsProps<Orbit>) {
  const document = useProject();
  const [count, setCount] = useState(8);
  const scout = useWorkbench((state) => state.scout);
  const begin = () => {
    const seen = workbench.get().scout;
    const at = move?.looks[0]?.at(0);
    if (!seen || !at) return;
    const [dx, dy, dz] = seen.position.map((value, k) => value - at[k]!) as [number, number, number];
    const flat = Math.hypot(dx, dz);
    editMove(row, 'orbit', 'Begin where I stand', (now) => ({
      ...now,
      start: Math.atan2(dx, dz),
      inclination: Math.max(-1.55, Math.min(1.55, Math.atan2(dy, flat))),
      distance: { by: 'radius', radius: Math.max(0.001, Math.hypot(flat, dy)) },
    }));
    workbench.set({ scout: null, time: 0 });
  };
  return (
    <Card title="Made of it">
      <div className="flex flex-wrap gap-1.5">
        <Button
          small
          icon={<MapPin size={13} />}
          disabled={!scout}
          title="Look about in the picture first: the orbit begins where you are"
          onClick={begin}
        >
          Begin where I stand
        </Button>
        <Button small icon={<Route size={13} />} disabled={!move} onClick={() => move && makeTravel(row, move)}>
          Make it a travel
        </Button>
      </div>
      <div className="mt-1.5 flex items-center gap-2">
        <NumberField label="Views all round" value={count} step={1} min={2} max={72} digits={0} onChange={setCount} />
        <Button small disabled={!move} onClick={() => move && keepAllRound(document, row, move, count)}>
          Keep them
        </Button>
      </div>
    </Card>
  );
}
