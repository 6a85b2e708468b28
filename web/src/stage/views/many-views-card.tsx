import type { Row, ViewBody, ViewStatus } from '@eskovan/core/document';
import { Lock, LockOpen } from 'lucide-react';
import { liveRows } from '../../data/changes.ts';
import { bodyChanges } from '../../data/edits.ts';
import { dispatch } from '../../data/undo.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, Line, NumberField, Select } from '../../kit/index.ts';
import { frameFrom, FRAMES, frameText } from '../shared/frames.ts';
import { OWN_LIGHT } from '../shared/light-card.tsx';
import { STATUS } from './about-view-card.tsx';
import { GroupField } from './group-field.tsx';
import { NewTag } from './tags-field.tsx';
import { withFrame, withTag } from './view-body.ts';

const VARIOUS = 'various';
const OWN = 'own';
const STATUSES = Object.entries(STATUS).map(([value, label]) => ({ value: value as ViewStatus, label }));

/** What all chosen views have, or that they differ. */
function shared<T extends string>(values: readonly T[]): T | typeof VARIOUS {
  return values.every((value) => value === values[0]) ? values[0]! : VARIOUS;
}

/** What is given to several views at once, as one step of undo. Locked ones keep their lens and frame. */
export function ManyViewsCard({ rows }: { rows: readonly Row<'view'>[] }) {
  const document = useProject();
  const lights = liveRows(document.light);
  const locked = rows.filter(({ body }) => body.locked).length;
  const open = rows.filter(({ body }) => !body.locked);
  const edit = (label: string, which: readonly Row<'view'>[], change: (body: ViewBody) => ViewBody) =>
    dispatch(
      document.project.id,
      `${label}, ${which.length} views`,
      which.flatMap((row) => bodyChanges('view', row, change)),
    );
  const bodies = rows.map(({ body }) => body);
  const various = [{ value: VARIOUS, label: 'Various' }] as const;
  const status = shared(bodies.map((body) => body.status ?? 'draft'));
  const frame = shared(bodies.map((body) => (body.frame ? frameText(body.frame) : OWN)));
  const light = shared(bodies.map((body) => body.light ?? OWN));
  const [first] = bodies;
  return (
    <Card title={`${rows.length} views`} note={locked > 0 ? `${locked} locked` : undefined}>
      <Line label="Status">
        <Select
          label="Status of all"
          value={status}
          options={status === VARIOUS ? [...various, ...STATUSES] : STATUSES}
          onChange={(next) => next !== VARIOUS && edit('Status', rows, (body) => ({ ...body, status: next }))}
        />
      </Line>
      <NumberField
        label="Focal length of all"
        unit="mm"
        measure="millimetre"
        digits={0}
        value={first!.lens.focalLengthMm}
        min={1}
        max={2000}
        onChange={(focalLengthMm) =>
          edit('Focal length', open, (body) => ({ ...body, lens: { ...body.lens, focalLengthMm }, thumbnail: null }))
        }
      />
      <Line label="Ratio">
        <Select
          label="Ratio of all"
          value={frame}
          options={[
            ...(frame === VARIOUS ? various : []),
            { value: OWN, label: 'As the project' },
            ...FRAMES,
            ...(frame !== VARIOUS && frame !== OWN && !FRAMES.some(({ value }) => value === frame)
              ? [{ value: frame, label: frame }]
              : []),
          ]}
          onChange={(next) =>
            next !== VARIOUS &&
            edit('Ratio', open, (body) => withFrame(body, next === OWN ? undefined : frameFrom(next)))
          }
        />
      </Line>
      <Line label="Seen in">
        <Select
          label="Light of all"
          value={light}
          options={[
            ...(light === VARIOUS ? various : []),
            { value: OWN, label: OWN_LIGHT },
            ...lights.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(next) =>
            next !== VARIOUS &&
            edit('Light', rows, (body) => ({ ...body, light: next === OWN ? null : next, thumbnail: null }))
          }
        />
      </Line>
      <GroupField rows={rows} />
      <NewTag onTag={(tag) => edit(`Tag “${tag}”`, rows, (body) => withTag(body, tag))} />
      <Button
        small
        className="mt-1.5 w-full"
        icon={open.length > 0 ? <Lock size={13} /> : <LockOpen size={13} />}
        onClick={() =>
          open.length > 0
            ? edit('Lock', open, (body) => ({ ...body, locked: true }))
            : edit('Unlock', rows, (body) => ({ ...body, locked: false }))
        }
      >
        {open.length > 0 ? 'Lock all' : 'Unlock all'}
      </Button>
    </Card>
  );
}
