import type { Kind, Row } from '@eskovan/core/document';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Search } from 'lucide-react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { editRow } from '../../data/edit-row.ts';
import { orderBetween } from '../../data/order.ts';
import { useChosenRows, type How } from '../../desk/selection.ts';
import { useKept, useStable, type MenuItem } from '../../kit/index.ts';
import { ShelfItem } from './shelf-item.tsx';
import { useShelfCommands } from './shelf-commands.tsx';
import { useSlice } from './use-slice.ts';

export interface RowShelfProps<K extends Kind> {
  kind: K;
  title: string;
  rows: readonly Row<K>[];
  /** The one that is shown. */
  selectedId: string | null;
  onSelect: (id: string, how: How, order: readonly string[]) => void;
  /** Picture or mark at the left. */
  mark: (row: Row<K>, index: number) => ReactNode;
  note: (row: Row<K>) => ReactNode;
  /** Other words that a row is found by. */
  words?: (row: Row<K>) => string;
  /** Makes a copy's body where it must differ. */
  copyBody?: (row: Row<K>) => Row<K>['body'];
  /** More for the menu of an entry, above what all have. */
  menu?: (row: Row<K>) => readonly MenuItem[];
  footer?: ReactNode;
  empty: ReactNode;
}

// The same objects every time: entries of a list whose hands are other ones are all drawn again.
const BY_POINTER = { activationConstraint: { distance: 5 } };
const BY_KEYS = { coordinateGetter: sortableKeyboardCoordinates };

/** The list of a stage: search, reorder, rename in place, duplicate, delete with undo; by mouse and by keys. */
export function RowShelf<K extends Kind>(props: RowShelfProps<K>) {
  const { kind, title, rows, selectedId, onSelect, footer, empty } = props;
  const [wanted, setWanted] = useState('');
  const [renaming, setRenaming] = useState<string | null>(null);
  const scroll = useRef<HTMLDivElement>(null);
  const chosen = useChosenRows(kind);
  const typed = wanted.trim().toLowerCase();
  const shown = typed
    ? rows.filter((row) => `${row.name} ${props.words?.(row) ?? ''}`.toLowerCase().includes(typed))
    : rows;
  const order = useKept(shown.map(({ id }) => id));
  const slice = useSlice(scroll, shown.length);
  // The shown one counts as chosen, also before anybody has pressed it.
  const ids = chosen.ids.length > 0 && selectedId === chosen.lead ? chosen.ids : selectedId ? [selectedId] : [];
  const deeds = useShelfCommands({ ...props, ids, onRename: setRenaming });
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER), useSensor(KeyboardSensor, BY_KEYS));
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const row = rows.find((r) => r.id === active.id)!;
    const to = rows.findIndex((r) => r.id === over.id);
    editRow(kind, row, `Move ${row.name}`, { order: orderBetween(rows, rows.indexOf(row), to) });
  };
  /** Keys go to the neighbour in the list; the focus goes along. */
  const goTo = (id: string | undefined, how: How) => {
    if (id === undefined) return;
    onSelect(id, how, order);
    slice.bringIn(order.indexOf(id));
    requestAnimationFrame(() => scroll.current?.querySelector<HTMLElement>(`[data-row="${id}"]`)?.focus());
  };
  const bringIn = useStable((id: string) => slice.bringIn(order.indexOf(id)));
  // Whatever chose another one: a new one, the plan, an undo. What is new may be chosen before the list has it.
  const listed = selectedId !== null && order.includes(selectedId);
  useEffect(() => {
    if (selectedId && listed) bringIn(selectedId);
  }, [selectedId, listed, bringIn]);
  const menuOf = useStable((row: Row<K>) => [...(props.menu?.(row) ?? []), ...deeds.menuOf(row)]);
  const onRename = useStable(deeds.rename);
  const onChoose = useStable((id: string, how: How) => onSelect(id, how, order));
  const onGo = useStable((id: string, by: number, how: How) => goTo(order[order.indexOf(id) + by], how));
  return (
    <aside aria-label={title} className="flex h-full flex-col bg-paper">
      <header className="flex items-baseline justify-between px-3.5 pt-3 pb-1.5">
        <h2 className="font-semibold text-ink-soft">{title}</h2>
        <span className="text-ink-faint">
          {ids.length > 1 ? `${ids.length} of ${rows.length} chosen` : rows.length}
        </span>
      </header>
      {rows.length > 6 && (
        <label className="mx-2.5 mb-1.5 flex h-7 shrink-0 items-center gap-1.5 rounded-lg border border-rule bg-raised px-2">
          <Search size={13} aria-hidden className="text-ink-faint" />
          <input
            aria-label={`Search ${title.toLowerCase()}`}
            className="w-full bg-transparent outline-none"
            placeholder="Search"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
          />
        </label>
      )}
      <div ref={scroll} className="min-h-0 flex-1 overflow-y-auto px-2">
        {rows.length === 0 && <div className="p-2 text-ink-soft">{empty}</div>}
        {rows.length > 0 && shown.length === 0 && <p className="p-2 text-ink-soft">Nothing is called that.</p>}
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
          <SortableContext items={order as string[]} strategy={verticalListSortingStrategy}>
            <ul className="grid grid-cols-[minmax(0,1fr)] gap-0.5" style={slice.space}>
              {shown.slice(slice.from, slice.to).map((row) => (
                <ShelfItem
                  key={row.id}
                  row={row}
                  index={rows.indexOf(row)}
                  mark={props.mark}
                  note={props.note}
                  shown={row.id === selectedId}
                  chosen={ids.includes(row.id)}
                  renaming={renaming === row.id}
                  menuOf={menuOf}
                  onRename={onRename}
                  onRenaming={setRenaming}
                  onSelect={onChoose}
                  onGo={onGo}
                />
              ))}
            </ul>
          </SortableContext>
        </DndContext>
      </div>
      {footer && <footer className="border-t border-rule p-2.5">{footer}</footer>}
    </aside>
  );
}
