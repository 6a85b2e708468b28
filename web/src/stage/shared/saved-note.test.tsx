import { afterEach, describe, expect, test } from '@jest/globals';
import { act, cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Tooltip } from 'radix-ui';
import { held, newEdit, useEdits } from '../../data/edits.ts';
import { renaming } from '../../testing/changes.ts';
import { exampleRow, exampleView, PROJECT } from '../../testing/studio.tsx';
import { describeChange } from './describe-change.ts';
import { SavedNote } from './saved-note.tsx';

afterEach(() => {
  cleanup();
  useEdits.setState({ saved: { state: 'saved' }, conflicts: [], aside: [], memoryOnly: false });
});

const show = () =>
  render(
    <Tooltip.Provider>
      <SavedNote />
    </Tooltip.Provider>,
  );

describe('the saved note', () => {
  test.each([
    [{ state: 'saved' } as const, 'Saved'],
    [{ state: 'saving', count: 1 } as const, 'Saving…'],
    [{ state: 'offline', count: 1 } as const, 'Kept here, waiting for the server'],
    [{ state: 'conflict' } as const, 'Changed elsewhere too'],
    [{ state: 'aside', count: 1 } as const, 'The rest is saved'],
    [{ state: 'reload', message: 'Reload it.' } as const, 'This page is out of date'],
  ])('$state is said in words', (saved, words) => {
    useEdits.setState({ saved });
    show();
    expect(screen.getByRole('status').textContent).toContain(words);
  });

  test('says that a browser keeps nothing', () => {
    useEdits.setState({ memoryOnly: true });
    show();
    expect(screen.getByRole('button', { name: 'Kept in memory only' })).toBeTruthy();
  });

  test('what the server refused can be looked at, tried again and dropped', async () => {
    const row = exampleRow(30, 'Hall', exampleView());
    const edit = newEdit(PROJECT, 'Rename Hall', [renaming(row, 'Great hall')]);
    const asked: string[] = [];
    Object.assign(held, {
      drop: (id: string) => asked.push(`drop ${id}`),
      tryAgain: (id: string) => asked.push(`again ${id}`),
    });
    show();
    act(() =>
      useEdits.setState({
        saved: { state: 'aside', count: 1 },
        aside: [{ seq: 1, edit, at: '2026-01-01T00:00:00.000Z', owner: 'tab', aside: { message: 'name: too long' } }],
      }),
    );
    await userEvent.click(screen.getByRole('button', { name: '1 set aside' }));
    const dialog = screen.getByRole('dialog');
    expect(dialog.textContent).toContain('Rename Hall');
    expect(dialog.textContent).toContain('name: too long');
    expect(dialog.textContent).toContain('name of a view: Hall → Great hall');
    await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
    await userEvent.click(screen.getByRole('button', { name: 'Drop it' }));
    expect(asked).toEqual([`again ${edit.id}`, `drop ${edit.id}`]);
  });
});

test.each([
  [{ op: 'remove', kind: 'move', id: 'x' } as const, 'a move deleted'],
  [
    { op: 'set', kind: 'move', id: 'x', facet: ['body', 'eyeHeight'], before: 1.6, after: 1.75 } as const,
    'eye height of a move: 1.6 → 1.75',
  ],
  [
    {
      op: 'set',
      kind: 'model',
      id: 'x',
      facet: ['body', 'parts', 'Hall / Wall'],
      before: undefined,
      after: { hidden: true },
    } as const,
    'look of Wall of a model: nothing → hidden yes',
  ],
])('a change is told in one line', (change, words) => expect(describeChange(change as never)).toBe(words));
