import type { Kind } from '@eskovan/core/document';
import { create } from 'zustand';

/** Some of a list. */
export interface Chosen {
  /** In the order of choosing. */
  readonly ids: readonly string[];
  /** The one that is shown and that keys begin from. */
  readonly lead: string | null;
  /** Where a range begins. */
  readonly anchor: string | null;
}

/** only: this one alone; toggle: this one too, or no more; range: all from the anchor to this one. */
export type How = 'only' | 'toggle' | 'range';

export const NOTHING: Chosen = { ids: [], lead: null, anchor: null };
const only = (id: string): Chosen => ({ ids: [id], lead: id, anchor: id });

/** What is chosen after one more press. @param order all that could be chosen, as they stand */
export function choose(before: Chosen, order: readonly string[], id: string, how: How): Chosen {
  const known = before.ids.filter((one) => order.includes(one));
  if (how === 'toggle') {
    const without = known.filter((one) => one !== id);
    if (without.length < known.length)
      return { ids: without, lead: without.at(-1) ?? null, anchor: without.at(-1) ?? null };
    return { ids: [...known, id], lead: id, anchor: id };
  }
  const from = order.indexOf(before.anchor ?? '');
  const to = order.indexOf(id);
  if (how === 'only' || from < 0 || to < 0) return only(id);
  return { ids: order.slice(Math.min(from, to), Math.max(from, to) + 1), lead: id, anchor: before.anchor };
}

/** How a press with these keys chooses: the same in lists, plan, picture and strips. */
export const howOf = (event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): How =>
  event.shiftKey ? 'range' : event.ctrlKey || event.metaKey ? 'toggle' : 'only';

/** Things inside a row that can be chosen. */
export type ItemKind = 'node' | 'key' | 'span' | 'pose';

interface Items extends Chosen {
  readonly rowId: string;
  readonly of: ItemKind;
}

interface SelectionState {
  /** Rows of each kind; those of the kinds of other screens are remembered for coming back. */
  rows: Readonly<Partial<Record<Kind, Chosen>>>;
  /** Of which kind the selection is just now. */
  active: Kind | null;
  /** Things inside the lead row. */
  items: Items | null;
}

const EMPTY: SelectionState = { rows: {}, active: null, items: null };

export const useSelection = create<SelectionState>()(() => EMPTY);
const set = useSelection.setState;

/** The one selection that shelf, plan, picture and strips share. */
export const selection = {
  get: useSelection.getState,
  /** @param order the rows as they are listed; needed for ranges */
  chooseRow(kind: Kind, id: string | null, how: How = 'only', order: readonly string[] = []): void {
    set(({ rows, items }) => {
      const before = rows[kind] ?? NOTHING;
      const next = id === null ? NOTHING : choose(before, order, id, how);
      return { rows: { ...rows, [kind]: next }, active: kind, items: next.lead === items?.rowId ? items : null };
    });
  },
  chooseItem(of: ItemKind, rowId: string, id: string | null, how: How = 'only', order: readonly string[] = []): void {
    set(({ items }) => {
      if (id === null) return { items: null };
      const before = items?.of === of && items.rowId === rowId ? items : NOTHING;
      return { items: { ...choose(before, order, id, how), of, rowId } };
    });
  },
  clear: () => set(EMPTY),
};

export const useChosenRows = (kind: Kind): Chosen => useSelection(({ rows }) => rows[kind] ?? NOTHING);
export const useLead = (kind: Kind): string | null => useSelection(({ rows }) => rows[kind]?.lead ?? null);
/** What is chosen inside a row. */
export const useItems = (of: ItemKind, rowId: string | undefined): Chosen =>
  useSelection(({ items }) => (items && items.of === of && items.rowId === rowId ? items : NOTHING));
export const itemsOf = (of: ItemKind, rowId: string): Chosen => {
  const { items } = selection.get();
  return items && items.of === of && items.rowId === rowId ? items : NOTHING;
};
