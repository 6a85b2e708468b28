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
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Copy, MoreHorizontal, Pencil, Search, Trash2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { dispatch } from '../../data/edits.ts';
import { orderBetween } from '../../data/order.ts';
import { Button, cx, Menu, type MenuItem } from '../../kit/index.ts';
import { undoWithWords } from '../../app/top-bar.tsx';

interface RowShelfProps<K extends Kind> {
  kind: K;
  title: string;
  rows: readonly Row<K>[];
  selectedId: string | null;
  onSelect: (id: string) => void;
  /** Picture or mark at the left. */
  mark: (row: Row<K>, index: number) => ReactNode;
  note: (row: Row<K>) => ReactNode;
  /** Makes a copy's body where it must differ. */
  copyBody?: (row: Row<K>) => Row<K>['body'];
  /** More for the menu of an entry, above what all have. */
  menu?: (row: Row<K>) => readonly MenuItem[];
  footer?: ReactNode;
  empty: ReactNode;
}

/** The list of a stage: search, reorder by drag, rename in place, duplicate, delete with undo. */
export function RowShelf<K extends Kind>(props: RowShelfProps<K>) {
  const { kind, title, rows, selectedId, onSelect, footer, empty } = props;
  const [wanted, setWanted] = useState('');
  const shown = rows.filter((row) => row.name.toLowerCase().includes(wanted.trim().toLowerCase()));
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const row = rows.find((r) => r.id === active.id)!;
    const to = rows.findIndex((r) => r.id === over.id);
    const order = orderBetween(rows, rows.indexOf(row), to);
    dispatch(row.projectId, `Move ${row.name}`, [{ op: 'change', kind, id: row.id, values: { order } }]);
  };
  return (
    <aside aria-label={title} className="flex h-full flex-col bg-paper">
      <header className="flex items-baseline justify-between px-3.5 pt-3 pb-1.5">
        <h2 className="font-semibold text-ink-soft">{title}</h2>
        <span className="text-ink-faint">{rows.length}</span>
      </header>
      {rows.length > 6 && (
        <label className="mx-2.5 mb-1.5 flex h-7 items-center gap-1.5 rounded-lg border border-rule bg-raised px-2">
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
      <div className="min-h-0 flex-1 overflow-y-auto px-2">
        {rows.length === 0 && <div className="p-2 text-ink-soft">{empty}</div>}
        {rows.length > 0 && shown.length === 0 && <p className="p-2 text-ink-soft">Nothing is called that.</p>}
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
          <SortableContext items={shown.map((row) => row.id)} strategy={verticalListSortingStrategy}>
            <ul className="grid grid-cols-[minmax(0,1fr)] gap-0.5">
              {shown.map((row) => (
                <ShelfItem
                  key={row.id}
                  {...props}
                  row={row}
                  index={rows.indexOf(row)}
                  selected={row.id === selectedId}
                  onSelect={onSelect}
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

interface ShelfItemProps<K extends Kind> extends RowShelfProps<K> {
  row: Row<K>;
  index: number;
  selected: boolean;
}

function ShelfItem<K extends Kind>({
  kind,
  row,
  index,
  selected,
  onSelect,
  mark,
  note,
  copyBody,
  menu,
  rows,
}: ShelfItemProps<K>) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: row.id });
  const [renaming, setRenaming] = useState<string | null>(null);
  const rename = () => {
    const name = renaming?.trim() ?? '';
    setRenaming(null);
    if (name !== '' && name !== row.name)
      dispatch(row.projectId, `Rename ${row.name}`, [
        { op: 'change', kind, id: row.id, values: { name: name.slice(0, 120) } },
      ]);
  };
  const remove = () => {
    dispatch(row.projectId, `Delete ${row.name}`, [{ op: 'delete', kind, id: row.id }]);
    toast(`Deleted ${row.name}`, { action: { label: 'Undo', onClick: () => undoWithWords(row.projectId) } });
  };
  const duplicate = () => {
    const at = rows.indexOf(row);
    const next = rows[at + 1];
    const id = crypto.randomUUID();
    dispatch(row.projectId, `Duplicate ${row.name}`, [
      {
        op: 'create',
        kind,
        id,
        name: `${row.name} copy`.slice(0, 120),
        order: next ? (row.order + next.order) / 2 : row.order + 1,
        body: copyBody?.(row) ?? row.body,
      },
    ]);
    onSelect(id);
  };
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={cx(
        'group relative flex items-center gap-2.5 rounded-[9px] p-1.5',
        selected ? 'bg-lagoon-wash' : 'hover:bg-ink/4',
        isDragging && 'z-10 shadow-lift',
      )}
    >
      <button
        type="button"
        aria-current={selected}
        className="flex min-w-0 flex-1 items-center gap-2.5 rounded-md text-left"
        onClick={() => onSelect(row.id)}
        onDoubleClick={() => setRenaming(row.name)}
        {...listeners}
        {...attributes}
        role="button"
      >
        {mark(row, index)}
        <span className="min-w-0 flex-1">
          <span className={cx('block truncate font-medium', renaming !== null && 'invisible')}>{row.name}</span>
          <span className="block truncate font-mono text-xs text-ink-faint">{note(row)}</span>
        </span>
      </button>
      {renaming !== null && (
        <input
          autoFocus
          aria-label={`New name of ${row.name}`}
          maxLength={120}
          value={renaming}
          onFocus={(event) => event.target.select()}
          onChange={(event) => setRenaming(event.target.value)}
          onBlur={rename}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Enter') rename();
            if (event.key === 'Escape') setRenaming(null);
          }}
          className="absolute inset-x-1.5 top-1 h-7 rounded-md border border-lagoon bg-raised px-1.5 font-medium"
        />
      )}
      <Menu
        trigger={
          <Button
            tone="quiet"
            small
            icon={<MoreHorizontal size={15} />}
            aria-label={`More for ${row.name}`}
            className="absolute! top-1.5 right-1.5 border-rule! bg-paper! opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 data-[state=open]:opacity-100"
          />
        }
        items={[
          ...(menu?.(row) ?? []),
          // Waits until the menu has given its focus back.
          { label: 'Rename', icon: <Pencil size={13} />, onSelect: () => setTimeout(() => setRenaming(row.name), 60) },
          { label: 'Duplicate', icon: <Copy size={13} />, onSelect: duplicate },
          { label: 'Delete', icon: <Trash2 size={13} />, danger: true, onSelect: remove },
        ]}
      />
    </li>
  );
}
