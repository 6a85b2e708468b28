import type { Vec3 } from '@eskovan/core/document';
import { Plus, X } from 'lucide-react';
import { toast } from 'sonner';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, NameBox, NumberField, Value } from '../../kit/index.ts';
import { isNameOf } from '../../site/names.ts';
import { useSiteState } from '../../site/site-state.ts';
import { useSiteData } from '../../site/use-site.ts';
import { isFree, keepStoreys, nextHeight, withStorey } from './edit-storeys.ts';

/** What was found to stand on: storeys with their rooms. Names and heights can be typed over. */
export function StoreysCard() {
  const { data } = useSiteData();
  const { project } = useProject();
  // Heights are those of the plan that is shown: while it is being made anew they cannot be changed again.
  const settled = useSiteState(({ of, wanted }) => of === wanted);
  if (!data) return null;
  const { storeys } = data.survey;
  const nameStorey = (elevation: number, name: string) =>
    editBody('project', project, `Name of ${name}`, (body) => ({
      ...body,
      storeyNames: [...body.storeyNames.filter((known) => !isNameOf(known, elevation)), { elevation, name }],
    }));
  const nameRoom = (place: Vec3, name: string) =>
    editBody('project', project, `Name of ${name}`, (body) => ({
      ...body,
      roomNames: [
        ...body.roomNames.filter((known) => Math.hypot(...known.at.map((v, k) => v - place[k]!)) >= 0.5),
        { at: place, name },
      ],
    }));
  const { storeyChanges } = project.body;
  const heights = storeys.map(({ elevation }) => elevation);
  const move = (from: number, to: number) => {
    const others = heights.filter((height) => height !== from);
    if (!isFree(others, to)) {
      toast('There is a storey at that height already.');
      return;
    }
    keepStoreys(project, 'Height of a storey', (body) => withStorey(body.storeyChanges, from, to), { from, to });
  };
  const leaveOut = (name: string, elevation: number) =>
    keepStoreys(project, `Leave out ${name}`, (body) => withStorey(body.storeyChanges, elevation, null));
  const add = () =>
    keepStoreys(project, 'Add a storey', (body) => [
      ...body.storeyChanges,
      { found: null, elevation: nextHeight(heights) },
    ]);
  return (
    <Card title="Storeys and rooms" note={settled ? String(storeys.length) : 'measuring again…'}>
      <ul className="grid gap-1">
        {[...storeys].reverse().map((storey) => (
          <li key={storey.elevation}>
            <div className="flex items-center gap-1">
              <NameBox label="Storey" name={storey.name} onName={(name) => nameStorey(storey.elevation, name)} strong />
              <span className="ml-auto shrink-0">
                <NumberField
                  bare
                  label={`Height of ${storey.name}`}
                  unit="m"
                  measure="length"
                  step={0.05}
                  value={storey.elevation}
                  disabled={!settled}
                  onChange={(to) => move(storey.elevation, to)}
                />
              </span>
              <span className="w-14 shrink-0 text-right">
                <Value unit={storey.area < 1e5 ? 'm²' : 'km²'}>
                  {storey.area < 1e5 ? storey.area.toFixed(0) : (storey.area / 1e6).toFixed(2)}
                </Value>
              </span>
              <Button
                tone="quiet"
                small
                icon={<X size={13} />}
                aria-label={`Leave out ${storey.name}`}
                disabled={!settled || storeys.length === 1}
                onClick={() => leaveOut(storey.name, storey.elevation)}
              />
            </div>
            <ul>
              {storey.rooms.map((room) => (
                <li key={room.at.join()} className="flex items-center gap-2 pl-3">
                  <NameBox label="Room" name={room.name} onName={(name) => nameRoom(room.at, name)} />
                  <span className="ml-auto shrink-0 text-ink-soft">
                    <Value unit="m²">{room.area.toFixed(1)}</Value>
                  </span>
                </li>
              ))}
              {storey.voids.map(({ area, at }) => (
                <li key={at.join()} className="flex items-center gap-2 pl-3 text-ink-faint italic">
                  <span>Void</span>
                  <span className="ml-auto shrink-0">
                    <Value unit="m²">{area.toFixed(1)}</Value>
                  </span>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
      <div className="mt-1.5 flex gap-1.5">
        <Button small icon={<Plus size={13} />} disabled={!settled} onClick={add}>
          Add a storey
        </Button>
        {storeyChanges.length > 0 && (
          <Button small onClick={() => keepStoreys(project, 'Storeys as found', () => [])}>
            As found
          </Button>
        )}
      </div>
    </Card>
  );
}
