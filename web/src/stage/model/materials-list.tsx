import { useMemo, useRef, type KeyboardEvent } from 'react';
import { useWorkbench } from '../../desk/workbench.ts';
import { cx } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import { hexOf } from './colour.ts';
import { chooseMaterial, useChosenModel } from './edit-parts.ts';
import { materialsOf } from './materials.ts';

/** The named materials of the chosen model: find one, choose it, see where it is; by mouse and by keys. */
export function MaterialsList({ wanted }: { wanted: string }) {
  const parts = useParts();
  const row = useChosenModel();
  const chosen = useWorkbench((state) => state.material);
  const list = useRef<HTMLUListElement>(null);
  const all = useMemo(() => (row ? materialsOf(parts, row.id) : []), [parts, row]);
  if (!row) return null;
  const words = wanted.trim().toLowerCase();
  const found = all.filter(({ name }) => name.toLowerCase().includes(words));
  const at = found.findIndex(({ name }) => chosen?.model === row.id && chosen.name === name);
  const onKeyDown = (event: KeyboardEvent) => {
    if ((event.key === 'Enter' || event.key === ' ') && at < 0 && found[0]) {
      event.preventDefault();
      chooseMaterial({ model: row.id, name: found[0].name });
    }
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: found.length - 1 }[event.key];
    const next = to === undefined ? undefined : found[to];
    if (!next) return;
    event.preventDefault();
    chooseMaterial({ model: row.id, name: next.name });
    requestAnimationFrame(() => list.current?.querySelector<HTMLElement>('[aria-selected=true]')?.focus());
  };
  return (
    <>
      <ul ref={list} role="listbox" aria-label="Materials of the model">
        {found.map(({ name, color, parts: count }, i) => (
          <li
            key={name}
            role="option"
            aria-selected={i === at}
            tabIndex={i === Math.max(0, at) ? 0 : -1}
            title={name}
            className={cx(
              'flex h-7 cursor-default items-center gap-2 rounded-md px-2 focus-visible:-outline-offset-2',
              i === at ? 'bg-lagoon-wash' : 'hover:bg-ink/4',
            )}
            onClick={() => chooseMaterial({ model: row.id, name })}
            onKeyDown={onKeyDown}
          >
            <span
              aria-hidden
              className="h-3.5 w-3.5 shrink-0 rounded-full border border-rule"
              style={{ backgroundColor: hexOf(row.body.materials[name]?.color ?? color) }}
            />
            <span className="min-w-0 flex-1 truncate">{name}</span>
            <span className="shrink-0 font-mono text-sm text-ink-faint">{count}</span>
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="p-2 text-ink-soft">No material is called that.</p>}
    </>
  );
}
