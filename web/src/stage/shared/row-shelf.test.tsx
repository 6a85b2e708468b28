import type { Row } from '@eskovan/core/document';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { redo, undo } from '../../data/edits.ts';
import { liveRows } from '../../data/row-change.ts';
import { useProject } from '../../data/use-project.ts';
import {
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
const onSelect = jest.fn<(id: string) => void>();

function Shelf() {
  const rows = liveRows(useProject().view);
  return (
    <RowShelf
      kind="view"
      title="Views"
      rows={rows}
      selectedId={uuid(10)}
      onSelect={onSelect}
      mark={(_: Row<'view'>, i: number) => <b>{i + 1}</b>}
      note={() => '24 mm'}
      empty="No views yet."
    />
  );
}
const names = () => liveRows(shownDocument().view).map((row) => row.name);
const writes = () => asked.filter(({ method }) => method !== 'GET');
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
    expect(onSelect).toHaveBeenCalledWith(uuid(12));
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
      expect(writes()).toEqual([
        {
          method: 'PATCH',
          path: `/api/projects/${PROJECT}/views/${uuid(10)}`,
          body: { revision: 1, name: 'Great hall' },
        },
      ]),
    );
    for (const typed of ['Other{Escape}', '{Control>}a{/Control}{Backspace}{Enter}']) {
      await more(user, 'Great hall', 'Rename');
      await user.type(await screen.findByLabelText('New name of Great hall'), typed);
      expect(names()[0]).toBe('Great hall');
    }
    expect(writes()).toHaveLength(1);
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
      expect(writes().map(({ method }) => method)).toEqual(['PUT', 'DELETE', 'POST', 'DELETE', 'POST']),
    );
  });
});
