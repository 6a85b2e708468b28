import { expect, test } from '@jest/globals';
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { exampleDocument, exampleRow, exampleView, leaveProject, PROJECT, uuid } from '../testing/studio.tsx';
import { dispatch, queryClient, useEdits } from './edits.ts';
import { useProjectDocument } from './use-project.ts';

function Names() {
  const { data } = useProjectDocument(PROJECT);
  return <p>{data ? data.view.map(({ name }) => name).join(', ') : 'nothing yet'}</p>;
}

test('a document that was asked for before a write and comes after it does not take the write back', async () => {
  const before = exampleDocument({ view: [exampleRow(71, 'Hall', exampleView())] });
  const after = { ...before, view: [{ ...before.view[0]!, name: 'Great hall', revision: 2 }] };
  const waiting: (() => void)[] = [];
  let written = false;
  globalThis.fetch = ((path: string) => {
    const reply = (json: unknown) =>
      ({ ok: true, status: 200, statusText: '', json: () => Promise.resolve(json) }) as Response;
    if (!path.endsWith('/document')) {
      written = true;
      return Promise.resolve(reply(after.view[0]));
    }
    // What the server has at the moment of asking; the answer takes its time.
    const answer = written ? after : before;
    return new Promise((resolve) => waiting.push(() => resolve(reply(answer))));
  }) as typeof fetch;
  render(
    <QueryClientProvider client={queryClient}>
      <Names />
    </QueryClientProvider>,
  );
  await waitFor(() => expect(waiting).toHaveLength(1));
  dispatch(PROJECT, 'Rename', [{ op: 'change', kind: 'view', id: uuid(71), values: { name: 'Great hall' } }]);
  await leaveNothingUnsaved();
  waiting[0]!();
  // It asks again, since its answer is older than what was confirmed.
  await waitFor(() => expect(waiting).toHaveLength(2));
  waiting[1]!();
  await waitFor(() => expect(screen.getByText('Great hall')).toBeTruthy());
  cleanup();
  await leaveProject();
});

const leaveNothingUnsaved = () =>
  waitFor(() => {
    expect(useEdits.getState().saved.state).toBe('saved');
  });
