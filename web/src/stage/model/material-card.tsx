import { ownName } from '@eskovan/core/document';
import { X } from 'lucide-react';
import { useWorkbench } from '../../desk/workbench.ts';
import { Card, Line, Segmented, Value } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import { useModels } from '../../site/use-site.ts';
import { changeMaterial, chooseMaterial, choosePart } from './edit-parts.ts';
import { LookFields } from './look-fields.tsx';
import { materialsOf, partsOf } from './materials.ts';

/** Parts that are named; of more only the number. */
const NAMED = 5;

/** The chosen material: change it wherever the model has it. */
export function MaterialCard() {
  const chosen = useWorkbench((state) => state.material);
  const parts = useParts();
  const row = useModels().find(({ id }) => id === chosen?.model);
  const came = chosen && materialsOf(parts, chosen.model).find(({ name }) => name === chosen.name);
  if (!row || !came) return null;
  const look = row.body.materials[came.name] ?? {};
  const users = partsOf(parts, chosen);
  const own = users.filter(({ name }) => {
    const part = row.body.parts[name];
    return part?.color || part?.roughness !== undefined || part?.clay;
  }).length;
  const light = look.light ?? (came.unlit ? 'unlit' : 'lit');
  const change = (words: string, values: Parameters<typeof changeMaterial>[3]) =>
    changeMaterial(row, came.name, words, values);
  return (
    <Card
      title={came.name}
      note={
        <button
          type="button"
          aria-label="Choose no material"
          className="rounded-md p-0.5 hover:text-ink"
          onClick={() => chooseMaterial(null)}
        >
          <X size={14} />
        </button>
      }
    >
      <Line label="Material of">
        <Value>{`${users.length.toLocaleString('en')} ${users.length === 1 ? 'part' : 'parts'}`}</Value>
      </Line>
      <ul className="mb-1 text-ink-soft">
        {users.slice(0, NAMED).map(({ model, name }) => (
          <li key={name}>
            <button
              type="button"
              title={name}
              className="block max-w-full truncate rounded-sm pl-3 hover:text-ink hover:underline"
              onClick={() => choosePart({ model, name })}
            >
              {ownName(name)}
            </button>
          </li>
        ))}
        {users.length > NAMED && <li className="pl-3 text-ink-faint">and {users.length - NAMED} more</li>}
      </ul>
      <LookFields look={look} came={came} back="Own look" onChange={change}>
        <Line label="Light">
          <Segmented
            label="Light"
            value={light}
            options={[
              { value: 'lit', label: 'Lit' },
              { value: 'unlit', label: 'Unlit' },
            ]}
            onChange={(value) => change('Light', { light: value })}
          />
        </Line>
        {light === 'unlit' && (
          <p className="text-sm text-ink-soft">Its colours hold their light already, as photographed ones do.</p>
        )}
        {came.textured && !look.color && (
          <p className="text-sm text-ink-soft">Its picture stays until another colour is chosen.</p>
        )}
        {own > 0 && (
          <p className="text-sm text-ink-soft">
            {own === 1 ? 'One part has' : `${own} parts have`} a look of their own, which stays.
          </p>
        )}
      </LookFields>
    </Card>
  );
}
