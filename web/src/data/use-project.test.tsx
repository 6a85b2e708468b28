import { expect, test } from '@jest/globals';
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { renaming } from '../testing/changes.ts';
import { exampleDocument, exampleRow, exampleView, leaveProject, PROJECT } from '../testing/studio.tsx';
import { projectKey, queryClient, useEdits } from './edits.ts';
import { dispatch } from './undo.ts';
import { useProjectDocument } from './use-project.ts';

function Names() {
  const { data } = useProjectDocument(PROJECT);
  return <p>{data ? data.view.map(({ name }) => name).join(', ') : 'nothing yet'}</p>;
}

test('a document that was asked for before a write and comes after it does not take the write back', async () => {
  const before = exampleDocument({ view: [exampleRow(71, 'Hall', exampleView())] });
  const [view] = before.view;
  const waiting: (() => void)[] = [];
  globalThis.fetch = ((path: string) => {
    const reply = (json: unknown) =>
      ({ ok: true, status: 200, statusText: '', json: () => Promise.resolve(json) }) as Response;
    if (path.endsWith('/edits'))
      return Promise.resolve(
        reply({ seq: 2, rows: [{ kind: 'view', row: { ...view, name: 'Great hall', revision: 2 } }] }),
      );
    // What the server had at the moment of asking; the second answer takes its time.
    if (waiting.length === 0) {
      waiting.push(() => {});
      return Promise.resolve(reply(before));
    }
    return new Promise((resolve) => waiting.push(() => resolve(reply(before))));
  }) as typeof fetch;
  render(
    <QueryClientProvider client={queryClient}>
      <Names />
    </QueryClientProvider>,
  );
  await waitFor(() => expect(screen.getByText('Hall')).toBeTruthy());
  void queryClient.invalidateQueries({ queryKey: projectKey(PROJECT) });
  await waitFor(() => expect(waiting).toHaveLength(2));
  dispatch(PROJECT, 'Rename', [renaming(view!, 'Great hall')]);
  await waitFor(() => expect(useEdits.getState().saved.state).toBe('saved'));
  waiting[1]!();
  await waitFor(() => expect(queryClient.isFetching()).toBe(0));
  expect(screen.getByText('Great hall')).toBeTruthy();
  cleanup();
  await leaveProject();
});
