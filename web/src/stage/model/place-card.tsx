import { toDegrees, toRadians } from '@eskovan/core/geometry';
import type { SunSetting } from '@eskovan/core/document';
import { liveRows } from '../../data/changes.ts';
import { editBody } from '../../data/edit-row.ts';
import { dispatch } from '../../data/undo.ts';
import { bodyChanges } from '../../data/edits.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, NumberField } from '../../kit/index.ts';
import { useModels } from '../../site/use-site.ts';

const HOUR = 3_600_000;

/** Where the project is, what its clocks say, and where north is. */
export function PlaceCard() {
  const { project, light } = useProject();
  const { sun } = project.body;
  const change = (label: string, values: Partial<SunSetting> | ((now: SunSetting) => Partial<SunSetting>)) =>
    editBody('project', project, label, (body) => ({
      ...body,
      sun: { ...body.sun, ...(typeof values === 'function' ? values(body.sun) : values) },
    }));
  /** The clock on the wall stays, in every light; the instants follow. */
  const setClock = (clock: number) => {
    const shift = (instant: string) => new Date(new Date(instant).getTime() + (sun.clock - clock) * HOUR).toISOString();
    dispatch(project.id, 'Clock', [
      ...bodyChanges('project', project, (body) => ({
        ...body,
        sun: { ...body.sun, clock, instant: shift(body.sun.instant) },
      })),
      ...liveRows(light).flatMap((row) =>
        bodyChanges('light', row, (body) => ({ ...body, instant: shift(body.instant) })),
      ),
    ]);
  };
  // What a file says of its place is offered until it is so.
  const offered = useModels().filter(({ body: { declares, placement } }) => {
    const { latitude = sun.latitude, longitude = sun.longitude, north } = declares;
    const turn = north === undefined ? sun.north : north - placement.turn;
    return [latitude - sun.latitude, longitude - sun.longitude, turn - sun.north].some((off) => Math.abs(off) > 1e-6);
  });
  return (
    <Card title="Place and north">
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
      <NumberField
        label="Clock ahead of universal time"
        unit="h"
        digits={1}
        value={sun.clock}
        step={0.5}
        min={-14}
        max={14}
        onChange={setClock}
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
    </Card>
  );
}
