import type { Row } from '@eskovan/core/document';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { dispatch, redo, undo } from '../../data/undo.ts';
import { liveRows, making } from '../../data/changes.ts';
import { selection, type How } from '../../desk/selection.ts';
import { useProject } from '../../data/use-project.ts';
import {
  editsIn,
  exampleDocument,
  exampleRow,
  exampleView,
  leaveProject,
  PROJECT,
  renderInProject,
  shownDocument,
  uuid,
  type Asked,
} from '../../testing/studio.tsx';
import { RowShelf } from './row-shelf.tsx';

const NAMES = ['Hall', 'Gallery', 'Deck', 'Café', 'Bridge', 'Marsh', 'Stair'];
let asked: Asked[];
const onSelect = jest.fn<(id: string, how: How, order: readonly string[]) => void>();

/** Another view is shown, whoever has chosen it. */
let show: (id: string) => void;

function Shelf() {
  const rows = liveRows(useProject().view);
  const [shown, setShown] = useState(uuid(10));
  show = setShown;
  return (
    <RowShelf
      kind="view"
      title="Views"
      rows={rows}
      selectedId={shown}
      onSelect={onSelect}
      mark={(_: Row<'view'>, i: number) => <b>{i + 1}</b>}
      note={() => '24 mm'}
      empty="No views yet."
    />
  );
}
const names = () => liveRows(shownDocument().view).map((row) => row.name);
const more = async (user: ReturnType<typeof userEvent.setup>, name: string, item: string) => {
  await user.click(screen.getByRole('button', { name: `More for ${name}` }));
  await user.click(await screen.findByRole('menuitem', { name: item }));
};

beforeEach(() => {
  onSelect.mockClear();
  asked = renderInProject(
    <Shelf />,
    exampleDocument({ view: NAMES.map((name, i) => exampleRow(10 + i, name, exampleView())) }),
  );
});
afterEach(leaveProject);

describe('the shelf of a stage', () => {
  test('lists what there is in its order, marks the selected, and tells what is pressed', async () => {
    const items = within(screen.getByRole('list')).getAllByRole('listitem');
    expect(items.map((item) => within(item).getByText(/^[A-Z]/).textContent)).toEqual(NAMES);
    expect(screen.getByRole('button', { name: /1.*Hall/ }).getAttribute('aria-current')).toBe('true');
    await userEvent.click(screen.getByRole('button', { name: /Deck.*24 mm/ }));
    expect(onSelect).toHaveBeenCalledWith(
      uuid(12),
      'only',
      NAMES.map((_, i) => uuid(10 + i)),
    );
  });

  test('what is shown is brought into sight, whoever has chosen it', async () => {
    // Entries are 60 pixels high, and two of them fit.
    const list = screen.getByRole('list').parentElement!.closest<HTMLElement>('.overflow-y-auto')!;
    const order = NAMES.map((_, i) => uuid(10 + i));
    const placed = jest.spyOn(Element.prototype, 'getBoundingClientRect').mockImplementation(function (this: Element) {
      const index = order.indexOf((this as HTMLElement).dataset['entry'] ?? '');
      return index < 0 ? new DOMRect(0, 0, 200, 120) : new DOMRect(0, 60 * index - list.scrollTop, 200, 60);
    });
    const shownAt = (index: number) => {
      act(() => show(order[index]!));
      return list.scrollTop;
    };
    expect([6, 5, 0, 1].map(shownAt)).toEqual([300, 300, 0, 0]);
    // What is new is chosen before the list has it.
    order.push(uuid(99));
    expect(shownAt(7)).toBe(0);
    const made = making('view', { id: uuid(99), name: 'New', order: 99, body: exampleView() });
    act(() => dispatch(PROJECT, 'New view', [made]));
    await waitFor(() => expect(list.scrollTop).toBe(360));
    placed.mockRestore();
  });

  test('searches by name and says when nothing is called that', async () => {
    const search = screen.getByLabelText('Search views');
    await userEvent.type(search, 'ga');
    expect(screen.getAllByRole('listitem')).toHaveLength(1);
    await userEvent.type(search, 'xx');
    expect(screen.getByText('Nothing is called that.')).toBeTruthy();
  });

  test('renames in place; Escape leaves the name as it was; an empty name is none', async () => {
    const user = userEvent.setup();
    await more(user, 'Hall', 'Rename');
    await user.type(await screen.findByLabelText('New name of Hall'), '{Control>}a{/Control}Great hall{Enter}');
    expect(names()[0]).toBe('Great hall');
    await waitFor(() =>
      expect(editsIn(asked).map(({ label, changes }) => ({ label, changes }))).toEqual([
        {
          label: 'Rename Hall',
          changes: [{ op: 'set', kind: 'view', id: uuid(10), facet: ['name'], before: 'Hall', after: 'Great hall' }],
        },
      ]),
    );
    for (const typed of ['Other{Escape}', '{Control>}a{/Control}{Backspace}{Enter}']) {
      await more(user, 'Great hall', 'Rename');
      await user.type(await screen.findByLabelText('New name of Great hall'), typed);
      expect(names()[0]).toBe('Great hall');
    }
    expect(editsIn(asked)).toHaveLength(1);
  });

  test('duplicates beside the original, deletes, and both are taken back and done again', async () => {
    const user = userEvent.setup();
    await more(user, 'Gallery', 'Duplicate');
    expect(names().slice(0, 4)).toEqual(['Hall', 'Gallery', 'Gallery copy', 'Deck']);
    await more(user, 'Deck', 'Delete');
    expect(names()).not.toContain('Deck');
    expect(undo(PROJECT)).toBe('Delete Deck');
    expect(names()).toContain('Deck');
    expect(undo(PROJECT)).toBe('Duplicate Gallery');
    expect(names()).toEqual(NAMES);
    expect(redo(PROJECT)).toBe('Duplicate Gallery');
    expect(names()).toContain('Gallery copy');
    await waitFor(() =>
      expect(editsIn(asked).map(({ changes }) => changes[0]!.op)).toEqual([
        'make',
        'remove',
        'restore',
        'remove',
        'restore',
      ]),
    );
  });

  test('is used by keys alone: Enter and Space choose, arrows go on, Alt and arrows move, F2 renames', async () => {
    const user = userEvent.setup();
    const order = NAMES.map((_, i) => uuid(10 + i));
    screen.getByRole('button', { name: /1.*Hall/ }).focus();
    await user.keyboard('{Enter}');
    expect(onSelect).toHaveBeenLastCalledWith(uuid(10), 'only', order);
    await user.keyboard('{Control>} {/Control}');
    expect(onSelect).toHaveBeenLastCalledWith(uuid(10), 'toggle', order);
    await user.keyboard('{ArrowDown}');
    expect(onSelect).toHaveBeenLastCalledWith(uuid(11), 'only', order);
    await waitFor(() => expect(document.activeElement?.getAttribute('data-row')).toBe(uuid(11)));
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}');
    expect(onSelect).toHaveBeenLastCalledWith(uuid(12), 'range', order);
    await user.keyboard('{Alt>}{ArrowDown}{/Alt}');
    expect(names().slice(0, 3)).toEqual(['Gallery', 'Hall', 'Deck']);
    await user.keyboard('{F2}');
    expect(await screen.findByLabelText('New name of Hall')).toBeTruthy();
    await user.keyboard('{Escape}');
  });

  test('what is done to one of several chosen ones is done to all, as one step', async () => {
    const user = userEvent.setup();
    act(() => {
      selection.chooseRow('view', uuid(11));
      selection.chooseRow(
        'view',
        uuid(10),
        'toggle',
        NAMES.map((_, i) => uuid(10 + i)),
      );
    });
    expect(await screen.findByText('2 of 7 chosen')).toBeTruthy();
    await more(user, 'Gallery', 'Delete 2');
    expect(names()).toEqual(NAMES.slice(2));
    act(() => expect(undo(PROJECT)).toBe('Delete 2 of Views'));
    expect(names()).toEqual(NAMES);
    await screen.findByRole('button', { name: 'More for Gallery' });
    await more(user, 'Gallery', 'Move down');
    expect(names().slice(0, 3)).toEqual(['Deck', 'Hall', 'Gallery']);
  });

  test('handles for dragging are buttons of their own, named by what they move', () => {
    expect(screen.getByRole('button', { name: 'Move Hall' })).toBeTruthy();
  });
});
