import type { Vec3 } from '@eskovan/core/document';
import { useState } from 'react';
import { editBody } from '../../data/edit-body.ts';
import { useProject } from '../../data/use-project.ts';
import { Card, Value } from '../../kit/index.ts';
import { useSiteData } from '../../site/use-site.ts';

/** What was found to stand on: storeys with their rooms. Names can be typed over. */
export function StoreysCard() {
  const { data } = useSiteData();
  const { project } = useProject();
  if (!data) return null;
  const { storeys } = data.survey;
  const nameStorey = (elevation: number, name: string) =>
    editBody('project', project, `Name of ${name}`, (body) => ({
      ...body,
      storeyNames: [
        ...body.storeyNames.filter((known) => Math.abs(known.elevation - elevation) >= 0.5),
        { elevation, name },
      ],
    }));
  const nameRoom = (place: Vec3, name: string) =>
    editBody('project', project, `Name of ${name}`, (body) => ({
      ...body,
      roomNames: [
        ...body.roomNames.filter((known) => Math.hypot(...known.at.map((v, k) => v - place[k]!)) >= 0.5),
        { at: place, name },
      ],
    }));
  return (
    <Card title="Storeys and rooms" note={`${storeys.length} found`}>
      <ul className="grid gap-1">
        {[...storeys].reverse().map((storey) => (
          <li key={storey.elevation}>
            <div className="flex items-center gap-2">
              <NameBox label="Storey" name={storey.name} onName={(name) => nameStorey(storey.elevation, name)} strong />
              <span className="ml-auto shrink-0">
                <Value unit="m">{`${storey.elevation < 0 ? '−' : '+'}${Math.abs(storey.elevation).toFixed(2)}`}</Value>
              </span>
              <span className="w-18 shrink-0 text-right">
                <Value unit="m²">{storey.area.toFixed(0)}</Value>
              </span>
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
            </ul>
          </li>
        ))}
      </ul>
    </Card>
  );
}

interface NameBoxProps {
  label: string;
  name: string;
  onName: (name: string) => void;
  strong?: boolean;
}

/** A name that becomes a field when it is pressed. */
function NameBox({ label, name, onName, strong }: NameBoxProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    const next = typed?.trim().slice(0, 80) ?? '';
    setTyped(null);
    if (next !== '' && next !== name) onName(next);
  };
  return (
    <input
      aria-label={`${label} name: ${name}`}
      value={typed ?? name}
      maxLength={80}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(null);
      }}
      className={`h-6.5 w-full min-w-0 truncate rounded-md border border-transparent bg-transparent px-1 -ml-1 hover:border-rule focus:border-lagoon focus:bg-raised ${strong ? 'font-medium' : 'text-ink-soft'}`}
    />
  );
}
