import type { Orbit } from '@eskovan/core/document';
import { toDegrees, toRadians } from '@eskovan/core/geometry';
import { frameCount } from '@eskovan/core/reel';
import { memo } from 'react';
import { FIRST_CARRY } from '@eskovan/core/pace';
import { Card, Length, Line, NumberField, Segmented, Select } from '../../kit/index.ts';
import { MadeOfCard, StopsCard } from './orbit-more-cards.tsx';
import { OverTimeCard } from './over-time-card.tsx';
import { CarryFields, SHAPES } from '../shared/pace-shape.tsx';
import { CoverCard } from './cover-card.tsx';
import { ChecksCard } from './checks-card.tsx';
import { DurationField } from './duration-field.tsx';
import { editMove, radiusOf } from './edit-move.ts';
import type { MoveCardsProps } from './move-props.ts';
import { MoveLensCard } from './move-lens-card.tsx';
import { useProject } from '../../data/use-project.ts';
import { useMend } from './use-mend.ts';
import { PivotCard } from './pivot-card.tsx';

/** What the selected orbit is made of, in numbers. */
export const OrbitCards = memo(function OrbitCards(props: MoveCardsProps<Orbit>) {
  const { row, body, move, findings, current, cover, aspect } = props;
  const { rate } = useProject().project.body;
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
      <StopsCard {...props} />
      <OverTimeCard row={row} body={body} move={move} />
      <MadeOfCard {...props} />
      <MoveLensCard row={row} body={body} move={move} aspect={aspect} />
      {move && cover && cover.length > 0 && <CoverCard move={move} cover={cover} />}
      {move?.loops && (
        <p className="px-1 text-sm text-ink-soft">
          It closes: after {frameCount(body.duration, rate)} frames it is where it began, and no frame comes twice.
        </p>
      )}
    </div>
  );
});

function TurnCard({ row, body }: MoveCardsProps<Orbit>) {
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
      <DurationField row={row} body={body} />
      <NumberField
        label="On average"
        unit="°/s"
        digits={1}
        value={toDegrees(Math.abs(body.sweep)) / body.duration}
        step={5}
        min={0.01}
        max={3600}
        onChange={(rate) =>
          set('Speed of the turn', { duration: Math.min(3600, Math.max(0.1, toDegrees(Math.abs(body.sweep)) / rate)) })
        }
      />
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
      {body.shape === 'carry' && (
        <CarryFields carry={body.carry ?? FIRST_CARRY} onCarry={(carry) => set('Pace', { carry })} />
      )}
      <Line label="Then">
        <Segmented
          label="What it does at its end"
          value={body.swings ? 'back' : 'ends'}
          options={[
            { value: 'ends', label: 'Ends' },
            { value: 'back', label: 'Swings back' },
          ]}
          onChange={(value) =>
            editMove(row, 'orbit', 'Swing', ({ swings: _, ...now }) => ({
              ...now,
              // A swing that turns on the spot would jerk.
              ...(value === 'back' && {
                swings: true as const,
                shape: now.shape === 'constant' ? 'ease both' : now.shape,
              }),
            }))
          }
        />
      </Line>
      {body.pivot.kind === 'object' && (
        <Line label="What turns">
          <Segmented
            label="What turns"
            value={body.turns ?? 'camera'}
            options={[
              { value: 'camera', label: 'The camera' },
              { value: 'subject', label: 'The subject' },
            ]}
            onChange={(value) =>
              editMove(row, 'orbit', 'What turns', ({ turns: _, ...now }) => ({
                ...now,
                ...(value === 'subject' && { turns: value }),
              }))
            }
          />
        </Line>
      )}
      {body.turns === 'subject' && (
        <>
          <Line label="Its light">
            <Segmented
              label="Light on the subject"
              value={body.lightStands ? 'stands' : 'turns'}
              options={[
                { value: 'turns', label: 'Turns along' },
                { value: 'stands', label: 'Stands' },
              ]}
              onChange={(value) =>
                editMove(row, 'orbit', 'Light on the subject', ({ lightStands: _, ...now }) => ({
                  ...now,
                  ...(value === 'stands' && { lightStands: true as const }),
                }))
              }
            />
          </Line>
          <p className="text-sm text-ink-soft">
            {body.lightStands
              ? 'It is lit where it stands, as on a turning table.'
              : 'The light on it turns with it, as if the camera went round.'}
          </p>
        </>
      )}
    </Card>
  );
}

const wholeTurn = (degrees: number) => ((degrees % 360) + 360) % 360;

function DistanceCard({ row, body, move }: MoveCardsProps<Orbit>) {
  const set = (label: string, change: Partial<Orbit>) =>
    editMove(row, 'orbit', label, (now) => ({ ...now, ...change }));
  const { distance, pivot } = body;
  const centre = move?.looks[0]?.at(0);
  const radius = move && centre ? radiusOf(move, centre) : null;
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
            <Length metres={radius} />
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
      <div className="grid grid-cols-2 gap-x-4">
        <NumberField
          label="Rises by"
          unit="m"
          measure="length"
          value={body.rise ?? 0}
          step={Math.max(0.01, Number(((radius ?? 1) / 20).toPrecision(1)))}
          min={-10_000}
          max={10_000}
          onChange={(rise) => set('Rise', { rise })}
        />
        <NumberField
          label="Ends at"
          unit="%"
          digits={0}
          value={100 * (body.widens ?? 1)}
          step={5}
          min={2}
          max={5000}
          onChange={(percent) => set('Distance at the end', { widens: percent / 100 })}
        />
      </div>
    </Card>
  );
}
