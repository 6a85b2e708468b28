import { toDegrees, toRadians } from '@eskovan/core/geometry';
import type { SunSetting } from '@eskovan/core/document';
import { sunPosition } from '@eskovan/core/site';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, Line, NumberField, Value } from '../../kit/index.ts';
import { useModels } from '../../site/use-site.ts';

const field = 'h-7 rounded-lg border border-rule bg-raised px-1.5 font-mono hover:border-ink-faint';
const HOUR = 3_600_000;

/** Where the project is, when it is looked at, where north is, and how light its pictures are. */
export function SunCard() {
  const { project } = useProject();
  const { sun } = project.body;
  const change = (label: string, values: Partial<SunSetting> | ((now: SunSetting) => Partial<SunSetting>)) =>
    editBody('project', project, label, (body) => ({
      ...body,
      sun: { ...body.sun, ...(typeof values === 'function' ? values(body.sun) : values) },
    }));
  // The clock on the wall there: universal time, shifted.
  const local = new Date(new Date(sun.instant).getTime() + sun.clock * HOUR).toISOString();
  const setLocal = (date: string, time: string) => {
    const at = Date.parse(`${date}T${time}:00.000Z`);
    if (Number.isFinite(at)) change('Time of day', { instant: new Date(at - sun.clock * HOUR).toISOString() });
  };
  // What a file says of its place is offered until it is so.
  const offered = useModels().filter(({ body: { declares, placement } }) => {
    const { latitude = sun.latitude, longitude = sun.longitude, north } = declares;
    const turn = north === undefined ? sun.north : north - placement.turn;
    return [latitude - sun.latitude, longitude - sun.longitude, turn - sun.north].some((off) => Math.abs(off) > 1e-6);
  });
  const { azimuth, altitude } = sunPosition(new Date(sun.instant), sun.latitude, sun.longitude);
  return (
    <Card title="Sun and north" note={altitude > 0 ? `${toDegrees(altitude).toFixed(1)}° high` : 'below the horizon'}>
      {offered.map(({ id, name, body }) => (
        <Button
          key={id}
          small
          className="mb-1 w-full"
          onClick={() =>
            change(`Place and north of ${name}`, (now) => ({
              latitude: body.declares.latitude ?? now.latitude,
              longitude: body.declares.longitude ?? now.longitude,
              north: body.declares.north === undefined ? now.north : body.declares.north - body.placement.turn,
            }))
          }
        >
          Take place and north from {name}
        </Button>
      ))}
      <NumberField
        label="Latitude"
        unit="°"
        measure="angle"
        value={sun.latitude}
        step={0.5}
        min={-90}
        max={90}
        onChange={(latitude) => change('Latitude', { latitude })}
      />
      <NumberField
        label="Longitude"
        unit="°"
        measure="angle"
        value={sun.longitude}
        step={0.5}
        min={-180}
        max={180}
        onChange={(longitude) => change('Longitude', { longitude })}
      />
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
      <NumberField
        label="Clock ahead of universal time"
        unit="h"
        digits={1}
        value={sun.clock}
        step={0.5}
        min={-14}
        max={14}
        onChange={(clock) =>
          change('Clock', (now) => ({
            clock,
            // The clock on the wall stays; the instant follows.
            instant: new Date(new Date(now.instant).getTime() + (now.clock - clock) * HOUR).toISOString(),
          }))
        }
      />
      <NumberField
        label="North from the plan’s up"
        unit="°"
        measure="angle"
        digits={1}
        step={5}
        value={toDegrees(sun.north)}
        onChange={(north) => change('North', { north: toRadians(north) })}
      />
      <NumberField
        label="Exposure"
        unit="stops"
        digits={1}
        step={0.1}
        min={-3}
        max={3}
        value={project.body.exposure}
        onChange={(exposure) => editBody('project', project, 'Exposure', (body) => ({ ...body, exposure }))}
      />
      <Line label="Sun stands">
        <Value unit="°">{toDegrees(azimuth).toFixed(0)}</Value>
        <span className="text-ink-faint">{compass(toDegrees(azimuth))}</span>
      </Line>
    </Card>
  );
}

const WINDS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const;
const compass = (degrees: number): string => WINDS[Math.round((((degrees % 360) + 360) % 360) / 45) % 8]!;
