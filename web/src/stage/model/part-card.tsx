import { ownName, aspectOf, type PartLook } from '@eskovan/core/document';
import { joinBounds, middle } from '@eskovan/core/geometry';
import { DoorOpen, Eye, EyeOff, Focus, Lightbulb, RotateCw, Route, Scan, Sparkles, X } from 'lucide-react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, Length, Line, Menu, Value } from '../../kit/index.ts';
import { firstLook } from '@eskovan/core/site';
import { useModels } from '../../site/use-site.ts';
import { useParts } from '../../site/use-parts.ts';
import { addAlong, addAppear, addDim, addHinge, addSpin, glows } from './edit-actions.ts';
import { LookFields } from './look-fields.tsx';
import { changeParts, chooseMaterial, namesWithin } from './edit-parts.ts';

/** So many materials of a group are named. */
const MOST_MATERIALS = 6;

/** The chosen part: frame it, show it alone, hide it, give it another material. */
export function PartCard() {
  const document = useProject();
  const part = useWorkbench((state) => state.part);
  const alone = useWorkbench((state) => state.alone);
  const parts = useParts();
  const row = useModels().find(({ id }) => id === part?.model);
  if (!part || !row) return null;
  const names = namesWithin(parts, part);
  const infos = parts.filter(({ model, name }) => model === part.model && names.includes(name));
  if (infos.length === 0) return null;
  const label = ownName(part.name);
  const look: PartLook = row.body.parts[names[0]!] ?? {};
  const came = infos[0]!.materials[0]!;
  const made = row.body.materials[came.name];
  const materials = [...new Set(infos.flatMap((info) => info.materials.map(({ name }) => name)))];
  const hidden = names.every((name) => row.body.parts[name]?.hidden);
  const bounds = joinBounds(infos.map((info) => info.bounds))!;
  const size = bounds.max.map((value, k) => value - bounds.min[k]!) as [number, number, number];
  const ways = liveRows(document.move).flatMap(({ name, body }) =>
    'path' in body && body.path.nodes.length > 1 ? [{ name, body }] : [],
  );
  const isAlone = alone?.model === part.model && alone.name === part.name;
  const change = (words: string, values: Parameters<typeof changeParts>[3]) =>
    changeParts(row, names, `${words} of ${label}`, values);
  return (
    <Card
      title={label}
      note={
        <button
          type="button"
          aria-label="Choose nothing"
          className="rounded-md p-0.5 hover:text-ink"
          onClick={() => workbench.set({ part: null, alone: null })}
        >
          <X size={14} />
        </button>
      }
    >
      <div className="mb-1.5 flex flex-wrap gap-1.5">
        <Button
          small
          icon={<Focus size={13} />}
          onClick={() => workbench.set({ scout: firstLook(bounds, aspectOf(document.project.body)) })}
        >
          Frame it
        </Button>
        <Button
          small
          icon={<Scan size={13} />}
          pressed={isAlone}
          onClick={() => workbench.set({ alone: isAlone ? null : part })}
        >
          Alone
        </Button>
        <Button
          small
          icon={hidden ? <Eye size={13} /> : <EyeOff size={13} />}
          onClick={() => change(hidden ? 'Show' : 'Hide', { hidden: hidden ? undefined : true })}
        >
          {hidden ? 'Show' : 'Hide'}
        </Button>
        <Button small icon={<RotateCw size={13} />} onClick={() => addSpin(document, part, row.body.placement.up)}>
          Spin
        </Button>
        <Button small icon={<DoorOpen size={13} />} onClick={() => addHinge(document, part)}>
          Open
        </Button>
        <Button small icon={<Sparkles size={13} />} onClick={() => addAppear(document, part, names.length > 1)}>
          Appear
        </Button>
        {infos.some(glows) && (
          <Button small icon={<Lightbulb size={13} />} onClick={() => addDim(document, part)}>
            Dim
          </Button>
        )}
        {ways.length > 0 && (
          <Menu
            trigger={
              <Button small icon={<Route size={13} />}>
                Along a path
              </Button>
            }
            items={ways.map(({ name, body }) => ({
              label: name,
              onSelect: () => addAlong(document, part, body.path, middle(bounds)),
            }))}
          />
        )}
      </div>
      <Line label="Size">
        <Length metres={size} between=" × " />
      </Line>
      <Line label="Triangles">
        <Value>{infos.reduce((sum, { triangles }) => sum + triangles, 0).toLocaleString('en')}</Value>
      </Line>
      <div className="grid grid-cols-[auto_minmax(0,1fr)] items-baseline gap-x-3 py-1">
        <span className="text-ink-soft">{materials.length === 1 ? 'Material' : 'Materials'}</span>
        <span className="flex flex-wrap justify-end gap-x-2">
          {materials.slice(0, MOST_MATERIALS).map((name) => (
            <button
              key={name}
              type="button"
              title={`Change ${name} wherever it is used`}
              className="max-w-full truncate rounded-sm font-medium text-lagoon hover:underline"
              onClick={() => chooseMaterial({ model: row.id, name })}
            >
              {name}
            </button>
          ))}
          {materials.length > MOST_MATERIALS && (
            <span className="text-ink-faint">and {materials.length - MOST_MATERIALS} more</span>
          )}
        </span>
      </div>
      <LookFields look={look} came={{ ...came, ...made }} back="Own material" onChange={change} />
    </Card>
  );
}
