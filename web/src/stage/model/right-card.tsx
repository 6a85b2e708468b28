import { toDegrees, toRadians } from '@eskovan/core/geometry';
import type { Placement, Row } from '@eskovan/core/document';
import { dropTo, guessPlacement, placeBounds, UNITS, unitName } from '@eskovan/core/site';
import { ArrowDownToLine, Check, RefreshCw, TriangleAlert } from 'lucide-react';
import { useRef } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { Button, Card, Line, NumberField, Segmented, Select, Value } from '../../kit/index.ts';
import { importModel } from '../../site/import-model.ts';
import { useSite } from '../../site/use-site.ts';

/** Sizes that deserve a look before anything is built on them, metres. */
const ODD = { small: 0.3, large: 2000 };

/** Is the chosen model the right size, the right way up, in the right place? */
export function RightCard({ row }: { row: Row<'model'> }) {
  const site = useSite();
  const newer = useRef<HTMLInputElement>(null);
  const { bounds, declares, placement, fileName, triangles, source, notes } = row.body;
  const placed = placeBounds(bounds, placement);
  const [w, h, d] = placed.max.map((value, k) => value - placed.min[k]!) as [number, number, number];
  const largest = Math.max(w, h, d);
  const guess = guessPlacement(bounds, declares);
  const asGuessed = Math.abs(guess.metresPerUnit / placement.metresPerUnit - 1) < 1e-6 && guess.up === placement.up;
  const place = (label: string, change: Partial<Placement>) =>
    editBody('model', row, `${label} of ${row.name}`, (body) => ({
      ...body,
      placement: { ...body.placement, ...change },
    }));
  const [x, y, z] = placement.position;
  const odd = largest < ODD.small || largest > ODD.large;
  return (
    <Card title="Is this right?" note={row.name}>
      <Line label="W × D × H">
        <Value unit="m">{[w, d, h].map((value) => value.toFixed(value < 100 ? 2 : 0)).join(' × ')}</Value>
      </Line>
      <p className={`mb-1 flex gap-1.5 ${odd || !asGuessed ? 'text-rust' : 'text-ink-soft'}`}>
        {odd || !asGuessed ? (
          <TriangleAlert size={15} aria-hidden className="mt-0.5 shrink-0" />
        ) : (
          <Check size={15} aria-hidden className="mt-0.5 shrink-0 text-moss" />
        )}
        <span>
          {odd
            ? `That is ${largest < ODD.small ? 'small' : 'large'} for a commission. Look at the person beside it.`
            : asGuessed
              ? guess.reasons.length > 0
                ? `Guessed: ${guess.reasons.join(' ')}`
                : 'A size that buildings and products have.'
              : `Its file looks like ${unitName(guess.metresPerUnit)}, ${guess.up.toUpperCase()} up. ${guess.reasons.join(' ')}`}
        </span>
      </p>
      {!asGuessed && (
        <Button
          small
          tone="primary"
          className="mb-1"
          onClick={() => place('Unit and axis', { metresPerUnit: guess.metresPerUnit, up: guess.up })}
        >
          Take it as {unitName(guess.metresPerUnit)}, {guess.up.toUpperCase()} up
        </Button>
      )}
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
              place('Place', { position });
            }}
          />
        );
      })}
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
          aria-label="Newer file of this model"
          className="hidden"
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = '';
            if (file) void importModel(row.projectId, file, row);
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

/** Height that models are dropped to: the lowest storey of what is there. */
const groundOf = (site: ReturnType<typeof useSite>): number => site?.storeys[0]?.elevation ?? 0;
