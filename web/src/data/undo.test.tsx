import { walkOf } from '@eskovan/core/document';
import { afterEach, describe, expect, test } from '@jest/globals';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ConflictDialog } from '../app/conflict-dialog.tsx';
import { UndoQuestionDialog } from '../app/undo-question.tsx';
import { ColourField, NumberField } from '../kit/index.ts';
import { useHeldDialogs } from '../stage/shared/held-dialogs.ts';
import { renaming } from '../testing/changes.ts';
import {
  editsIn,
  exampleDocument,
  exampleRow,
  exampleView,
  exampleWalk,
  leaveProject,
  PROJECT,
  putOnServer,
  renderInProject,
  shownDocument,
  uuid,
  type Asked,
} from '../testing/studio.tsx';
import { editBody, removeRow } from './edit-row.ts';
import { held, takeChanges, useEdits } from './edits.ts';
import { beginEdit, cancelGesture, dispatch, redo, STEPS, undo, useUndo } from './undo.ts';
import { useProject } from './use-project.ts';

function Height() {
  const row = useProject().move[0]!;
  return (
    <>
      <NumberField
        label="Eye height"
        value={walkOf(row.body).eyeHeight}
        step={0.01}
        onChange={(eyeHeight) => editBody('move', row, 'Eye height', (body) => ({ ...body, eyeHeight }))}
      />
      <ColourField
        label="Colour"
        value="#112233"
        onChange={(name) => dispatch(PROJECT, 'Colour', [renaming(walk(), name, 'move')])}
      />
      <ConflictDialog />
      <UndoQuestionDialog />
    </>
  );
}

const POINTS = [
  [0, 0],
  [4, 0],
] as const;
let asked: Asked[];
const start = () =>
  (asked = renderInProject(
    <Height />,
    exampleDocument({
      move: [exampleRow(20, 'Arrival', exampleWalk(POINTS))],
      view: [exampleRow(30, 'Hall', exampleView())],
    }),
  ));
const walk = () => shownDocument().move[0]!;
const hall = () => shownDocument().view[0]!;
const setHeight = (eyeHeight: number) =>
  act(() => editBody('move', walk(), 'Eye height', (body) => ({ ...body, eyeHeight })));
const saved = () => waitFor(() => expect(useEdits.getState().saved.state).toBe('saved'));

afterEach(async () => {
  useHeldDialogs.setState({ postponed: false });
  await leaveProject();
});

describe('a gesture', () => {
  test('a label scrubbed over 300 steps is one edit and one step of undo', async () => {
    start();
    const label = screen.getByText('Eye height');
    Object.assign(label, { setPointerCapture: () => {} });
    fireEvent.pointerDown(label, { button: 0, clientX: 0, pointerId: 1 });
    for (let step = 1; step <= 300; step += 1) fireEvent.pointerMove(label, { clientX: step, pointerId: 1 });
    await waitFor(() => expect(walkOf(walk().body).eyeHeight).toBeCloseTo(2.35, 6));
    expect(editsIn(asked)).toEqual([]);
    fireEvent.pointerUp(label, { clientX: 300, pointerId: 1 });
    await saved();
    expect(editsIn(asked)).toHaveLength(1);
    expect(editsIn(asked)[0]!.changes).toEqual([
      { op: 'set', kind: 'move', id: uuid(20), facet: ['body', 'eyeHeight'], before: 1.6, after: 2.35 },
    ]);
    act(() => expect(undo(PROJECT)).toBe('Eye height'));
    expect(walkOf(walk().body).eyeHeight).toBe(1.6);
    expect(useUndo.getState().past[PROJECT]).toEqual([]);
  });

  test('an arrow key held down is one edit; two presses are two', async () => {
    start();
    const field = screen.getByLabelText('Eye height');
    for (let n = 0; n < 40; n += 1) {
      fireEvent.keyDown(field, { key: 'ArrowUp', repeat: n > 0 });
      await waitFor(() => expect(walkOf(walk().body).eyeHeight).toBeCloseTo(1.61 + 0.01 * n, 6));
    }
    fireEvent.keyUp(field, { key: 'ArrowUp' });
    await saved();
    expect(editsIn(asked)).toHaveLength(1);
    await userEvent.type(field, '{ArrowUp}{ArrowUp}');
    await saved();
    expect(editsIn(asked)).toHaveLength(3);
  });

  test('Escape takes it back whole, and nothing of it reached the server', async () => {
    start();
    const gesture = beginEdit();
    setHeight(1.9);
    act(() => dispatch(PROJECT, 'Rename', [renaming(hall(), 'Great hall')]));
    expect([walkOf(walk().body).eyeHeight, hall().name]).toEqual([1.9, 'Great hall']);
    act(() => expect(cancelGesture()).toBe(true));
    expect([walkOf(walk().body).eyeHeight, hall().name]).toEqual([1.6, 'Hall']);
    expect(gesture.open).toBe(false);
    gesture.commit();
    expect(editsIn(asked)).toEqual([]);
    expect(cancelGesture()).toBe(false);
  });

  test('one that comes back to where it began is no edit at all', async () => {
    start();
    const gesture = beginEdit();
    setHeight(1.9);
    setHeight(1.6);
    act(() => gesture.commit());
    expect(editsIn(asked)).toEqual([]);
    expect(useUndo.getState().past[PROJECT] ?? []).toEqual([]);
  });

  test('picking a colour is one, from the first shade to the closing of the picker', async () => {
    start();
    const field = screen.getByLabelText('Colour');
    for (const shade of ['#aa0000', '#bb0000', '#cc0000']) fireEvent.input(field, { target: { value: shade } });
    expect(editsIn(asked)).toEqual([]);
    act(() => void field.dispatchEvent(new Event('change', { bubbles: false })));
    await saved();
    expect(editsIn(asked).map(({ changes }) => changes)).toMatchObject([[{ before: 'Arrival' }]]);
  });

  test('what others do meanwhile is shown under it', () => {
    start();
    const gesture = beginEdit();
    setHeight(1.9);
    act(() =>
      takeChanges(PROJECT, {
        seq: 9,
        rows: [{ kind: 'move', row: { ...walk(), name: 'Theirs', revision: 5, body: exampleWalk(POINTS) } }],
      }),
    );
    expect(walk()).toMatchObject({ name: 'Theirs', body: { eyeHeight: 1.9 } });
    act(() => gesture.cancel());
    expect(walk()).toMatchObject({ name: 'Theirs', body: { eyeHeight: 1.6 } });
  });
});

/** Somebody else has changed the walk, and this page has heard of it. */
const theirs = (change: { eyeHeight?: number; name?: string; deleted?: string }) => {
  const { eyeHeight, ...row } = change;
  const body = eyeHeight === undefined ? walk().body : { ...walk().body, eyeHeight };
  const next = { ...walk(), ...row, body, revision: 50 };
  putOnServer(next);
  act(() => takeChanges(PROJECT, { seq: 50, rows: [{ kind: 'move', row: next }] }));
};

describe('undo', () => {
  test('goes back 200 steps, and forward again', async () => {
    start();
    for (let n = 1; n <= STEPS + 10; n += 1) setHeight(1 + n / 1000);
    for (let n = 0; n < STEPS; n += 1) act(() => void undo(PROJECT));
    expect(walkOf(walk().body).eyeHeight).toBeCloseTo(1.01, 9);
    act(() => expect(undo(PROJECT)).toBeNull());
    for (let n = 0; n < STEPS; n += 1) act(() => void redo(PROJECT));
    expect(walkOf(walk().body).eyeHeight).toBeCloseTo(1.21, 9);
    // Six hundred edits leave one after the other: a busy machine takes its time.
    await waitFor(() => expect(useEdits.getState().saved.state).toBe('saved'), { timeout: 90_000 });
  }, 120_000);

  test('after somebody else changed another facet just works', () => {
    start();
    setHeight(1.9);
    theirs({ name: 'Theirs' });
    act(() => expect(undo(PROJECT)).toBe('Eye height'));
    expect(walk()).toMatchObject({ name: 'Theirs', body: { eyeHeight: 1.6 } });
  });

  test('after somebody else changed the same facet says so, and does nothing until the person chooses', async () => {
    start();
    setHeight(1.9);
    await saved();
    theirs({ eyeHeight: 1.2 });
    act(() => expect(undo(PROJECT)).toBeNull());
    expect(walkOf(walk().body).eyeHeight).toBe(1.2);
    expect(screen.getByRole('dialog').textContent).toContain('Undo “Eye height”?');
    expect(screen.getByRole('dialog').textContent).toContain('eye height is now: 1.2');
    await userEvent.click(screen.getByRole('button', { name: 'Leave it as it is' }));
    expect(walkOf(walk().body).eyeHeight).toBe(1.2);
    // The step is forgotten: the next undo is not stopped by it.
    act(() => expect(undo(PROJECT)).toBeNull());
    expect(screen.queryByRole('dialog')).toBeNull();
  });

  test('and undoes over it where the person wants that', async () => {
    start();
    setHeight(1.9);
    await saved();
    theirs({ eyeHeight: 1.2 });
    act(() => void undo(PROJECT));
    await userEvent.click(screen.getByRole('button', { name: 'Undo anyway' }));
    expect(walkOf(walk().body).eyeHeight).toBe(1.6);
    act(() => expect(redo(PROJECT)).toBe('Eye height'));
    expect(walkOf(walk().body).eyeHeight).toBe(1.9);
  });

  test('of something in a row that somebody deleted brings nothing back by itself', async () => {
    start();
    setHeight(1.9);
    await saved();
    theirs({ deleted: '2026-01-02T00:00:00.000Z' });
    act(() => void undo(PROJECT));
    expect(screen.getByRole('dialog').textContent).toContain('deleted it since');
    expect(walk().deleted).not.toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Leave it as it is' }));
  });

  test('a row that is made, undone and done again is the same row', async () => {
    start();
    act(() => removeRow('view', hall()));
    expect(hall().deleted).not.toBeNull();
    act(() => void undo(PROJECT));
    expect(hall().deleted).toBeNull();
    act(() => void redo(PROJECT));
    expect(hall().deleted).not.toBeNull();
    await saved();
    expect(editsIn(asked).map(({ changes }) => changes[0]!.op)).toEqual(['remove', 'restore', 'remove']);
  });
});

describe('a conflict', () => {
  /** The server has another height than the page believes, and refuses ours. */
  const clash = (reason: 'changed' | 'deleted' | 'missing', kind: 'move' | 'project' | 'link' = 'move') => {
    const real = globalThis.fetch;
    const now = {
      ...walk(),
      revision: 9,
      deleted: reason === 'deleted' ? '2026-01-02T00:00:00.000Z' : null,
      body: { ...walk().body, eyeHeight: 1.1 },
    };
    let first = true;
    globalThis.fetch = ((path: string, init: RequestInit) => {
      if (!first || !path.endsWith('/edits')) {
        asked.push({ method: init.method ?? 'GET', path, body: JSON.parse(String(init.body ?? 'null')) });
        return Promise.resolve({
          ok: true,
          status: 200,
          statusText: '',
          json: () => Promise.resolve({ seq: 60, rows: [] }),
        } as Response);
      }
      first = false;
      const since = { by: 'Otto', label: 'Seated', at: '2026-01-01T10:00:00.000Z' };
      const clashes = [{ kind, id: uuid(20), facet: ['body', 'eyeHeight'], reason, current: 1.1, since }];
      const problem = {
        code: 'conflict',
        message: 'changed',
        clashes,
        rows: reason === 'missing' ? [] : [{ kind: 'move', row: now }],
      };
      return Promise.resolve({
        ok: false,
        status: 409,
        statusText: '',
        json: () => Promise.resolve(problem),
      } as Response);
    }) as typeof fetch;
    return () => (globalThis.fetch = real);
  };
  const conflicted = () => waitFor(() => expect(useEdits.getState().saved.state).toBe('conflict'));
  const sent = () => editsIn(asked.filter(({ path }) => path.endsWith('/edits')));

  test('shows both values, who and when; keeping mine puts it over theirs', async () => {
    start();
    clash('changed');
    setHeight(1.9);
    await conflicted();
    const { textContent } = screen.getByRole('dialog');
    expect(textContent).toContain('Otto');
    expect(textContent).toContain('eye height: 1.9');
    expect(textContent).toContain('eye height: 1.1');
    await userEvent.click(screen.getByRole('button', { name: 'Keep mine' }));
    await saved();
    expect(sent().at(-1)!.changes).toMatchObject([{ op: 'set', before: 1.1, after: 1.9 }]);
  });

  test('keeping theirs drops mine, and it cannot be undone any more', async () => {
    start();
    clash('changed');
    setHeight(1.9);
    await conflicted();
    await userEvent.click(screen.getByRole('button', { name: 'Keep theirs' }));
    await saved();
    expect(walkOf(walk().body).eyeHeight).toBe(1.1);
    act(() => expect(undo(PROJECT)).toBeNull());
  });

  test('keeping both makes a copy of mine beside theirs', async () => {
    start();
    clash('changed');
    setHeight(1.9);
    await conflicted();
    await userEvent.click(screen.getByRole('button', { name: 'Keep both' }));
    await saved();
    expect(sent().at(-1)!.changes).toMatchObject([
      { op: 'make', kind: 'move', name: 'Arrival (mine)', body: { eyeHeight: 1.9 } },
    ]);
    expect(walkOf(walk().body).eyeHeight).toBe(1.1);
  });

  test('Escape decides nothing; the rest is saved meanwhile, and it can be decided later', async () => {
    start();
    clash('changed');
    setHeight(1.9);
    await conflicted();
    await userEvent.keyboard('{Escape}');
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(walkOf(walk().body).eyeHeight).toBe(1.9);
    act(() => dispatch(PROJECT, 'Rename', [renaming(hall(), 'Great hall')]));
    await waitFor(() => expect(sent().at(-1)!.label).toBe('Rename'));
    act(() => useHeldDialogs.setState({ postponed: false }));
    await userEvent.click(await screen.findByRole('button', { name: 'Keep theirs' }));
    await saved();
  });

  test('on a row that somebody deleted it is brought back with mine, or let go; there is no both', async () => {
    start();
    clash('deleted');
    setHeight(1.9);
    await conflicted();
    expect(screen.getByRole('dialog').textContent).toContain('“Arrival” was deleted elsewhere');
    expect(screen.queryByRole('button', { name: 'Keep both' })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Bring it back with mine' }));
    await saved();
    expect(sent().at(-1)!.changes).toMatchObject([{ op: 'restore' }, { op: 'set', before: 1.1, after: 1.9 }]);
  });

  test('on a row that is not there there is only letting go', async () => {
    start();
    clash('missing');
    setHeight(1.9);
    await conflicted();
    expect(screen.getAllByRole('button', { name: /Keep|Bring|Let/ }).map(({ textContent }) => textContent)).toEqual([
      'Let it go',
    ]);
    await userEvent.click(screen.getByRole('button', { name: 'Let it go' }));
    await saved();
    expect(walkOf(walk().body).eyeHeight).toBe(1.6);
  });

  test.each(['project', 'link'] as const)('about a %s offers mine and theirs, never two of them', async (kind) => {
    start();
    clash('changed', kind);
    setHeight(1.9);
    await conflicted();
    expect(screen.queryByRole('button', { name: 'Keep both' })).toBeNull();
    expect(screen.getByRole('button', { name: 'Keep mine' })).toBeTruthy();
    act(() => held.decide(useEdits.getState().conflicts[0]!, 'theirs'));
    await saved();
  });
});
