import type { Row } from '@eskovan/core/document';
import { ChevronRight, Eye, EyeOff } from 'lucide-react';
import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useWorkbench } from '../../desk/workbench.ts';
import { cx } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import { useSlice } from '../shared/use-slice.ts';
import { changeParts, choosePart, useChosenModel } from './edit-parts.ts';
import { findNodes, treeOf, type PartNode } from './part-tree.ts';

/** A line of the tree as it is drawn. */
/** Height of a line, pixels. */
const LINE = 28;

interface Line {
  node: PartNode;
  depth: number;
  /** Path of the node it lies under. */
  above: string | null;
  /** Unfolded or not; null where nothing lies under it. */
  open: boolean | null;
}

/** The lines of the tree that are to be seen: what is folded lies under its fold. */
function linesOf(
  nodes: readonly PartNode[],
  isOpen: (node: PartNode) => boolean,
  depth = 0,
  above: string | null = null,
): Line[] {
  return nodes.flatMap((node) => {
    const open = node.children.length > 0 ? isOpen(node) : null;
    return [{ node, depth, above, open }, ...(open ? linesOf(node.children, isOpen, depth + 1, node.path) : [])];
  });
}

/** The named parts of the chosen model: find by name or material, choose, show and hide; by mouse and by keys. */
export function PartsTree({ wanted }: { wanted: string }) {
  const parts = useParts();
  const row = useChosenModel();
  const part = useWorkbench((state) => state.part);
  const [toggled, setToggled] = useState<Readonly<Record<string, boolean>>>({});
  const scroll = useRef<HTMLDivElement>(null);
  const roots = useMemo(() => (row ? treeOf(parts, row.id) : []), [parts, row]);
  const chosen = part && part.model === row?.id ? part.name : null;
  const isOpen = (node: PartNode) =>
    toggled[node.path] ??
    (roots.length === 1 && node === roots[0] ? true : (chosen?.startsWith(`${node.path} / `) ?? false));
  const found = wanted.trim() === '' ? null : findNodes(roots, wanted);
  const lines = found
    ? found.map((node): Line => ({ node, depth: 0, above: null, open: null }))
    : linesOf(roots, isOpen);
  const slice = useSlice(scroll, lines.length, () => LINE);
  if (!row) return null;

  const fold = (path: string, open: boolean) => setToggled((now) => ({ ...now, [path]: open }));
  const choose = (node: PartNode) => choosePart({ model: row.id, name: node.path });
  const goTo = (line: Line | undefined) => {
    if (!line) return;
    choose(line.node);
    slice.bringIn(lines.indexOf(line));
    requestAnimationFrame(() =>
      scroll.current?.querySelector<HTMLElement>(`[data-part="${CSS.escape(line.node.path)}"]`)?.focus(),
    );
  };
  const onKeyDown = (event: KeyboardEvent, line: Line) => {
    const at = lines.indexOf(line);
    const { node, open, above } = line;
    if (event.key === 'ArrowDown') goTo(lines[at + 1]);
    else if (event.key === 'ArrowUp') goTo(lines[at - 1]);
    else if (event.key === 'Home') goTo(lines[0]);
    else if (event.key === 'End') goTo(lines.at(-1));
    else if (event.key === 'ArrowRight' && open === false) fold(node.path, true);
    else if (event.key === 'ArrowRight' && open) goTo(lines[at + 1]);
    else if (event.key === 'ArrowLeft' && open) fold(node.path, false);
    else if (event.key === 'ArrowLeft' && above !== null) goTo(lines.find((one) => one.node.path === above));
    else if (event.key === 'Enter' || event.key === ' ') choose(node);
    else if (event.key === 'h') toggleHidden(row, node);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  // One line of the tree is reached by Tab; the arrows go on from there.
  const entry = lines.some(({ node }) => node.path === chosen) ? chosen : lines[0]?.node.path;
  return (
    <div ref={scroll} className="min-h-0 flex-1 overflow-y-auto px-2 pb-2">
      <ul role="tree" aria-label="Parts of the model" style={slice.space}>
        {lines.slice(slice.from, slice.to).map((line) => (
          <PartLine
            key={line.node.path}
            line={line}
            row={row}
            flat={found !== null}
            selected={line.node.path === chosen}
            reached={line.node.path === entry}
            onChoose={() => choose(line.node)}
            onFold={(open) => fold(line.node.path, open)}
            onKeyDown={(event) => onKeyDown(event, line)}
          />
        ))}
      </ul>
      {found?.length === 0 && <p className="p-2 text-ink-soft">No part or material is called that.</p>}
    </div>
  );
}

const isHidden = (row: Row<'model'>, { names }: PartNode) => names.every((name) => row.body.parts[name]?.hidden);

function toggleHidden(row: Row<'model'>, node: PartNode): void {
  const hidden = isHidden(row, node);
  changeParts(row, node.names, `${hidden ? 'Show' : 'Hide'} ${node.label}`, { hidden: hidden ? undefined : true });
}

interface PartLineProps {
  line: Line;
  row: Row<'model'>;
  /** Listed by a search: with its whole path. */
  flat: boolean;
  selected: boolean;
  reached: boolean;
  onChoose: () => void;
  onFold: (open: boolean) => void;
  onKeyDown: (event: KeyboardEvent) => void;
}

function PartLine({
  line: { node, depth, open },
  row,
  flat,
  selected,
  reached,
  onChoose,
  onFold,
  onKeyDown,
}: PartLineProps) {
  const hidden = isHidden(row, node);
  return (
    <li
      role="treeitem"
      data-entry
      aria-level={depth + 1}
      aria-selected={selected}
      {...(open === null ? {} : { 'aria-expanded': open })}
      aria-label={`${flat ? node.path : node.label}${hidden ? ', hidden' : ''}`}
      data-part={node.path}
      tabIndex={reached ? 0 : -1}
      title={node.path}
      className={cx(
        'group flex h-7 cursor-default items-center rounded-md focus-visible:-outline-offset-2',
        selected ? 'bg-lagoon-wash' : 'hover:bg-ink/4',
      )}
      style={{ paddingLeft: depth * 12 }}
      onClick={onChoose}
      onKeyDown={onKeyDown}
    >
      {open === null ? (
        <span className="w-6 shrink-0" />
      ) : (
        <button
          type="button"
          tabIndex={-1}
          aria-label={`${open ? 'Fold' : 'Unfold'} ${node.label}`}
          className="flex h-7 w-6 shrink-0 items-center justify-center text-ink-faint"
          onClick={(event) => {
            event.stopPropagation();
            onFold(!open);
          }}
        >
          <ChevronRight size={13} className={cx('transition-transform duration-150', open && 'rotate-90')} />
        </button>
      )}
      <span className={cx('min-w-0 flex-1 truncate text-left', hidden && 'text-ink-faint line-through')}>
        {flat ? node.path : node.label}
      </span>
      <button
        type="button"
        tabIndex={-1}
        aria-label={`${hidden ? 'Show' : 'Hide'} ${node.label}`}
        className={cx(
          'flex h-7 w-7 shrink-0 items-center justify-center rounded-md text-ink-faint hover:text-ink',
          !hidden && 'opacity-0 group-hover:opacity-100 group-focus-visible:opacity-100',
        )}
        onClick={(event) => {
          event.stopPropagation();
          toggleHidden(row, node);
        }}
      >
        {hidden ? <EyeOff size={13} /> : <Eye size={13} />}
      </button>
    </li>
  );
}
