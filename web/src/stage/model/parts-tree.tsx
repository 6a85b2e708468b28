import type { Row } from '@eskovan/core/document';
import { ChevronRight, Eye, EyeOff, Search } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useWorkbench } from '../../app/workbench.ts';
import { cx } from '../../kit/index.ts';
import { findNodes, treeOf, type PartNode } from './part-tree.ts';
import { useParts } from '../../site/use-parts.ts';
import { changeParts, choosePart, useChosenModel } from './edit-parts.ts';

/** More than this are not listed at once: a search narrows them. */
const MOST_SHOWN = 200;

/** The named parts of the chosen model: find, choose, show and hide. */
export function PartsTree() {
  const parts = useParts();
  const row = useChosenModel();
  const [wanted, setWanted] = useState('');
  const roots = useMemo(() => (row ? treeOf(parts, row.id) : []), [parts, row]);
  if (!row) return null;
  const found = wanted.trim() === '' ? null : findNodes(roots, wanted);
  return (
    <aside aria-label="Parts" className="flex h-full flex-col bg-paper">
      <header className="flex items-baseline justify-between px-3.5 pt-2.5 pb-1.5">
        <h2 className="font-semibold text-ink-soft">Parts</h2>
        <span className="text-ink-faint">{parts.filter(({ model }) => model === row.id).length}</span>
      </header>
      <label className="mx-2.5 mb-1.5 flex h-7 shrink-0 items-center gap-1.5 rounded-lg border border-rule bg-raised px-2">
        <Search size={13} aria-hidden className="text-ink-faint" />
        <input
          aria-label="Search parts"
          className="w-full min-w-0 bg-transparent outline-none"
          placeholder="Search"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
        />
      </label>
      <div className="min-h-0 flex-1 overflow-y-auto px-2 pb-2">
        <ul>
          {found
            ? found
                .slice(0, MOST_SHOWN)
                .map((node) => <PartItem key={node.path} node={node} row={row} depth={0} flat />)
            : roots.map((node) => (
                <PartItem key={node.path} node={node} row={row} depth={0} open={roots.length === 1} />
              ))}
        </ul>
        {found?.length === 0 && <p className="p-2 text-ink-soft">No part is called that.</p>}
        {found && found.length > MOST_SHOWN && (
          <p className="p-2 text-ink-faint">and {found.length - MOST_SHOWN} more; search for more letters.</p>
        )}
      </div>
    </aside>
  );
}

interface PartItemProps {
  node: PartNode;
  row: Row<'model'>;
  depth: number;
  /** Listed by a search: with its whole path, without what lies under it. */
  flat?: boolean;
  open?: boolean;
}

function PartItem({ node, row, depth, flat, open: openAtFirst = false }: PartItemProps) {
  const part = useWorkbench((state) => state.part);
  const holdsChosen = part?.model === row.id && part.name.startsWith(`${node.path} / `);
  const [toggled, setToggled] = useState<boolean | null>(null);
  const open = toggled ?? (openAtFirst || holdsChosen);
  const selected = part?.model === row.id && part.name === node.path;
  const { names } = node;
  const hidden = names.every((name) => row.body.parts[name]?.hidden);
  const group = node.children.length > 0 && !flat;
  return (
    <li>
      <div
        className={cx('group flex h-7 items-center rounded-md', selected ? 'bg-lagoon-wash' : 'hover:bg-ink/4')}
        style={{ paddingLeft: depth * 12 }}
      >
        {group ? (
          <button
            type="button"
            aria-label={`${open ? 'Fold' : 'Unfold'} ${node.label}`}
            aria-expanded={open}
            className="flex h-7 w-6 shrink-0 items-center justify-center text-ink-faint"
            onClick={() => setToggled(!open)}
          >
            <ChevronRight size={13} className={cx('transition-transform duration-150', open && 'rotate-90')} />
          </button>
        ) : (
          <span className="w-6 shrink-0" />
        )}
        <button
          type="button"
          aria-current={selected}
          title={node.path}
          className={cx('min-w-0 flex-1 truncate text-left', hidden && 'text-ink-faint line-through')}
          onClick={() => choosePart({ model: row.id, name: node.path })}
        >
          {flat ? node.path : node.label}
        </button>
        <button
          type="button"
          aria-label={`${hidden ? 'Show' : 'Hide'} ${node.label}`}
          className={cx(
            'flex h-7 w-7 shrink-0 items-center justify-center rounded-md text-ink-faint hover:text-ink focus-visible:opacity-100',
            !hidden && 'opacity-0 group-hover:opacity-100',
          )}
          onClick={() =>
            changeParts(row, names, `${hidden ? 'Show' : 'Hide'} ${node.label}`, { hidden: hidden ? undefined : true })
          }
        >
          {hidden ? <EyeOff size={13} /> : <Eye size={13} />}
        </button>
      </div>
      {group && open && (
        <ul>
          {node.children.map((child) => (
            <PartItem key={child.path} node={child} row={row} depth={depth + 1} />
          ))}
        </ul>
      )}
    </li>
  );
}
