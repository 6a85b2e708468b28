import { changesBetween, type Change, type Kind, type Row } from '@eskovan/core/document';
import { ArrowDown, ArrowUp, Copy, FolderMinus, FolderPlus, Pencil, Trash2 } from 'lucide-react';
import { toast } from 'sonner';
import { making, removing } from '../../data/changes.ts';
import { editRow } from '../../data/edit-row.ts';
import { currentRows } from '../../data/edits.ts';
import { dispatch } from '../../data/undo.ts';
import { useCommands } from '../../desk/commands.ts';
import type { How } from '../../desk/selection.ts';
import { undoWithWords } from '../../desk/undo-words.ts';
import type { MenuItem } from '../../kit/index.ts';
import { groupRows } from './group-rows.ts';
import { movedTo, newGroupName, type GroupsOf } from './shelf-groups.ts';

interface ShelfDeeds<K extends Kind> {
  kind: K;
  title: string;
  rows: readonly Row<K>[];
  /** The chosen ones. */
  ids: readonly string[];
  selectedId: string | null;
  onSelect: (id: string, how: How, order: readonly string[]) => void;
  onRename: (id: string) => void;
  copyBody?: (row: Row<K>) => Row<K>['body'];
  groups?: GroupsOf<K>;
}

/** What can be done with the entries of a shelf: as commands for the chosen ones, and in the menu of each. */
export function useShelfCommands<K extends Kind>(shelf: ShelfDeeds<K>) {
  const { kind, title, rows, ids, selectedId, groups } = shelf;
  const chosen = rows.filter(({ id }) => ids.includes(id));
  const lead = rows.find(({ id }) => id === selectedId);
  /** An entry among the chosen ones stands for all of them. */
  const meant = (row: Row<K>) => (ids.includes(row.id) ? chosen : [row]);
  const about = (some: readonly Row<K>[]) => (some.length === 1 ? some[0]!.name : `${some.length} of ${title}`);

  const rename = (row: Row<K>, typed: string) => {
    const name = typed.trim().slice(0, 120);
    if (name !== '' && name !== row.name) editRow(kind, row, `Rename ${row.name}`, { name });
  };
  const remove = (some: readonly Row<K>[]) => {
    const [first] = some;
    if (!first) return;
    dispatch(
      first.projectId,
      `Delete ${about(some)}`,
      some.map(({ id }) => removing(kind, id)),
    );
    toast(`Deleted ${about(some)}`, { action: { label: 'Undo', onClick: () => undoWithWords(first.projectId) } });
  };
  const duplicate = (some: readonly Row<K>[]) => {
    const [first] = some;
    if (!first) return;
    const copies = some.map((row) => {
      const next = rows[rows.indexOf(row) + 1];
      const order = next ? (row.order + next.order) / 2 : row.order + 1;
      const name = `${row.name.slice(0, 115)} copy`;
      return { id: crypto.randomUUID(), name, order, body: shelf.copyBody?.(row) ?? row.body };
    });
    dispatch(
      first.projectId,
      `Duplicate ${about(some)}`,
      copies.map((copy) => making(kind, copy)),
    );
    shelf.onSelect(copies[0]!.id, 'only', []);
  };
  const move = (some: readonly Row<K>[], by: -1 | 1) => {
    const [first] = some;
    if (!first || kind === 'project') return;
    const changes: Change[] = [];
    // As they stand at this instant: a key pressed twice comes sooner than a screen that is drawn again.
    let list = currentRows(first.projectId, kind) as Row<K>[];
    // From the end that they move towards, so that they do not jump over each other.
    for (const row of by < 0 ? some : [...some].reverse()) {
      const from = list.findIndex(({ id }) => id === row.id);
      const to = from + by;
      if (to < 0 || to >= list.length || some.some(({ id }) => id === list[to]!.id)) continue;
      const moved = movedTo(list, from, to, groups);
      changes.push(...changesBetween(kind, list[from]!, moved));
      list = list.map((other, i) => (i === from ? moved : other)).sort((a, b) => a.order - b.order);
    }
    dispatch(first.projectId, `Move ${about(some)}`, changes);
  };

  const group = (some: readonly Row<K>[], name: string | undefined) => groups && groupRows(kind, some, name, groups);
  const newGroup = (some: readonly Row<K>[]) => group(some, newGroupName(rows.map((row) => groups?.of(row))));

  const some = () => chosen.length > 0;
  const command = (what: string, label: string, run: () => void, keys?: string) => ({
    id: `${kind}.${what}`,
    label,
    group: title,
    ...(keys ? { keys } : {}),
    when: some,
    run,
  });
  useCommands([
    command('rename', `Rename in ${title}`, () => lead && shelf.onRename(lead.id), 'F2'),
    command('duplicate', `Duplicate in ${title}`, () => duplicate(chosen)),
    command('up', `Move up in ${title}`, () => move(chosen, -1), 'Alt+ArrowUp'),
    command('down', `Move down in ${title}`, () => move(chosen, 1), 'Alt+ArrowDown'),
    command('delete', `Delete from ${title}`, () => remove(chosen)),
    ...(groups
      ? [
          command('group', `Group in ${title}`, () => newGroup(chosen)),
          command('ungroup', `Out of the group in ${title}`, () => group(chosen, undefined)),
        ]
      : []),
  ]);

  const menuOf = (row: Row<K>): MenuItem[] => {
    const all = meant(row);
    const count = all.length > 1 ? ` ${all.length}` : '';
    return [
      // Waits until the menu has given its focus back.
      { label: 'Rename', icon: <Pencil size={13} />, onSelect: () => setTimeout(() => shelf.onRename(row.id), 60) },
      { label: `Duplicate${count}`, icon: <Copy size={13} />, onSelect: () => duplicate(all) },
      { label: 'Move up', icon: <ArrowUp size={13} />, shortcut: 'Alt ↑', onSelect: () => move(all, -1) },
      { label: 'Move down', icon: <ArrowDown size={13} />, shortcut: 'Alt ↓', onSelect: () => move(all, 1) },
      ...(groups ? [{ label: `Group${count}`, icon: <FolderPlus size={13} />, onSelect: () => newGroup(all) }] : []),
      ...(all.some((one) => groups?.of(one) !== undefined)
        ? [{ label: 'Out of the group', icon: <FolderMinus size={13} />, onSelect: () => group(all, undefined) }]
        : []),
      { label: `Delete${count}`, icon: <Trash2 size={13} />, danger: true, onSelect: () => remove(all) },
    ];
  };
  return { rename, menuOf };
}
