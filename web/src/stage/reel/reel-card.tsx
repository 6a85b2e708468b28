import type { ReelBody, Row } from '@eskovan/core/document';
import { frameCount, frameTime, nominalRate, timecodeOf } from '@eskovan/core/reel';
import { Flag, Trash2 } from 'lucide-react';
import { useProject } from '../../data/use-project.ts';
import { editBody } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card, Line, NameBox, Select, Value } from '../../kit/index.ts';
import { FRAMES, frameFrom, frameText } from '../shared/frames.ts';
import { rateOptions, rateText, rateValue } from '../shared/rates.ts';
import { fitToWanted } from './fit.ts';
import { FramesField } from './frames-field.tsx';
import type { OpenReel } from './open-reel.ts';
import { memo } from 'react';

/** Stands for what the project has. */
const OWN = 'project';

/** What holds for the whole reel: rate, ratio, length. */
export const ReelCard = memo(function ReelCard({ open }: { open: OpenReel }) {
  const { project } = useProject();
  const { row, plan, rate } = open;
  const { body } = row;
  const put = (label: string, change: Partial<ReelBody>) =>
    editBody('reel', row, `${label} of ${row.name}`, (now) => ({ ...now, ...change }));
  const without = (label: string, member: keyof ReelBody) =>
    editBody('reel', row, `${label} of ${row.name}`, ({ [member]: _, ...now }) => now);
  const ratio = body.frame && frameText(body.frame);
  const rates = rateOptions(body.rate);
  const wanted = body.wanted === undefined ? null : frameCount(body.wanted, rate);
  const off = wanted === null ? 0 : plan.frames - wanted;
  return (
    <Card title={row.name} note={`${plan.shots.length} shots`}>
      <Line label="Length">
        <Value>{timecodeOf(plan.frames, rate)}</Value>
      </Line>
      {wanted === null && (
        <Line label="Wanted">
          <Button
            small
            onClick={() => put('Wanted length', { wanted: Math.max(1, Math.round(frameTime(plan.frames, rate))) })}
          >
            Set a length
          </Button>
        </Line>
      )}
      {wanted !== null && (
        <>
          <FramesField
            label="Wanted"
            frames={wanted}
            rate={rate}
            onFrames={(frames) => put('Wanted length', { wanted: frameTime(frames, rate) })}
          />
          <p className="mb-1 text-right text-sm text-ink-faint">
            {off === 0
              ? 'to the frame'
              : `${frameTime(Math.abs(off), rate).toFixed(2)} s too ${off > 0 ? 'long' : 'short'}`}
          </p>
          <div className="mb-1 flex justify-end gap-1.5">
            <Button
              small
              tone="primary"
              disabled={off === 0 || plan.shots.length === 0}
              onClick={() => fitToWanted(open, project.body.limits.haste)}
            >
              Fit to {frameTime(wanted, rate).toFixed(wanted % nominalRate(rate) === 0 ? 0 : 1)} s
            </Button>
            <Button small onClick={() => without('Wanted length', 'wanted')}>
              As long as it is
            </Button>
          </div>
        </>
      )}
      <Line label="Frames a second">
        <Select
          label="Frames a second"
          value={body.rate ? rateValue(body.rate) : OWN}
          options={[{ value: OWN, label: `As the project, ${rateText(project.body.rate)}` }, ...rates]}
          onChange={(value) => {
            const chosen = rates.find((one) => one.value === value);
            if (chosen) put('Rate', { rate: chosen.rate });
            else without('Rate', 'rate');
          }}
        />
      </Line>
      <Line label="Ratio">
        <Select
          label="Ratio of the reel"
          value={ratio ?? OWN}
          options={[
            { value: OWN, label: `As the project, ${project.body.frame.width} : ${project.body.frame.height}` },
            ...FRAMES,
            ...(ratio && !FRAMES.some(({ value }) => value === ratio) ? [{ value: ratio, label: ratio }] : []),
          ]}
          onChange={(value) => {
            if (value === OWN) without('Ratio', 'frame');
            else put('Ratio', { frame: frameFrom(value) });
          }}
        />
      </Line>
      <label className="mt-1 flex min-h-7 items-center gap-2">
        <input
          type="checkbox"
          checked={body.throughout ?? false}
          onChange={(event) =>
            event.target.checked ? put('Actions', { throughout: true }) : without('Actions', 'throughout')
          }
        />
        actions run through the whole reel
      </label>
      <MarkerList row={row} />
    </Card>
  );
});

function MarkerList({ row }: { row: Row<'reel'> }) {
  const markers = [...(row.body.markers ?? [])].sort((a, b) => a.time - b.time);
  const put = (label: string, change: (list: typeof markers) => typeof markers) =>
    editBody('reel', row, label, (now) => ({ ...now, markers: change([...(now.markers ?? [])]) }));
  return (
    <div className="mt-1">
      <Line label="Markers">
        <Button
          small
          icon={<Flag size={13} />}
          onClick={() =>
            put('New marker', (list) => [
              ...list,
              { id: crypto.randomUUID(), time: workbench.get().time, name: `Marker ${list.length + 1}` },
            ])
          }
        >
          Mark here
        </Button>
      </Line>
      <ul>
        {markers.map(({ id, time, name }) => (
          <li key={id} className="flex items-center gap-1.5">
            <button
              type="button"
              className="min-h-6 shrink-0 font-mono text-sm whitespace-nowrap text-ink-faint underline decoration-dotted"
              onClick={() => workbench.set({ time, playing: false })}
            >
              {time.toFixed(1)} s
            </button>
            <NameBox
              label="Marker"
              name={name}
              onName={(next) =>
                put(`Rename ${name}`, (list) => list.map((one) => (one.id === id ? { ...one, name: next } : one)))
              }
            />
            <Button
              small
              tone="quiet"
              icon={<Trash2 size={13} />}
              aria-label={`Delete marker ${name}`}
              onClick={() => put(`Delete ${name}`, (list) => list.filter((one) => one.id !== id))}
            />
          </li>
        ))}
      </ul>
    </div>
  );
}
