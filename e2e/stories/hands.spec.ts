import { walkOf, type Edit } from '@eskovan/core/document';
import { spawn } from 'node:child_process';
import { expect, test, type Page } from '@playwright/test';
import { editElsewhere } from '../support/edits.ts';
import { house } from '../support/house.ts';
import { VIEW, WALK } from '../support/rows.ts';
import { documentOf, newProject, projectIdOf, saved, sharpPicture, soon } from '../support/studio.ts';
import { drawWalk } from '../support/walk.ts';

test('with the keyboard alone: choose a view, start a path, walk it round a corner, aim it, name it, undo it', async ({
  page,
}) => {
  const projectId = await house(page, 'Keys only');
  await editElsewhere(page.request, projectId, 'Two views', [
    { op: 'make', kind: 'view', id: crypto.randomUUID(), name: 'First', order: 1, body: VIEW },
    {
      op: 'make',
      kind: 'view',
      id: crypto.randomUUID(),
      name: 'Second',
      order: 2,
      body: { ...VIEW, pose: { ...VIEW.pose, position: [3, 1.6, 4] } },
    },
  ]);
  const { keyboard } = page;
  /** Does a command by its words, as somebody without a mouse would. */
  const command = async (words: string) => {
    await keyboard.press('Control+k');
    await expect(page.getByRole('combobox', { name: 'Command' })).toBeFocused();
    await keyboard.type(words);
    // A screen that is still coming brings its commands with it.
    await expect(page.getByRole('option').first()).toBeVisible();
    await keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  const focused = () =>
    page.evaluate(
      () => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '',
    );
  const tabTo = async (label: RegExp) => {
    for (let n = 0; n < 80; n += 1) {
      await keyboard.press('Tab');
      if (label.test(await focused())) return;
    }
    throw new Error(`Tab never came to ${label}`);
  };

  await command('go to views');
  await expect(page.getByRole('heading', { name: 'Views' })).toBeVisible();
  await sharpPicture(page);
  await tabTo(/^1First/);
  await keyboard.press('ArrowDown');
  await expect(page.locator('[data-row]').filter({ hasText: 'Second' })).toHaveAttribute('aria-current', 'true');
  // Two people stand on the plan by keys: the cursor goes, Enter stands, Ctrl and arrows turn.
  await tabTo(/^Plan: press to stand/);
  await keyboard.press('ArrowRight');
  await keyboard.press('Enter');
  await keyboard.press('Control+ArrowRight');
  await expect(page.getByText(/^Scouting/)).toBeVisible();
  await keyboard.press('b');
  await expect(page.getByText(/^Scouting/)).toHaveCount(0);

  await command('go to moves');
  await command('new walk');
  await expect(page.getByRole('group', { name: 'Plan', exact: true })).toBeFocused();
  // Three places, the middle one a corner.
  await keyboard.press('Home');
  await keyboard.press('ArrowLeft');
  await keyboard.press('Enter');
  for (let n = 0; n < 3; n += 1) await keyboard.press('Shift+ArrowRight');
  await keyboard.press('Enter');
  for (let n = 0; n < 2; n += 1) await keyboard.press('Shift+ArrowDown');
  await keyboard.press('Enter');
  await keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Node 3/ })).toBeVisible();
  await tabTo(/^Node 2/);
  await keyboard.press('c');
  await expect(page.getByRole('button', { name: /^Node 2, corner/ })).toBeVisible();

  // Aimed at something found by its name.
  await tabTo(/^Ahead$/);
  await keyboard.press('ArrowRight');
  await soon(focused).toBe('At an object');
  await keyboard.press('Space');
  await tabTo(/^Find an object$/);
  await keyboard.type('table');
  await keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Gaze' })).toContainText('Table');

  await command('rename in moves');
  // The list is drawn a moment later: what is typed before is nobody’s name.
  await expect(page.getByLabel(/^New name of/)).toBeFocused();
  await keyboard.press('Control+a');
  await keyboard.type('Round the corner');
  await keyboard.press('Enter');
  await saved(page);
  const move = async () => (await documentOf(page.request, projectId)).move[0];
  const kept = (await move())!;
  expect(kept.name).toBe('Round the corner');
  expect(walkOf(kept.body).path.nodes.map(({ kind }) => kind)).toEqual(['smooth', 'corner', 'smooth']);
  const [a, b, c] = walkOf(kept.body).path.nodes;
  expect([b!.x - a!.x, c!.z - b!.z]).toEqual([expect.closeTo(3, 6), expect.closeTo(2, 6)]);
  expect(walkOf(kept.body).gaze).toMatchObject({ kind: 'object', name: expect.stringContaining('Table') as unknown });
  await keyboard.press('Control+z');
  await saved(page);
  expect((await move())!.name).toBe('Walk 1');
  // A command is done once its dialog has given the focus back.
  await command('undo');
  await soon(async () => walkOf((await move())!.body).gaze.kind).toBe('ahead');
});

test('a field says what is wrong with it, the strips have tables, and letters can be switched off', async ({
  page,
}) => {
  const projectId = await house(page, 'Reached by all');
  await drawWalk(page, [
    [3, 4.6],
    [3.4, 3],
  ]);
  const field = page.getByLabel('Eye height, m');
  await field.fill('a lot');
  await field.press('Enter');
  const fault = page.getByRole('alert').filter({ hasText: 'cannot be read as a number' });
  await expect(fault).toBeVisible();
  await expect(field).toHaveAccessibleDescription(/cannot be read/);
  await field.press('Escape');
  await expect(fault).toHaveCount(0);

  for (const strip of ['Section', 'Pace']) {
    await page.getByRole('button', { name: `${strip} as a table` }).click();
    const table = page.getByRole('dialog').getByRole('table');
    await expect(table.getByRole('row').nth(2)).toBeVisible();
    await page.keyboard.press('Escape');
  }

  await page.keyboard.press('?');
  await page.getByRole('dialog').getByLabel('Letters and signs work as keys by themselves').uncheck();
  // While a dialog is open no key reaches what lies under it.
  await page.keyboard.press('p');
  await page.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('p');
  await expect(page.getByRole('button', { name: 'Draw path' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Command' }).fill('all keys');
  await page.keyboard.press('Enter');
  await page.getByLabel('Letters and signs work as keys by themselves').check();
  await page.getByRole('button', { name: /^Key for Draw the path/ }).click();
  await page.keyboard.press('x');
  await page.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('x');
  await expect(page.getByRole('button', { name: 'Done drawing' })).toBeVisible();
  expect(projectIdOf(page)).toBe(projectId);
});

test('a drag is one edit and one step of undo; Escape in the middle takes it back', async ({ page }) => {
  const projectId = await house(page, 'Gestures');
  await drawWalk(page, [
    [3, 4.6],
    [3.4, 3],
  ]);
  await saved(page);
  // What a machine writes meanwhile (a picture of the light) is nobody's gesture.
  const sent: Edit[] = [];
  page.on('request', (one) => {
    if (one.method() !== 'POST' || !one.url().endsWith('/edits')) return;
    const edit = one.postDataJSON() as Edit;
    if (!edit.machine) sent.push(edit);
  });
  const hand = page.getByRole('button', { name: /^Node 2/ });
  const before = (await hand.getAttribute('aria-label'))!;
  expect(before).toMatch(/at 3\.\d\d, [23]\.\d\d/);
  const node = (await hand.boundingBox())!;
  const from = { x: node.x + node.width / 2, y: node.y + node.height / 2 };
  const drag = async () => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 90, from.y + 40, { steps: 40 });
  };
  await drag();
  await expect(hand).not.toHaveAttribute('aria-label', before);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(hand).toHaveAttribute('aria-label', before);
  expect(sent).toEqual([]);
  await drag();
  await page.mouse.up();
  await saved(page);
  expect(sent).toHaveLength(1);

  // A label scrubbed over 300 pixels.
  await page.getByText('Focal length', { exact: true }).scrollIntoViewIfNeeded();
  const label = (await page.getByText('Focal length', { exact: true }).boundingBox())!;
  await page.mouse.move(label.x + 4, label.y + 8);
  await page.mouse.down();
  await page.mouse.move(label.x + 84, label.y + 8, { steps: 300 });
  await page.mouse.up();
  await saved(page);
  expect(sent).toHaveLength(2);
  const lens = async () => (await documentOf(page.request, projectId)).move[0]!.body.lens.focalLengthMm;
  expect(await lens()).toBe(44);
  await page.keyboard.press('Control+z');
  await saved(page);
  expect(await lens()).toBe(24);
});

test('seven tabs of one browser: each follows what is done in another, over one stream', async ({ context, page }) => {
  const projectId = await newProject(page, 'Seven tabs');
  await editElsewhere(page.request, projectId, 'A walk', [
    {
      op: 'make',
      kind: 'link',
      id: crypto.randomUUID(),
      name: 'Link 1',
      order: 1,
      body: { token: 'S'.repeat(42) + '1', takeIds: [], viewIds: [], expires: null },
    },
  ]);
  const streams: string[] = [];
  context.on('request', (one) => one.url().includes('/api/live') && one.method() === 'GET' && streams.push(one.url()));
  const tabs: Page[] = [];
  for (let n = 0; n < 7; n += 1) {
    const tab = await context.newPage();
    await tab.goto(`/project/${projectId}/review`);
    await expect(tab.getByRole('heading', { name: 'Links sent' })).toBeVisible();
    tabs.push(tab);
  }
  const { link } = await documentOf(page.request, projectId);
  await editElsewhere(page.request, projectId, 'Rename', [
    { op: 'set', kind: 'link', id: link[0]!.id, facet: ['name'], before: 'Link 1', after: 'For the parish' },
  ]);
  for (const tab of tabs) await expect(tab.getByRole('heading', { name: 'For the parish' })).toBeVisible();
  // The first page had the stream already; the seven opened none.
  expect(streams).toEqual([]);
  // The one that has it closes: another takes it over, and nothing is missed.
  await page.close();
  await editElsewhere(tabs[0]!.request, projectId, 'Rename', [
    { op: 'set', kind: 'link', id: link[0]!.id, facet: ['name'], before: 'For the parish', after: 'For the council' },
  ]);
  for (const tab of tabs) await expect(tab.getByRole('heading', { name: 'For the council' })).toBeVisible();
  expect(streams).toHaveLength(1);
});

test('a tab that closes with unsaved edits while another is open: the other one saves them', async ({
  context,
  page,
}) => {
  const projectId = await newProject(page, 'Two tabs');
  const closing = await context.newPage();
  await closing.goto(`/project/${projectId}/review`);
  await expect(
    closing
      .getByRole('heading', { name: 'Ternholm', exact: false })
      .or(closing.getByRole('heading', { name: 'Two tabs' })),
  ).toBeVisible();
  // The server does not answer this tab any more.
  await closing.route('**/edits', (route) => route.abort());
  await closing.getByRole('button', { name: 'Project settings' }).click();
  await closing.getByLabel('Client').fill('Ternholm Parish');
  await closing.getByRole('button', { name: 'Save settings' }).click();
  await expect(closing.locator('[data-saved="offline"]')).toBeVisible();
  expect((await documentOf(page.request, projectId)).project.body.client).toBe('');
  await closing.close({ runBeforeUnload: false });
  await soon(async () => (await documentOf(page.request, projectId)).project.body.client).toBe('Ternholm Parish');
  await saved(page);
});

test('an edit that is refused is set aside, can be read and dropped; everything else is saved', async ({ page }) => {
  const projectId = await newProject(page, 'Set aside');
  await page.route('**/edits', async (route) => {
    if (!(route.request().postData() ?? '').includes('Bad client')) return route.continue();
    return route.fulfill({ status: 422, json: { code: 'invalid', message: 'body.client: this name is not taken.' } });
  });
  const settings = async (label: string, value: string) => {
    await page.getByRole('button', { name: 'Project settings' }).click();
    await page.getByLabel(label).fill(value);
    await page.getByRole('button', { name: 'Save settings' }).click();
  };
  await settings('Client', 'Bad client');
  await settings('Round', 'Round 2');
  await expect(page.getByRole('button', { name: '1 set aside' })).toBeVisible();
  // The other edit may still be on its way when the first is set aside.
  await expect(page.getByRole('status', { name: 'Saved state' })).toContainText('The rest is saved');
  const { project } = await documentOf(page.request, projectId);
  expect([project.body.client, project.body.round]).toEqual(['', 'Round 2']);
  await page.getByRole('button', { name: '1 set aside' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('this name is not taken');
  await expect(dialog).toContainText('client of a project: → Bad client');
  await dialog.getByRole('button', { name: 'Drop it' }).click();
  await saved(page);
  // Leaving with nothing unsaved asks nothing.
  let asked = false;
  page.on('dialog', (one) => ((asked = true), void one.accept()));
  await page.goto('/');
  expect(asked).toBe(false);
});

test('a page that is older than the server says so, keeps what was made, and saves it once it is reloaded', async ({
  page,
}) => {
  const projectId = await newProject(page, 'Old page');
  let updated = true;
  await page.route('**/edits', (route) =>
    updated
      ? route.fulfill({
          status: 409,
          json: { code: 'old-page', message: 'This page is older than the server. Reload it.' },
        })
      : route.continue(),
  );
  await page.getByRole('button', { name: 'Project settings' }).click();
  await page.getByLabel('Round').fill('Round 7');
  await page.getByRole('button', { name: 'Save settings' }).click();
  await expect(page.getByText('This page is out of date')).toBeVisible();
  updated = false;
  page.on('dialog', (one) => void one.accept());
  await page.getByRole('button', { name: 'Reload' }).click();
  await saved(page);
  await soon(async () => (await documentOf(page.request, projectId)).project.body.round).toBe('Round 7');
});

test('undo and redo twenty times in a row beside two processes that keep both cores busy', async ({ page }) => {
  test.setTimeout(240_000);
  const projectId = await newProject(page, 'Busy machine');
  const walk = crypto.randomUUID();
  await editElsewhere(page.request, projectId, 'A walk', [
    { op: 'make', kind: 'move', id: walk, name: 'Walk', order: 1, body: WALK },
  ]);
  const busy = [0, 1].map(() => spawn('node', ['-e', 'for (;;) Math.sqrt(Math.random())'], { stdio: 'ignore' }));
  try {
    const round = async () => (await documentOf(page.request, projectId)).project.body.round;
    await page.getByRole('button', { name: 'Project settings' }).click();
    await page.getByLabel('Round').fill('Round 2');
    await page.getByRole('button', { name: 'Save settings' }).click();
    for (let n = 0; n < 20; n += 1) {
      await page.keyboard.press('Control+z');
      await saved(page);
      expect(await round()).toBe('Round 1');
      await page.getByRole('button', { name: 'Redo' }).click();
      await saved(page);
      expect(await round()).toBe('Round 2');
    }
  } finally {
    for (const one of busy) one.kill();
  }
});

test('two people: who is here is shown, different facets of one move never conflict', async ({
  browser,
  page,
  baseURL,
}) => {
  const projectId = await newProject(page, 'Two at once');
  const walk = crypto.randomUUID();
  await editElsewhere(page.request, projectId, 'A walk', [
    { op: 'make', kind: 'move', id: walk, name: 'Walk', order: 1, body: WALK },
  ]);
  const elsewhere = await browser.newContext({ ...(baseURL ? { baseURL } : {}) });
  const other = await elsewhere.newPage();
  await other.goto(`/project/${projectId}/review`);
  await other.getByRole('button', { name: /^You are/ }).click();
  await other.getByRole('textbox', { name: 'Your name' }).fill('Otto Ebb');
  await other.getByRole('button', { name: 'That is me' }).click();
  await expect(page.getByRole('button', { name: 'Otto Ebb is here, in Review' })).toBeVisible();
  // Both change the project's settings, each another one.
  const settings = async (who: Page, label: string, value: string) => {
    await who.getByRole('button', { name: 'Project settings' }).click();
    await who.getByLabel(label).fill(value);
  };
  await settings(page, 'Client', 'Parish');
  await settings(other, 'Round', 'Round 9');
  await other.getByRole('button', { name: 'Save settings' }).click();
  await saved(other);
  // What is being typed stays, whatever comes in meanwhile.
  await expect(page.getByText('/ Round 9')).toBeVisible();
  await expect(page.getByLabel('Client')).toHaveValue('Parish');
  await page.getByRole('button', { name: 'Save settings' }).click();
  await saved(page);
  const { project } = await documentOf(page.request, projectId);
  expect([project.body.client, project.body.round]).toEqual(['Parish', 'Round 9']);
  await elsewhere.close();
  await expect(page.getByRole('button', { name: /Otto Ebb is here/ })).toHaveCount(0);
});
