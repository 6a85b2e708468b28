import { ownName, type Ride } from '@eskovan/core/document';
import { findCarrier, headingOf, seatAt, SEATS, type SeatName } from '@eskovan/core/move';
import { Crosshair, RefreshCw } from 'lucide-react';
import { memo } from 'react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, Card, Line, NumberField, Segmented } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { useParts, useSiteMotion } from '../../site/use-parts.ts';
import { CheckLine } from '../shared/check-line.tsx';
import { FindPart, GonePart } from '../shared/find-part.tsx';
import { ChecksCard } from './checks-card.tsx';
import { CoverCard } from './cover-card.tsx';
import { DurationField } from './duration-field.tsx';
import { editMove } from './edit-move.ts';
import { GazeCard } from './gaze-card.tsx';
import { MoveLensCard } from './move-lens-card.tsx';
import type { MoveCardsProps } from './move-props.ts';
import { OverTimeCard } from './over-time-card.tsx';
import { reseated, rideOn } from './seat.ts';
import { useMend } from './use-mend.ts';

/** What the selected ride is made of. */
export const RideCards = memo(function RideCards(props: MoveCardsProps<Ride>) {
  const { row, body, move, findings, current, cover, aspect } = props;
  const mend = useMend(move);
  return (
    <div className="grid gap-2.5 p-3">
      {move && body.carrier && (
        <ChecksCard
          {...{ row, findings, current, ...(mend && { mend }) }}
          fine="Nothing is in the camera’s way, and it turns calmly."
        />
      )}
      <CarrierCard {...props} />
      {body.carrier && <SeatCard {...props} />}
      <GazeCard row={row} body={body} move={move} />
      <MoveLensCard row={row} body={body} move={move} aspect={aspect} />
      <OverTimeCard row={row} body={body} move={move} />
      {move && cover && cover.length > 0 && <CoverCard move={move} cover={cover} />}
    </div>
  );
});

/** What carries the camera. */
function CarrierCard({ row, body }: MoveCardsProps<Ride>) {
  const aiming = useWorkbench((state) => state.aiming === 'carrier');
  const parts = useParts();
  const motion = useSiteMotion(true);
  const { carrier } = body;
  const part = carrier && parts.find(({ model, name }) => model === carrier.model && name === carrier.name);
  const stands = carrier !== null && part && findCarrier(carrier, { parts, motion }).carry === null;
  return (
    <Card title="Rides on">
      {carrier && (
        <Line label="Carried by">
          <span className="min-w-0 truncate font-medium" title={carrier.name}>
            {ownName(carrier.name)}
          </span>
        </Line>
      )}
      {carrier && parts.length > 0 && !part && (
        <GonePart name={carrier.name} meanwhile="The camera stays where that was" />
      )}
      {stands && (
        <ul>
          <CheckLine severity="note">
            Nothing moves it. Give it an action in the Model stage, or ride on something that moves.
          </CheckLine>
        </ul>
      )}
      {aiming ? (
        <>
          <p className="flex gap-2">
            <Crosshair size={15} className="mt-0.5 shrink-0 text-lagoon" aria-hidden />
            Press in the picture what is to carry the camera, or find it by its name. Escape leaves it as it is.
          </p>
          <FindPart onPart={(info) => rideOn(row, info, { parts, motion })} />
        </>
      ) : (
        <div className="my-1.5">
          <Button
            small
            icon={<Crosshair size={13} />}
            onClick={() => workbench.set({ aiming: 'carrier', playing: false })}
          >
            {carrier ? 'Something else' : 'Choose what'}
          </Button>
        </div>
      )}
      <DurationField row={row} body={body} />
    </Card>
  );
}

/** Where on or about its carrier the camera is. */
function SeatCard({ row, body, move }: MoveCardsProps<Ride>) {
  const parts = useParts();
  const motion = useSiteMotion(true);
  const scout = useWorkbench((state) => state.scout);
  const { carrier } = body;
  const part = carrier && parts.find(({ model, name }) => model === carrier.model && name === carrier.name);
  const set = (label: string, change: Partial<Ride>) => editMove(row, 'ride', label, (now) => ({ ...now, ...change }));
  const sit = (name: SeatName) => {
    if (!part) return;
    const heading = headingOf(findCarrier(carrier, { parts, motion })) ?? [0, 0, -1];
    set(`Seat ${name}`, seatAt(name, part.bounds, heading, { model: part.model, name: part.name }));
    workbench.set({ scout: null });
  };
  const axis = (label: string, k: 0 | 1 | 2) => (
    <NumberField
      label={label}
      unit="m"
      measure="length"
      value={body.seat[k]}
      step={0.05}
      onChange={(value) => set('Seat', { seat: body.seat.map((old, n) => (n === k ? value : old)) as Ride['seat'] })}
    />
  );
  return (
    <Card title="Seat">
      <div className="flex flex-wrap gap-1.5" role="group" aria-label="Where the camera sits">
        {SEATS.map((name) => (
          <Button key={name} small disabled={!part} onClick={() => sit(name)}>
            {name[0]!.toUpperCase() + name.slice(1)}
          </Button>
        ))}
        <Button
          small
          icon={<RefreshCw size={13} />}
          disabled={!scout || !move}
          title="Look about in the picture first: where you are becomes the seat"
          onClick={() => scout && reseated(row, scout, { parts, motion })}
        >
          Where I look from
        </Button>
      </div>
      <div className="mt-1.5 grid grid-cols-3 gap-x-3">
        {axis('x', 0)}
        {axis('y', 1)}
        {axis('z', 2)}
      </div>
      <TimeField
        label="Follows softly by"
        value={body.softness}
        step={0.1}
        min={0}
        max={10}
        onChange={(softness) => set('How softly it follows', { softness })}
      />
      <Line label="Horizon">
        <Segmented
          label="Horizon"
          value={body.horizon}
          options={[
            { value: 'level', label: 'Level' },
            { value: 'with it', label: 'Leans with it' },
          ]}
          onChange={(horizon) => set('Horizon', { horizon })}
        />
      </Line>
    </Card>
  );
}
