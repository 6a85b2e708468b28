import { useId, useState, type ReactNode } from 'react';
import { cx } from './cx.ts';

interface FinderProps<T> {
  /** What is found, in one word: names the field and, in the plural, the list. */
  label: string;
  listLabel: string;
  placeholder: string;
  /** What fits the typed words. */
  find: (typed: string) => readonly T[];
  keyOf: (item: T) => string;
  children: (item: T) => ReactNode;
  onChoose: (item: T) => void;
  /** Said where nothing fits. */
  nothing: string;
  autoFocus?: boolean;
  className?: string;
}

/** Finds one of many by its words: typing narrows the list, arrows and Enter choose from it. */
export function Finder<T>({
  label,
  listLabel,
  placeholder,
  find,
  keyOf,
  children,
  onChoose,
  nothing,
  autoFocus,
  className,
}: FinderProps<T>) {
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const list = useId();
  const found = find(typed);
  const active = found[Math.min(at, found.length - 1)];
  return (
    <>
      <input
        role="combobox"
        aria-expanded
        aria-controls={list}
        aria-autocomplete="list"
        aria-label={label}
        {...(active ? { 'aria-activedescendant': `${list}-${found.indexOf(active)}` } : {})}
        autoFocus={autoFocus ?? false}
        placeholder={placeholder}
        className="h-8 w-full rounded-lg border border-rule bg-raised px-2.5"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(found.length - 1, at + 1));
          else if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1));
          else if (event.key === 'Enter' && active) onChoose(active);
          else return;
          event.preventDefault();
        }}
      />
      <ul
        id={list}
        role="listbox"
        data-always
        aria-label={listLabel}
        className={cx('mt-1.5 overflow-y-auto', className)}
      >
        {found.map((item, i) => (
          <li
            key={keyOf(item)}
            id={`${list}-${i}`}
            role="option"
            aria-selected={item === active}
            className={cx(
              'flex min-h-6 cursor-pointer items-center gap-3 rounded-md px-2 py-0.5',
              item === active && 'bg-lagoon-wash',
            )}
            onPointerDown={(event) => {
              event.preventDefault();
              onChoose(item);
            }}
          >
            {children(item)}
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="px-2 text-ink-soft">{nothing}</p>}
    </>
  );
}
