import { toDegrees } from '@eskovan/core/geometry';
import { LIGHT_STARTS, ownLight, sunPosition } from '@eskovan/core/site';
import type { BodyOf, Row } from '@eskovan/core/document';
import { Copy, MoreHorizontal, Plus, Trash2 } from 'lucide-react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { fileUrl } from '../../data/api.ts';
import { liveRows } from '../../data/changes.ts';
import { editRow } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, cx, Line, Menu, NameBox, Segmented, Value } from '../../kit/index.ts';
import { useLight } from '../../site/use-site.ts';
import { ExposureField } from '../shared/exposure-field.tsx';
import { OWN_LIGHT } from '../shared/light-card.tsx';
import { windSpelt } from '../shared/winds.ts';
import { addLight, duplicateLight, editLight, removeLight } from './edit-lights.ts';
import { LampsList } from './lamps-list.tsx';
import { useLightPictures } from './light-pictures.ts';

const field = 'h-7 rounded-lg border border-rule bg-raised px-1.5 font-mono hover:border-ink-faint';
const HOUR = 3_600_000;

/** The lights of the project as pictures; the chosen one is what the Model stage shows and what can be set. */
export function LightsCard() {
  const document = useProject();
  const { project } = document;
  const lights = liveRows(document.light);
  const chosen = useWorkbench((state) => state.light);
  const row = lights.find(({ id }) => id === chosen) ?? null;
  useLightPictures();
  const setting = row?.body ?? ownLight(project.body);
  const change = (label: string, values: Parameters<typeof editLight>[3]) => editLight(document, row, label, values);
  const { sun } = project.body;
  // The clock on the wall there: universal time, shifted.
  const local = new Date(new Date(setting.instant).getTime() + sun.clock * HOUR).toISOString();
  const setLocal = (date: string, time: string) => {
    const at = Date.parse(`${date}T${time}:00.000Z`);
    if (Number.isFinite(at)) change('Time of day', { instant: new Date(at - sun.clock * HOUR).toISOString() });
  };
  const { azimuth, altitude } = sunPosition(new Date(setting.instant), sun.latitude, sun.longitude);
  return (
    <Card
      title="Lights"
      note={
        <Menu
          trigger={
            <Button small icon={<Plus size={13} />}>
              New light
            </Button>
          }
          items={LIGHT_STARTS.map((start) => ({ label: start, onSelect: () => addLight(document, start) }))}
        />
      }
    >
      <ul aria-label="Lights of this project" className="mb-2 grid grid-cols-2 gap-2">
        <Tile name={OWN_LIGHT} picture={project.body.picture} shown={row === null} light={null} />
        {lights.map(({ id, name, body }) => (
          <Tile key={id} name={name} picture={body.picture} shown={id === row?.id} light={id} />
        ))}
      </ul>
      <div className="flex items-center gap-1 border-t border-rule pt-1.5">
        {row ? (
          <NameBox
            label="Light"
            name={row.name}
            strong
            most={120}
            onName={(name) => editRow('light', row, `Rename ${row.name}`, { name })}
          />
        ) : (
          <span className="grow font-medium">{OWN_LIGHT}</span>
        )}
        <LightMenu row={row} onDuplicate={() => duplicateLight(document, row?.name ?? 'Light', setting)} />
      </div>
      <Line label={<label htmlFor="sun-date">Date</label>}>
        <input
          id="sun-date"
          type="date"
          className={field}
          value={local.slice(0, 10)}
          onChange={(event) => setLocal(event.target.value, local.slice(11, 16))}
        />
      </Line>
      <Line label={<label htmlFor="sun-time">Time</label>}>
        <input
          id="sun-time"
          type="time"
          className={field}
          value={local.slice(11, 16)}
          onChange={(event) => setLocal(local.slice(0, 10), event.target.value)}
        />
      </Line>
      <Line label="Sky">
        <Segmented
          label="Sky"
          value={setting.sky}
          options={[
            { value: 'clear', label: 'Clear' },
            { value: 'overcast', label: 'Overcast' },
          ]}
          onChange={(sky) => change('Sky', { sky })}
        />
      </Line>
      <LampsList lamps={setting.lamps} onLamps={(lamps) => change('Lamps', { lamps })} />
      <ExposureField exposure={setting.exposure} onExposure={(exposure) => change('Exposure', { exposure })} />
      <Line label="Sun stands">
        <Value unit="°">{toDegrees(azimuth).toFixed(0)}</Value>
        <span className="text-ink-faint">{windSpelt(toDegrees(azimuth))}</span>
      </Line>
      <Line label="Sun’s height">
        <Value unit="°">{toDegrees(altitude).toFixed(1)}</Value>
        {altitude < 0 && <span className="text-ink-faint">below the horizon</span>}
      </Line>
    </Card>
  );
}

interface TileProps {
  name: string;
  picture: BodyOf<'light'>['picture'];
  shown: boolean;
  light: string | null;
}

function Tile({ name, picture, shown, light }: TileProps) {
  const { whole } = useLight(light);
  return (
    <li>
      <button
        type="button"
        aria-pressed={shown}
        className={cx(
          'block w-full overflow-hidden rounded-lg border text-left',
          shown ? 'border-lagoon ring-1 ring-lagoon' : 'border-rule hover:border-ink-faint',
        )}
        onClick={() => workbench.set({ light })}
      >
        <span className="block aspect-video w-full bg-surround">
          {picture && <img src={fileUrl(picture.file.sha256)} alt="" className="h-full w-full object-cover" />}
        </span>
        <span className="flex items-baseline justify-between gap-1 px-1.5 py-0.5 text-sm">
          <span className={cx('truncate', shown && 'font-semibold')} title={name}>
            {name}
          </span>
          {!whole && <span className="shrink-0 text-xs text-ink-faint">coming</span>}
        </span>
      </button>
    </li>
  );
}

function LightMenu({ row, onDuplicate }: { row: Row<'light'> | null; onDuplicate: () => void }) {
  return (
    <Menu
      trigger={<Button tone="quiet" small icon={<MoreHorizontal size={15} />} aria-label="More for this light" />}
      items={[
        { label: 'Duplicate', icon: <Copy size={13} />, onSelect: onDuplicate },
        ...(row
          ? [{ label: 'Delete', icon: <Trash2 size={13} />, danger: true, onSelect: () => removeLight(row) }]
          : []),
      ]}
    />
  );
}
