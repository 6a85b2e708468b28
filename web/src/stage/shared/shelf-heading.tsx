import type { Kind, Row } from '@eskovan/core/document';
import { ChevronRight, FolderMinus, Pencil } from 'lucide-react';
import { useState } from 'react';
import { cx } from '../../kit/index.ts';
import { MoreMenu } from './more-menu.tsx';
import { NewName } from './new-name.tsx';

/** Height of a heading with its gap, pixels. */
export const HEADING = 32;

interface ShelfHeadingProps<K extends Kind> {
  name: string;
  /** Those that stand under it. */
  rows: readonly Row<K>[];
  folded: boolean;
  onFold: (folded: boolean) => void;
  onRename: (rows: readonly Row<K>[], name: string) => void;
  onUngroup: (rows: readonly Row<K>[]) => void;
}

/** The name of a group over its rows: puts them away and shows them again. */
export function ShelfHeading<K extends Kind>({
  name,
  rows,
  folded,
  onFold,
  onRename,
  onUngroup,
}: ShelfHeadingProps<K>) {
  const [renaming, setRenaming] = useState(false);
  return (
    <li data-entry className="group relative flex h-[30px] items-center rounded-md hover:bg-ink/4">
      <button
        type="button"
        aria-expanded={!folded}
        className="flex h-7 min-w-0 flex-1 items-center gap-1 rounded-md pl-1 text-left text-ink-soft"
        onClick={() => onFold(!folded)}
        onDoubleClick={() => setRenaming(true)}
      >
        <ChevronRight
          size={13}
          aria-hidden
          className={cx('shrink-0 transition-transform duration-150', !folded && 'rotate-90')}
        />
        <span className="truncate font-semibold">{name}</span>
        <span className="pr-8 text-sm text-ink-faint">{rows.length}</span>
      </button>
      {renaming && (
        <NewName
          name={name}
          label={`New name of the group ${name}`}
          onName={(typed) => onRename(rows, typed)}
          onDone={() => setRenaming(false)}
        />
      )}
      <MoreMenu
        of={`the group ${name}`}
        className="top-0 right-1.5"
        items={[
          // Waits until the menu has given its focus back.
          { label: 'Rename', icon: <Pencil size={13} />, onSelect: () => setTimeout(() => setRenaming(true), 60) },
          { label: 'Ungroup', icon: <FolderMinus size={13} />, onSelect: () => onUngroup(rows) },
        ]}
      />
    </li>
  );
}
