import { walkOf } from '@eskovan/core/document';
import { request as httpRequest } from 'node:http';
import { expect, test, type Page } from '@playwright/test';
import { editElsewhere } from '../support/edits.ts';
import { bringHouseIn, house } from '../support/house.ts';
import { ownStudio, type OwnStudio } from '../support/own-studio.ts';
import { documentOf, newProject, pressPlan, saved, soon } from '../support/studio.ts';
import { drawWalk } from '../support/walk.ts';

async function projectWithHouse(page: Page, name: string): Promise<string> {
  const projectId = await newProject(page, name);
  await bringHouseIn(page);
  return projectId;
}

test.describe('a server that dies', () => {
  let studio: OwnStudio;
  test.beforeAll(async () => {
    studio = await ownStudio();
  });
  test.afterAll(() => studio.stop());

  test('in the middle of saving loses nothing, and what is made meanwhile is saved when it is back', async ({
    browser,
  }) => {
    const context = await browser.newContext({ baseURL: studio.address });
    const page = await context.newPage();
    const projectId = await projectWithHouse(page, 'Power cut');
    await drawWalk(page, [
      [3, 4.6],
      [3.4, 3],
    ]);
    await saved(page);
    const confirmed = await documentOf(context.request, projectId);
    await studio.kill();
    // Work goes on without the server.
    await page.getByRole('button', { name: 'Draw path' }).click();
    await pressPlan(page, 5.05, 2.9);
    await pressPlan(page, 6.5, 2.9);
    await page.keyboard.press('Enter');
    await expect(page.locator('[data-saved="offline"]')).toBeVisible();
    await studio.start();
    await saved(page);
    const after = await documentOf(context.request, projectId);
    expect(after.move).toHaveLength(1);
    expect(walkOf(after.move[0]!.body).path.nodes.slice(0, 2)).toEqual(walkOf(confirmed.move[0]!.body).path.nodes);
    expect(walkOf(after.move[0]!.body).path.nodes).toHaveLength(4);
    expect(after.model).toEqual(confirmed.model);
    await context.close();
  });

  test('and a page that is closed before it is back: the next page saves what was made', async ({ browser }) => {
    const context = await browser.newContext({ baseURL: studio.address });
    const page = await context.newPage();
    const projectId = await projectWithHouse(page, 'Two cuts');
    await drawWalk(page, [
      [3, 4.6],
      [3.4, 3],
    ]);
    await saved(page);
    await studio.kill();
    await page.getByRole('button', { name: 'Draw path' }).click();
    await pressPlan(page, 5.05, 2.9);
    await page.keyboard.press('Enter');
    await expect(page.locator('[data-saved="offline"]')).toBeVisible();
    await page.close();
    await studio.start();
    const next = await context.newPage();
    await next.goto(`/project/${projectId}/moves`);
    await saved(next);
    await soon(async () => walkOf((await documentOf(context.request, projectId)).move[0]!.body).path.nodes.length).toBe(
      3,
    );
    await context.close();
  });

  test('in the middle of an upload leaves no half-made model', async ({ browser }) => {
    const context = await browser.newContext({ baseURL: studio.address });
    const page = await context.newPage();
    const projectId = await newProject(page, 'Half an upload');
    // What died on its way in the stories before lies there, too, for its hour.
    const left = new Set(await studio.incoming());
    const broken = new Promise<void>((resolve) => {
      const upload = httpRequest(`${studio.address}/api/files`, {
        method: 'POST',
        headers: { 'Content-Type': 'model/gltf-binary', 'Content-Length': 1_000_000 },
      });
      upload.once('error', () => resolve());
      upload.write(Buffer.alloc(300_000, 7));
    });
    await soon(async () => (await studio.incoming()).filter((name) => !left.has(name))).toHaveLength(1);
    await studio.kill();
    await broken;
    await studio.start();
    // What is half-written goes an hour later; it is nobody's file meanwhile.
    expect((await documentOf(context.request, projectId)).model).toEqual([]);
    // And the same model goes in whole afterwards.
    await page.reload();
    await bringHouseIn(page);
    expect((await documentOf(context.request, projectId)).model).toHaveLength(1);
    await context.close();
  });
});

test('a slow server: work goes on, the saved state tells the truth, and everything arrives in order', async ({
  page,
}) => {
  const projectId = await house(page, 'Slow server');
  await page.route('**/api/projects/**', async (route) => {
    // Every answer takes its time.
    await new Promise((resolve) => setTimeout(resolve, 700));
    await route.continue();
  });
  await drawWalk(page, [
    [3, 4.6],
    [3.4, 3],
    [5.05, 2.9],
    [6.5, 2.9],
  ]);
  await expect(page.locator('[data-saved="saving"]')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Node 4/ })).toBeVisible();
  await saved(page);
  const [move] = (await documentOf(page.request, projectId)).move;
  expect(walkOf(move!.body).path.nodes).toHaveLength(4);
  expect(move!.revision).toBe(5);
});

test('undo and redo reach over screens, and Ctrl Z does what the button does', async ({ page }) => {
  const projectId = await house(page, 'Undo story');
  await drawWalk(page, [
    [3, 4.6],
    [3.4, 3],
    [5.05, 2.9],
  ]);
  const nodes = async () =>
    (await documentOf(page.request, projectId)).move.map((move) => walkOf(move.body).path.nodes.length);
  await soon(nodes).toEqual([3]);
  // Move a node with the keyboard.
  await page.getByRole('button', { name: /^Node 2/ }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('button', { name: /^Node 2, smooth, at 3.50/ })).toBeVisible();
  await page.getByRole('link', { name: 'Views' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.keyboard.press('Control+z');
  await saved(page);
  expect(await nodes()).toEqual([2]);
  await page.keyboard.press('Control+Shift+z');
  await page.getByRole('button', { name: 'Redo' }).click();
  await saved(page);
  const [move] = (await documentOf(page.request, projectId)).move;
  expect(walkOf(move!.body).path.nodes).toHaveLength(3);
  expect(walkOf(move!.body).path.nodes[1]!.x).toBeCloseTo(3.5, 1);
  // All the way back: the walk itself is taken back, and comes again.
  for (let i = 0; i < 5; i += 1) await page.keyboard.press('Control+z');
  await saved(page);
  expect(await nodes()).toEqual([]);
  for (let i = 0; i < 5; i += 1) await page.keyboard.press('Control+y');
  await saved(page);
  expect(await nodes()).toEqual([3]);
});

test('two people change the same walk: both versions are shown and neither is lost', async ({ page, context }) => {
  const projectId = await house(page, 'Two people');
  await drawWalk(page, [
    [3, 4.6],
    [3.4, 3],
  ]);
  await saved(page);
  const [row] = (await documentOf(page.request, projectId)).move;
  // The other person, whose save this page does not hear of in time.
  await context.route('**/api/live*', (route) => route.abort());
  await page.reload();
  await expect(page.getByTestId('path')).toBeVisible();
  const of = { op: 'set', kind: 'move', id: row!.id } as const;
  await editElsewhere(page.request, projectId, 'Seated', [
    { ...of, facet: ['name'], before: row!.name, after: 'Theirs' },
    { ...of, facet: ['body', 'eyeHeight'], before: walkOf(row!.body).eyeHeight, after: 1.1 },
  ]);
  const height = page.getByLabel('Eye height, m');
  await height.fill('1.75');
  await height.press('Enter');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('“Theirs” was changed elsewhere');
  await expect(dialog).toContainText('Otto');
  await expect(dialog).toContainText('eye height: 1.75');
  await expect(dialog).toContainText('eye height: 1.1');
  await dialog.getByRole('button', { name: 'Keep both' }).click();
  await saved(page);
  const after = (await documentOf(page.request, projectId)).move;
  expect(after.map((move) => [move.name, walkOf(move.body).eyeHeight]).sort()).toEqual([
    ['Theirs (mine)', 1.75],
    ['Theirs', 1.1],
  ]);
});
