import { toDegrees, toRadians } from '@eskovan/core/geometry';
import type { Placement, Row } from '@eskovan/core/document';
import { dropTo, ODD_SIZE, ownOffset, placeBounds, UNITS, unitName } from '@eskovan/core/site';
import { ArrowDownToLine, RefreshCw, TriangleAlert } from 'lucide-react';
import { useRef } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { Button, Card, Length, Line, NumberField, Segmented, Select } from '../../kit/index.ts';
import { importModel } from '../../site/import-model.ts';
import { gatherFiles } from '../../site/gather-files.ts';
import { useSite } from '../../site/use-site.ts';
import { GuessedAs } from './guessed-as.tsx';

/** Is the chosen model the right size, the right way up, in the right place? */
export function RightCard({ row }: { row: Row<'model'> }) {
  const site = useSite();
  const newer = useRef<HTMLInputElement>(null);
  const { bounds, placement, fileName, triangles, source, notes } = row.body;
  const placed = placeBounds(bounds, placement);
  const [w, h, d] = placed.max.map((value, k) => value - placed.min[k]!) as [number, number, number];
  const largest = Math.max(w, h, d);
  const place = (label: string, change: Partial<Placement>) =>
    editBody('model', row, `${label} of ${row.name}`, (body) => ({
      ...body,
      placement: { ...body.placement, ...change },
      // Who has chosen a unit or an axis is not asked again.
      ...(change.metresPerUnit === undefined && change.up === undefined ? {} : { settled: true }),
    }));
  const offset = ownOffset(bounds, placement);
  // Coordinates of hundreds of kilometres are said once; the fields say how far it stands from there.
  const [x, y, z] = placement.position.map((value, k) => value + (offset?.from[k] ?? 0)) as [number, number, number];
  const back = (position: [number, number, number]) =>
    position.map((value, k) => value - (offset?.from[k] ?? 0)) as [number, number, number];
  return (
    <Card title="Is this right?" note={row.name}>
      <Line label="W × D × H">
        <Length metres={[w, d, h]} digits={Math.max(w, d, h) < 100 ? 2 : 0} between=" × " />
      </Line>
      {(largest < ODD_SIZE.small || largest > ODD_SIZE.large) && (
        <p className="mb-1 flex gap-1.5 text-rust">
          <TriangleAlert size={15} aria-hidden className="mt-0.5 shrink-0" />
          That is {largest < ODD_SIZE.small ? 'small' : 'large'} for a commission. Look at the person beside it.
        </p>
      )}
      <GuessedAs body={row.body} onChoose={(choice) => place('Unit and axis', choice)} />
      <Line label="Unit of the file">
        <Select
          label="Unit of the file"
          value={String(
            UNITS.find(({ metres }) => Math.abs(metres / placement.metresPerUnit - 1) < 1e-6)?.metres ?? 'own',
          )}
          options={[
            ...UNITS.map(({ name, metres }) => ({ value: String(metres), label: name })),
            ...(unitName(placement.metresPerUnit).startsWith('units of')
              ? [{ value: 'own', label: unitName(placement.metresPerUnit) }]
              : []),
          ]}
          onChange={(value) => value !== 'own' && place('Unit', { metresPerUnit: Number(value) })}
        />
      </Line>
      <Line label="Up in the file">
        <Segmented
          label="Up in the file"
          value={placement.up}
          options={[
            { value: 'y', label: 'Y' },
            { value: 'z', label: 'Z' },
          ]}
          onChange={(up) => place('Up-axis', { up })}
        />
      </Line>
      <NumberField
        label="Turn"
        unit="°"
        measure="angle"
        digits={1}
        step={5}
        value={toDegrees(placement.turn)}
        onChange={(turn) => place('Turn', { turn: toRadians(turn) })}
      />
      {(['x', 'z', 'y'] as const).map((axis) => {
        const k = { x: 0, y: 1, z: 2 }[axis];
        return (
          <NumberField
            key={axis}
            label={{ x: 'East', z: 'South', y: 'Up' }[axis]}
            unit="m"
            measure="length"
            step={0.1}
            value={[x, y, z][k]!}
            onChange={(value) => {
              const position: [number, number, number] = [x, y, z];
              position[k] = value;
              place('Place', { position: back(position) });
            }}
          />
        );
      })}
      {offset && (
        <p className="mt-1 text-sm text-ink-soft">
          Its own coordinates are kept: the project’s zero is East {number(offset.zero[0])}, North{' '}
          {number(-offset.zero[2])}
          {Math.abs(offset.zero[1]) > 0.5 ? `, height ${number(offset.zero[1])}` : ''} m in the file.
        </p>
      )}
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <Button
          small
          icon={<ArrowDownToLine size={13} />}
          onClick={() => place('Drop to ground', dropTo(bounds, placement, groundOf(site)))}
        >
          Drop to ground
        </Button>
        <Button small icon={<RefreshCw size={13} />} onClick={() => newer.current?.click()}>
          Newer file
        </Button>
        <input
          ref={newer}
          type="file"
          multiple
          aria-label="Newer file of this model"
          className="hidden"
          onChange={(event) => {
            const files = [...(event.target.files ?? [])];
            event.target.value = '';
            void gatherFiles(files).then(([file]) => file && importModel(row.projectId, file, row));
          }}
        />
      </div>
      <p className="mt-2 truncate text-sm text-ink-faint" title={fileName}>
        {fileName} · {(source.size / 1024 ** 2).toFixed(2)} MB · {triangles.toLocaleString('en')} triangles
      </p>
      {notes.length > 0 && (
        <ul className="mt-1 grid gap-1 border-t border-rule pt-1.5 text-sm text-ink-soft">
          {notes.map((note, i) => (
            <li key={i}>{note}</li>
          ))}
        </ul>
      )}
    </Card>
  );
}

const number = (value: number) => value.toLocaleString('en', { maximumFractionDigits: 0 });

/** Height that models are dropped to: the lowest storey of what is there. */
const groundOf = (site: ReturnType<typeof useSite>): number => site?.storeys[0]?.elevation ?? 0;
