import type { ActionBody, Repeat, Row } from '@eskovan/core/document';
import { toDegrees, toRadians } from '@eskovan/core/geometry';
import { FIRST_CARRY } from '@eskovan/core/pace';
import { Trash2 } from 'lucide-react';
import { toast } from 'sonner';
import { editBody, removeRow } from '../../data/edit-row.ts';
import { undoWithWords } from '../../desk/undo-words.ts';
import { Button, Line, NumberField, PartField, Segmented, Select } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { useModels } from '../../site/use-site.ts';
import { CarryFields, SHAPES } from '../shared/pace-shape.tsx';
import { AXES, axisName, axisOf } from './edit-actions.ts';

const ENDS: readonly { value: Repeat; label: string }[] = [
  { value: 'once', label: 'Stays' },
  { value: 'again', label: 'Again' },
  { value: 'to and fro', label: 'Back' },
];

type BodyOfKind<K extends ActionBody['kind']> = Extract<ActionBody, { kind: K }>;
/** How something is gone through once, and then. */
type Run = Pick<BodyOfKind<'hinge'>, 'seconds' | 'shape' | 'carry'> & { repeat?: Repeat };

/** What an action does, in numbers. */
export function ActionSettings({ row }: { row: Row<'action'> }) {
  const up = useModels().find(({ id }) => id === row.body.model)?.body.placement.up ?? 'y';
  const change = <K extends ActionBody['kind']>(kind: K, values: Partial<BodyOfKind<K>>) =>
    editBody('action', row, `Change of ${row.name}`, (body) =>
      body.kind === kind ? ({ ...body, ...values } as ActionBody) : body,
    );
  /** Says something of an action, or does not. */
  const flag = (kind: ActionBody['kind'], name: string, on: boolean) =>
    editBody('action', row, `Change of ${row.name}`, (body) => {
      if (body.kind !== kind) return body;
      const { [name]: _, ...others } = body as unknown as Record<string, unknown>;
      return { ...others, ...(on && { [name]: true }) } as unknown as ActionBody;
    });
  const { body } = row;
  const remove = () => {
    removeRow('action', row);
    toast(`“${row.name}” deleted`, { action: { label: 'Undo', onClick: () => undoWithWords(row.projectId) } });
  };
  return (
    <>
      <TimeField
        label="Begins at"
        value={body.start}
        step={0.5}
        min={0}
        max={3600}
        onChange={(start) => change(body.kind, { start })}
      />
      {body.kind === 'recorded' && (
        <>
          <NumberField
            label="Speed"
            unit="×"
            value={body.speed}
            step={0.1}
            min={0.05}
            max={20}
            onChange={(speed) => change('recorded', { speed })}
          />
          <Ends repeat={body.repeat} onRepeat={(repeat) => change('recorded', { repeat })} />
        </>
      )}
      {body.kind === 'spin' && (
        <>
          <Line label="Turns">
            <Segmented
              label="How it turns"
              value={body.turn ? 'in a time' : 'steadily'}
              options={[
                { value: 'steadily', label: 'Steadily' },
                { value: 'in a time', label: 'In a time' },
              ]}
              onChange={(value) =>
                editBody('action', row, `Change of ${row.name}`, (now) => {
                  if (now.kind !== 'spin') return now;
                  const { turn: _, ...steady } = now;
                  const turn = { angle: 2 * Math.PI, seconds: 5, shape: 'ease both' as const, repeat: 'once' as const };
                  return value === 'steadily' ? steady : { ...steady, turn };
                })
              }
            />
          </Line>
          {!body.turn && (
            <NumberField
              label="Turns a minute"
              value={(body.rate * 30) / Math.PI}
              step={0.5}
              min={-900}
              max={900}
              onChange={(turns) => change('spin', { rate: (turns * Math.PI) / 30 })}
            />
          )}
          <Line label="Axis">
            <Segmented
              label="Axis"
              value={axisName(body.axis, up) ?? ''}
              options={AXES.map((value) => ({ value, label: value }))}
              onChange={(name) => name && change('spin', { axis: axisOf(name, up) })}
            />
          </Line>
          {body.turn && (
            <>
              <Angle
                label="Turns by"
                value={body.turn.angle}
                onChange={(angle) => change('spin', { turn: { ...body.turn!, angle } })}
              />
              <RunFields run={body.turn} onRun={(run) => change('spin', { turn: { ...body.turn!, ...run } })} />
            </>
          )}
        </>
      )}
      {body.kind === 'hinge' && (
        <>
          <Line label="Hangs by">
            <Segmented
              label="Which end it hangs by"
              value={body.end}
              options={[
                { value: 'low', label: 'One end' },
                { value: 'high', label: 'The other' },
              ]}
              onChange={(end) => change('hinge', { end })}
            />
          </Line>
          <Angle label="Turns by" value={body.angle} onChange={(angle) => change('hinge', { angle })} />
          <Line label="Goes">
            <Segmented
              label="Which way it goes"
              value={body.back ? 'back' : 'away'}
              options={[
                { value: 'away', label: 'From its rest' },
                { value: 'back', label: 'To its rest' },
              ]}
              onChange={(value) => flag('hinge', 'back', value === 'back')}
            />
          </Line>
          <RunFields run={body} onRun={(run) => change('hinge', run)} />
        </>
      )}
      {body.kind === 'along' && (
        <>
          <Line label="Faces">
            <Segmented
              label="Which way it faces"
              value={body.faces ? 'along' : 'kept'}
              options={[
                { value: 'along', label: 'Along its way' },
                { value: 'kept', label: 'As it rests' },
              ]}
              onChange={(value) => change('along', { faces: value === 'along' })}
            />
          </Line>
          <RunFields run={body} onRun={(run) => change('along', run)} />
        </>
      )}
      {body.kind === 'appear' && (
        <>
          <Line label="It">
            <Segmented
              label="Appears or goes"
              value={body.goes ? 'goes' : 'appears'}
              options={[
                { value: 'appears', label: 'Appears' },
                { value: 'goes', label: 'Goes' },
              ]}
              onChange={(value) => flag('appear', 'goes', value === 'goes')}
            />
          </Line>
          <Line label="How">
            <Segmented
              label="How it appears"
              value={body.how}
              options={[
                { value: 'grows', label: 'Out of its foot' },
                { value: 'fades', label: 'Fades' },
                { value: 'at once', label: 'At once' },
              ]}
              onChange={(how) => change('appear', { how })}
            />
          </Line>
          <Line label="Its parts">
            <Segmented
              label="Order of its parts"
              value={body.inOrder ? 'order' : 'together'}
              options={[
                { value: 'together', label: 'Together' },
                { value: 'order', label: 'From below' },
              ]}
              onChange={(value) => flag('appear', 'inOrder', value === 'order')}
            />
          </Line>
          <RunFields run={body} onRun={(run) => change('appear', run)} />
        </>
      )}
      {body.kind === 'dim' && (
        <>
          <PartField label="From" value={body.from} onChange={(from) => change('dim', { from })} />
          <PartField label="To" value={body.to} onChange={(to) => change('dim', { to })} />
          <Line label="How">
            <Segmented
              label="How it dims"
              value={body.switches ? 'at once' : 'dims'}
              options={[
                { value: 'dims', label: 'Bit by bit' },
                { value: 'at once', label: 'At once' },
              ]}
              onChange={(value) => flag('dim', 'switches', value === 'at once')}
            />
          </Line>
          {!body.switches && <RunFields run={body} onRun={(run) => change('dim', run)} />}
        </>
      )}
      <Line label="It is">
        <Segmented
          label="On or off"
          value={body.off ? 'off' : 'on'}
          options={[
            { value: 'on', label: 'On' },
            { value: 'off', label: 'Off' },
          ]}
          onChange={(value) =>
            editBody('action', row, `${row.name} ${value}`, ({ off: _, ...now }) =>
              value === 'off' ? { ...now, off: true as const } : now,
            )
          }
        />
      </Line>
      <div className="mt-1 text-right">
        <Button tone="danger" small icon={<Trash2 size={13} />} onClick={remove}>
          Delete
        </Button>
      </div>
    </>
  );
}

function Angle({ label, value, onChange }: { label: string; value: number; onChange: (radians: number) => void }) {
  return (
    <NumberField
      label={label}
      unit="°"
      digits={1}
      value={toDegrees(value)}
      step={5}
      min={-360}
      max={360}
      onChange={(degrees) => onChange(toRadians(degrees))}
    />
  );
}

const Ends = ({ repeat, onRepeat }: { repeat: Repeat; onRepeat: (repeat: Repeat) => void }) => (
  <Line label="At its end">
    <Segmented label="At its end" value={repeat} options={ENDS} onChange={onRepeat} />
  </Line>
);

/** How long something takes, with which shape, and what then. */
function RunFields({ run, onRun }: { run: Run; onRun: (run: Partial<Run>) => void }) {
  return (
    <>
      <TimeField
        label="Takes"
        value={run.seconds}
        step={0.5}
        min={0.1}
        max={3600}
        onChange={(seconds) => onRun({ seconds })}
      />
      <Line label="Shape">
        <Select
          label="Shape of the movement"
          value={run.shape}
          options={SHAPES}
          onChange={(shape) => onRun({ shape })}
        />
      </Line>
      {run.shape === 'carry' && <CarryFields carry={run.carry ?? FIRST_CARRY} onCarry={(carry) => onRun({ carry })} />}
      {run.repeat && <Ends repeat={run.repeat} onRepeat={(repeat) => onRun({ repeat })} />}
    </>
  );
}
