import type { Kind, Row } from '@eskovan/core/document';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import { memo, type KeyboardEvent, type ReactElement, type ReactNode } from 'react';
import { howOf, type How } from '../../desk/selection.ts';
import { cx, type MenuItem } from '../../kit/index.ts';
import { MoreMenu } from './more-menu.tsx';
import { NewName } from './new-name.tsx';

/** Height of an entry with its gap, pixels. */
export const ENTRY = 60;

interface ShelfItemProps<K extends Kind> {
  row: Row<K>;
  /** Its place in the whole list. */
  index: number;
  mark: (row: Row<K>, index: number) => ReactNode;
  note: (row: Row<K>) => ReactNode;
  /** The one that the stage shows. */
  shown: boolean;
  chosen: boolean;
  renaming: boolean;
  /** What can be done with it, asked for when its menu opens. */
  menuOf: (row: Row<K>) => readonly MenuItem[];
  onRename: (row: Row<K>, name: string) => void;
  onRenaming: (id: string | null) => void;
  onSelect: (id: string, how: How) => void;
  /** Goes to the entry so many further. */
  onGo: (id: string, by: number, how: How) => void;
}

/**
 * One entry of a shelf: chosen by press, Enter or Space; moved by its own handle, or by Alt and arrows. While a long
 * list scrolls by, only entries that come in are drawn.
 */
export const ShelfItem = memo(Item) as <K extends Kind>(props: ShelfItemProps<K>) => ReactElement;

function Item<K extends Kind>({
  row,
  index,
  mark,
  note,
  shown,
  chosen,
  renaming,
  menuOf,
  onRename,
  onRenaming,
  onSelect,
  onGo,
}: ShelfItemProps<K>) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: row.id,
  });
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.altKey) return;
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (by !== undefined) onGo(row.id, by, event.shiftKey ? 'range' : 'only');
    else if (event.key === ' ' || event.key === 'Enter') onSelect(row.id, howOf(event));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <li
      ref={setNodeRef}
      data-entry={row.id}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={cx(
        'group relative flex items-center rounded-[9px] p-1.5',
        chosen ? 'bg-lagoon-wash' : 'hover:bg-ink/4',
        isDragging && 'z-10 shadow-lift',
      )}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={`Move ${row.name}`}
        className="-ml-2 flex h-8 w-6 shrink-0 cursor-grab items-center justify-center text-ink-faint opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
      >
        <GripVertical size={12} aria-hidden />
      </button>
      <button
        type="button"
        data-row={row.id}
        aria-current={shown}
        aria-pressed={chosen}
        className="flex min-w-0 flex-1 items-center gap-2.5 rounded-md text-left"
        onClick={(event) => onSelect(row.id, howOf(event))}
        onDoubleClick={() => onRenaming(row.id)}
        onKeyDown={onKeyDown}
      >
        {mark(row, index)}
        <span className="min-w-0 flex-1">
          <span className={cx('block truncate font-medium', renaming && 'invisible')}>{row.name}</span>
          <span className="block truncate font-mono text-xs text-ink-faint">{note(row)}</span>
        </span>
      </button>
      {renaming && (
        <NewName
          name={row.name}
          label={`New name of ${row.name}`}
          onName={(name) => onRename(row, name)}
          onDone={() => onRenaming(null)}
        />
      )}
      <MoreMenu of={row.name} items={() => menuOf(row)} className="top-1.5 right-1.5 border-rule! bg-paper!" />
    </li>
  );
}
