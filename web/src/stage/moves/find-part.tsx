import { useId, useState } from 'react';
import { cx } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import type { PartInfo } from '../../worker/parts.ts';

/** Offered at once; more letters narrow them down. */
const MOST = 30;

/** Finds a part by its name: typed letters narrow the list, arrows and Enter choose from it. */
export function FindPart({ onPart }: { onPart: (part: PartInfo) => void }) {
  const parts = useParts();
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const list = useId();
  const words = typed.trim().toLowerCase();
  const found = parts.filter(({ name }) => name.toLowerCase().includes(words)).slice(0, MOST);
  const active = found[Math.min(at, found.length - 1)];
  return (
    <div className="mt-1.5">
      <input
        role="combobox"
        aria-expanded
        aria-controls={list}
        aria-autocomplete="list"
        aria-label="Find an object"
        {...(active ? { 'aria-activedescendant': `${list}-${found.indexOf(active)}` } : {})}
        placeholder="Find an object"
        className="h-7 w-full rounded-lg border border-rule bg-raised px-2"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(found.length - 1, at + 1));
          else if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1));
          else if (event.key === 'Enter' && active) onPart(active);
          else return;
          event.preventDefault();
        }}
      />
      <ul id={list} role="listbox" data-always aria-label="Objects" className="mt-1 max-h-40 overflow-y-auto">
        {found.map((part, i) => (
          <li
            key={`${part.model} ${part.name}`}
            id={`${list}-${i}`}
            role="option"
            aria-selected={part === active}
            className={cx('cursor-pointer truncate rounded-md px-2 py-0.5', part === active && 'bg-lagoon-wash')}
            title={part.name}
            onPointerDown={(event) => {
              event.preventDefault();
              onPart(part);
            }}
          >
            {part.name}
          </li>
        ))}
      </ul>
      {parts.length > 0 && found.length === 0 && <p className="px-2 text-ink-soft">No object is called that.</p>}
    </div>
  );
}
