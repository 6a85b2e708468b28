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
import { useProject } from '../../data/use-project.ts';
import { fold, openFolded, useFolded } from '../../desk/folded.ts';
import { useChosenRows, type How } from '../../desk/selection.ts';
import { useKept, useStable, type MenuItem } from '../../kit/index.ts';
import { groupRows, renameGroup } from './group-rows.ts';
import { entriesOf, movedTo, type GroupsOf } from './shelf-groups.ts';
import { HEADING, ShelfHeading } from './shelf-heading.tsx';
import { ENTRY, ShelfItem } from './shelf-item.tsx';
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
  /** How rows belong to groups; each group has a heading, and its rows can be put away. */
  groups?: GroupsOf<K>;
  /** More for the menu of an entry, above what all have. */
  menu?: (row: Row<K>) => readonly MenuItem[];
  footer?: ReactNode;
  empty: ReactNode;
}

// The same objects every time: entries of a list whose hands are other ones are all drawn again.
const BY_POINTER = { activationConstraint: { distance: 5 } };
const BY_KEYS = { coordinateGetter: sortableKeyboardCoordinates };

const NONE: readonly string[] = [];

/** The list of a stage: search, reorder, rename in place, duplicate, delete with undo; by mouse and by keys. */
export function RowShelf<K extends Kind>(props: RowShelfProps<K>) {
  const { kind, title, rows, selectedId, onSelect, groups, footer, empty } = props;
  const [wanted, setWanted] = useState('');
  const [renaming, setRenaming] = useState<string | null>(null);
  const scroll = useRef<HTMLDivElement>(null);
  const chosen = useChosenRows(kind);
  const typed = wanted.trim().toLowerCase();
  const shown = typed
    ? rows.filter((row) => `${row.name} ${props.words?.(row) ?? ''}`.toLowerCase().includes(typed))
    : rows;
  const order = useKept(shown.map(({ id }) => id));
  const { project } = useProject();
  useEffect(() => openFolded(project.id), [project.id]);
  const folded = useFolded(({ projectId, list }) => (projectId === project.id ? list : NONE));
  const entries = entriesOf(
    shown,
    rows,
    (row) => groups?.of(row),
    // What is searched is shown wherever it stands.
    (group) => !typed && folded.includes(group),
  );
  const entryOf = (id: string) => entries.findIndex((entry) => entry.heading === null && entry.row.id === id);
  const slice = useSlice(scroll, entries.length, (i) => (entries[i]!.heading === null ? ENTRY : HEADING));
  // The shown one counts as chosen, also before anybody has pressed it.
  const ids = chosen.ids.length > 0 && selectedId === chosen.lead ? chosen.ids : selectedId ? [selectedId] : [];
  const deeds = useShelfCommands({ ...props, ids, onRename: setRenaming });
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER), useSensor(KeyboardSensor, BY_KEYS));
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const from = rows.findIndex((r) => r.id === active.id);
    const to = rows.findIndex((r) => r.id === over.id);
    const row = rows[from]!;
    const moved = movedTo(rows, from, to, groups);
    editRow(kind, row, `Move ${row.name}`, { order: moved.order, body: moved.body });
  };
  /** Brings one into sight; unfolds its group, where that is folded. */
  const show = (id: string) => {
    const at = entryOf(id);
    const group = groups?.of(rows.find((row) => row.id === id)!);
    if (at < 0 && group !== undefined) fold(project.id, group, false);
    else slice.bringIn(at);
  };
  /** Keys go to the neighbour in the list; the focus goes along. */
  const goTo = (id: string | undefined, how: How) => {
    if (id === undefined) return;
    onSelect(id, how, order);
    show(id);
    requestAnimationFrame(() => scroll.current?.querySelector<HTMLElement>(`[data-row="${id}"]`)?.focus());
  };
  const bringIn = useStable(show);
  // Whatever chose another one: a new one, the plan, an undo. What is new may be chosen before the list has it.
  const listed = selectedId !== null && order.includes(selectedId);
  useEffect(() => {
    if (selectedId && listed) bringIn(selectedId);
  }, [selectedId, listed, bringIn]);
  const drawn = selectedId !== null && entryOf(selectedId) >= 0;
  useEffect(() => {
    if (selectedId && drawn) bringIn(selectedId);
    // When its group was unfolded.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [drawn]);
  const menuOf = useStable((row: Row<K>) => [...(props.menu?.(row) ?? []), ...deeds.menuOf(row)]);
  const onRename = useStable(deeds.rename);
  const onChoose = useStable((id: string, how: How) => onSelect(id, how, order));
  const onGo = useStable((id: string, by: number, how: How) => {
    const listed = entries.flatMap((entry) => (entry.heading === null ? [entry.row.id] : []));
    goTo(listed[listed.indexOf(id) + by], how);
  });
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
              {entries
                .slice(slice.from, slice.to)
                .map((entry) =>
                  entry.heading === null ? (
                    <ShelfItem
                      key={entry.row.id}
                      row={entry.row}
                      index={entry.index}
                      mark={props.mark}
                      note={props.note}
                      shown={entry.row.id === selectedId}
                      chosen={ids.includes(entry.row.id)}
                      renaming={renaming === entry.row.id}
                      menuOf={menuOf}
                      onRename={onRename}
                      onRenaming={setRenaming}
                      onSelect={onChoose}
                      onGo={onGo}
                    />
                  ) : (
                    <ShelfHeading
                      key={`group ${entry.heading} ${entry.rows[0]!.id}`}
                      name={entry.heading}
                      rows={entry.rows}
                      folded={entry.folded}
                      onFold={(away) => fold(project.id, entry.heading, away)}
                      onRename={(some, name) => groups && renameGroup(kind, some, name, groups)}
                      onUngroup={(some) => groups && groupRows(kind, some, undefined, groups)}
                    />
                  ),
                )}
            </ul>
          </SortableContext>
        </DndContext>
      </div>
      {footer && <footer className="border-t border-rule p-2.5">{footer}</footer>}
    </aside>
  );
}
