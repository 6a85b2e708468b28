import type { Orbit } from '@eskovan/core/document';
import { toDegrees, toRadians } from '@eskovan/core/geometry';
import { memo } from 'react';
import { Card, Line, NumberField, Segmented, Select, Value } from '../../kit/index.ts';
import { CoverCard } from './cover-card.tsx';
import { ChecksCard } from './checks-card.tsx';
import { editMove } from './edit-move.ts';
import type { MoveCardsProps } from './move-props.ts';
import { MoveLensCard } from './move-lens-card.tsx';
import { useMend } from './use-mend.ts';
import { PivotCard } from './pivot-card.tsx';

const SHAPES = [
  { value: 'constant', label: 'Constant' },
  { value: 'ease both', label: 'Ease both' },
] as const;

/** What the selected orbit is made of, in numbers. */
export const OrbitCards = memo(function OrbitCards(props: MoveCardsProps<Orbit>) {
  const { row, body, move, findings, current, cover, aspect, frames } = props;
  const mend = useMend(move);
  return (
    <div className="grid gap-2.5 p-3">
      {move && (
        <ChecksCard
          {...{ row, findings, current, ...(mend && { mend }) }}
          fine="Nothing is in the camera’s way, and it turns calmly."
        />
      )}
      <PivotCard row={row} body={body} />
      <TurnCard {...props} />
      <DistanceCard {...props} />
      <MoveLensCard row={row} body={body} move={move} aspect={aspect} />
      {move && cover && cover.length > 0 && <CoverCard move={move} cover={cover} />}
      {frames > 0 && move?.loops && (
        <p className="px-1 text-sm text-ink-soft">
          It closes: after {Math.round(body.duration * frames)} frames it is where it began, and no frame comes twice.
        </p>
      )}
    </div>
  );
});

function TurnCard({ row, body, frames }: MoveCardsProps<Orbit>) {
  const set = (label: string, change: Partial<Orbit>) =>
    editMove(row, 'orbit', label, (now) => ({ ...now, ...change }));
  return (
    <Card
      title="Turn"
      note={
        <Segmented
          label="Which way round"
          value={body.sweep < 0 ? 'clockwise' : 'counter'}
          options={[
            { value: 'counter', label: 'Counter-clockwise' },
            { value: 'clockwise', label: 'Clockwise' },
          ]}
          onChange={(way) => set('Which way round', { sweep: Math.abs(body.sweep) * (way === 'clockwise' ? -1 : 1) })}
        />
      }
    >
      <NumberField
        label="Sweep"
        unit="°"
        digits={1}
        value={toDegrees(Math.abs(body.sweep))}
        step={15}
        min={0}
        max={7200}
        onChange={(degrees) => set('Sweep', { sweep: toRadians(degrees) * (body.sweep < 0 ? -1 : 1) })}
      />
      <NumberField
        label="Takes"
        unit="s"
        measure="time"
        frames={frames}
        value={body.duration}
        step={0.5}
        min={0.1}
        max={3600}
        onChange={(duration) => set('Duration', { duration })}
      />
      <Line label="Turns">
        <Value unit="°/s">{(toDegrees(Math.abs(body.sweep)) / body.duration).toFixed(1)}</Value>
      </Line>
      <NumberField
        label="Begins at"
        unit="°"
        digits={1}
        value={wholeTurn(toDegrees(body.start))}
        step={5}
        min={-180}
        max={360}
        onChange={(degrees) => set('Where it begins', { start: toRadians(degrees) })}
      />
      <Line label="Shape">
        <Select
          label="Shape of the pace"
          value={body.shape}
          options={SHAPES}
          onChange={(shape) => set('Pace', { shape })}
        />
      </Line>
    </Card>
  );
}

const wholeTurn = (degrees: number) => ((degrees % 360) + 360) % 360;

function DistanceCard({ row, body, move }: MoveCardsProps<Orbit>) {
  const set = (label: string, change: Partial<Orbit>) =>
    editMove(row, 'orbit', label, (now) => ({ ...now, ...change }));
  const { distance, pivot } = body;
  const radius = move?.path
    ? move.path.length / Math.max(Math.abs(body.sweep), 1e-9) / Math.cos(body.inclination)
    : null;
  return (
    <Card
      title="Distance"
      note={
        pivot.kind === 'object' && (
          <Segmented
            label="What leads"
            value={distance.by}
            options={[
              { value: 'fit', label: 'By size in frame' },
              { value: 'radius', label: 'By metres' },
            ]}
            onChange={(by) =>
              // What was a result becomes the wish: nothing jumps.
              set(
                'Distance',
                by === 'fit'
                  ? { distance: { by, fill: 0.7 } }
                  : { distance: { by, radius: Math.max(0.001, Number((radius ?? 5).toFixed(3))) } },
              )
            }
          />
        )
      }
    >
      {distance.by === 'fit' ? (
        <>
          <NumberField
            label="Fills"
            unit="%"
            digits={0}
            value={distance.fill * 100}
            step={5}
            min={5}
            max={100}
            onChange={(percent) => set('Size in frame', { distance: { by: 'fit', fill: percent / 100 } })}
          />
          <Line label="Radius">
            <Value unit="m">{radius === null ? '–' : radius.toFixed(2)}</Value>
          </Line>
        </>
      ) : (
        <NumberField
          label="Radius"
          unit="m"
          measure="length"
          value={distance.radius}
          step={Math.max(0.01, Number((distance.radius / 20).toPrecision(1)))}
          min={0.001}
          max={50_000}
          onChange={(next) => set('Radius', { distance: { by: 'radius', radius: next } })}
        />
      )}
      <NumberField
        label="Looks down by"
        unit="°"
        digits={1}
        value={toDegrees(body.inclination)}
        step={5}
        min={-88}
        max={88}
        onChange={(degrees) => set('Inclination', { inclination: toRadians(degrees) })}
      />
    </Card>
  );
}
