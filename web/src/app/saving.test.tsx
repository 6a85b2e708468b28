import { afterEach, describe, expect, test } from '@jest/globals';
import { act, cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useEdits } from '../data/edits.ts';
import type { Conflict } from '../data/outbox.ts';
import {
  exampleDocument,
  exampleRow,
  exampleView,
  PROJECT,
  renderInProject,
  shownDocument,
  uuid,
} from '../testing/studio.tsx';
import { ConflictDialog } from './conflict-dialog.tsx';
import { SavedNote } from './saved-note.tsx';

afterEach(() => {
  cleanup();
  useEdits.setState({ saved: { state: 'saved' }, conflicts: [] });
});

describe('the saved note', () => {
  test.each([
    [{ state: 'saved' } as const, 'Saved'],
    [{ state: 'saving' } as const, 'Saving…'],
    [{ state: 'offline' } as const, 'Kept here, waiting for the server'],
    [{ state: 'conflict' } as const, 'Changed elsewhere too'],
    [{ state: 'refused', message: 'too low' } as const, 'Not saved'],
  ])('$state is said in words', (saved, words) => {
    useEdits.setState({ saved });
    render(<SavedNote />);
    expect(screen.getByRole('status').textContent).toContain(words);
  });

  test('a refusal can be tried again', async () => {
    useEdits.setState({ saved: { state: 'refused', message: 'too low' } });
    render(<SavedNote />);
    await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  });
});

describe('a conflict', () => {
  const mine = exampleRow(30, 'Hall', exampleView());
  const theirs = { ...mine, name: 'Great hall', revision: 4 };
  const conflict: Conflict = {
    entry: {
      seq: 1,
      projectId: PROJECT,
      change: { op: 'change', kind: 'view', id: mine.id, values: { name: 'Hall' } },
      base: 1,
      owner: 'tab',
    },
    theirs,
  };
  const start = () => {
    renderInProject(<ConflictDialog />, exampleDocument({ view: [mine] }));
    act(() => useEdits.setState({ conflicts: [conflict] }));
  };
  const names = () =>
    shownDocument()
      .view.map((row) => row.name)
      .sort();

  test('shows both versions', () => {
    start();
    expect(screen.getByRole('dialog').textContent).toContain('You changed its name.');
    expect(screen.getByRole('dialog').textContent).toContain('“Great hall”');
  });

  test('taking theirs shows theirs', async () => {
    start();
    await userEvent.click(screen.getByRole('button', { name: 'Take theirs' }));
    expect(names()).toEqual(['Great hall']);
    expect(useEdits.getState().conflicts).toEqual([]);
  });

  test('keeping both loses neither', async () => {
    start();
    await userEvent.click(screen.getByRole('button', { name: 'Keep both' }));
    expect(names()).toEqual(['Great hall', 'Hall (mine)']);
    expect(shownDocument().view.find((row) => row.name === 'Great hall')!.id).toBe(uuid(30));
  });
});
