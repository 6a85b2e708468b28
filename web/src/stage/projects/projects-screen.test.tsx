import { afterEach, describe, expect, test } from '@jest/globals';
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Tooltip } from 'radix-ui';
import { MemoryRouter, Route, Routes } from 'react-router';
import { queryClient } from '../../data/edits.ts';
import { editsIn, exampleDocument, uuid, type Asked } from '../../testing/studio.tsx';
import { ProjectsScreen } from './projects-screen.tsx';

const card = (n: number, name: string, models: number) => ({
  project: { ...exampleDocument().project, id: uuid(n), projectId: uuid(n), name },
  cover: models > 0 ? 'a'.repeat(64) : null,
  counts: { model: models, action: 0, light: 0, move: 2, view: 1, reel: 0, shot: 0, take: 0, link: 0 },
});

function start(answers: (asked: Asked) => { status: number; json: unknown }): Asked[] {
  const asked: Asked[] = [];
  globalThis.fetch = ((path: string, init: RequestInit = {}) => {
    const one = {
      method: init.method ?? 'GET',
      path,
      body: typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined,
    };
    asked.push(one);
    const { status, json } = answers(one);
    return Promise.resolve({ ok: status < 400, status, statusText: '', json: () => Promise.resolve(json) } as Response);
  }) as typeof fetch;
  queryClient.clear();
  render(
    <QueryClientProvider client={queryClient}>
      <Tooltip.Provider>
        <MemoryRouter>
          <Routes>
            <Route path="/" element={<ProjectsScreen />} />
            <Route path="/project/:id/:stage" element={<p>inside</p>} />
          </Routes>
        </MemoryRouter>
      </Tooltip.Provider>
    </QueryClientProvider>,
  );
  return asked;
}
afterEach(cleanup);

describe('the projects', () => {
  test('show as cards; one without a model leads to where it is brought in', async () => {
    start(() => ({ status: 200, json: [card(5, 'Ternholm', 1), card(6, 'Empty', 0)] }));
    expect((await screen.findByRole('link', { name: /Ternholm/ })).getAttribute('href')).toBe(
      `/project/${uuid(5)}/moves`,
    );
    expect(screen.getByRole('link', { name: /Empty/ }).getAttribute('href')).toBe(`/project/${uuid(6)}/model`);
    expect(screen.getByText('1 view · 2 moves · 0 takes')).toBeTruthy();
    expect(screen.getByAltText('A view of Ternholm')).toBeTruthy();
  });

  test('where there are none, the screen offers the one next step', async () => {
    start(() => ({ status: 200, json: [] }));
    expect(await screen.findByText('No projects yet')).toBeTruthy();
    expect(screen.getAllByRole('button', { name: 'New project' }).length).toBeGreaterThan(0);
  });

  test('a new project needs a name, and is made once', async () => {
    const asked = start(({ method }) =>
      method === 'POST' ? { status: 200, json: { seq: 1, rows: [] } } : { status: 200, json: [] },
    );
    await userEvent.click((await screen.findAllByRole('button', { name: 'New project' }))[0]!);
    await userEvent.click(screen.getByRole('button', { name: 'Make project' }));
    expect(screen.getByRole('alert').textContent).toMatch(/name/);
    await userEvent.type(screen.getByLabelText('Name'), '  Heron house  ');
    await userEvent.type(screen.getByLabelText('Client'), 'Parish');
    await userEvent.click(screen.getByRole('button', { name: 'Make project' }));
    expect(await screen.findByText('inside')).toBeTruthy();
    const made = editsIn(asked);
    expect(made).toHaveLength(1);
    expect(made[0]!.changes).toMatchObject([
      { op: 'make', kind: 'project', name: 'Heron house', body: { client: 'Parish', rate: { num: 25, den: 1 } } },
    ]);
  });

  test('is deleted, and can be brought back', async () => {
    const asked = start(({ method }) =>
      method === 'GET' ? { status: 200, json: [card(5, 'Ternholm', 1)] } : { status: 200, json: { seq: 2, rows: [] } },
    );
    await userEvent.click(await screen.findByRole('button', { name: 'More for Ternholm' }));
    await userEvent.click(await screen.findByRole('menuitem', { name: 'Delete' }));
    await waitFor(() =>
      expect(editsIn(asked).map(({ changes }) => changes)).toEqual([[{ op: 'remove', kind: 'project', id: uuid(5) }]]),
    );
  });
});
