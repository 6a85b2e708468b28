import { walkOf } from '@eskovan/core/document';
import { DEMO_PROJECT } from '@eskovan/demo/seed';
import { expect, test, type Page } from '@playwright/test';
import { editElsewhere } from '../support/edits.ts';
import { probe } from '../support/film.ts';
import { bringHouseIn } from '../support/house.ts';
import {
  documentOf,
  newProject,
  newProjectByHand,
  pictureStatistics,
  planPoint,
  pressPlan,
  saved,
  sharpPicture,
  siteOf,
  soon,
  toViews,
} from '../support/studio.ts';

async function setRate(page: Page, label: string): Promise<void> {
  await page.getByRole('button', { name: 'Project settings' }).click();
  await page.getByRole('combobox', { name: 'Frame rate' }).click();
  await page.getByRole('option', { name: label }).click();
  await page.getByRole('button', { name: 'Save settings' }).click();
  await saved(page);
}

interface Slice {
  projectId: string;
  /** Plan points of the path, in order. */
  path: readonly (readonly [number, number])[];
  /** How high the eye must rise along it, metres. */
  rise: number;
}

/** Draw, play, keep a view that looking about cannot change. */
async function drawnAndKept(page: Page, { projectId, path, rise }: Slice): Promise<void> {
  const { request } = page;
  await setRate(page, '24 frames/s');

  await test.step('draw a path', async () => {
    await page.getByRole('link', { name: 'Moves' }).click();
    await page.getByRole('button', { name: 'New walk' }).click();
    await expect(page.getByRole('button', { name: 'Done drawing' })).toBeVisible();
    // With Alt a hand is drawn to nothing: nodes are where they are pressed.
    await page.keyboard.down('Alt');
    for (const [x, z] of path) await pressPlan(page, x, z);
    await page.keyboard.up('Alt');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: 'Draw path' })).toBeVisible();
    await saved(page);
    const walk = (await documentOf(request, projectId)).move.at(-1)!;
    expect(walkOf(walk.body).path.nodes).toHaveLength(path.length);
    walkOf(walk.body).path.nodes.forEach((node, i) => {
      expect(node.x).toBeCloseTo(path[i]![0], 1);
      expect(node.z).toBeCloseTo(path[i]![1], 1);
    });
  });

  const header = page.getByTestId('where');
  await test.step('play it, step it, scrub it', async () => {
    await sharpPicture(page);
    const before = await pictureStatistics(page);
    expect(before.spread).toBeGreaterThan(4);
    await page.getByRole('button', { name: 'Play' }).click();
    await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
    await soon(async () => Number(await header.getAttribute('data-frame'))).toBeGreaterThan(20);
    await page.getByRole('button', { name: 'Pause', exact: true }).click();
    const frame = Number(await header.getAttribute('data-frame'));
    await page.getByRole('button', { name: 'Forward one frame' }).click();
    await expect(header).toHaveAttribute('data-frame', String(frame + 1));
    await page.getByRole('slider', { name: 'Time' }).focus();
    await page.keyboard.press('End');
    await sharpPicture(page);
    const after = await pictureStatistics(page);
    expect(Math.abs(after.mean - before.mean) + Math.abs(after.spread - before.spread)).toBeGreaterThan(1);
  });

  await test.step('the eye has followed the floor', async () => {
    await page.keyboard.press('v');
    await saved(page);
    const [view] = (await documentOf(request, projectId)).view.slice(-1);
    const start = walkOf((await documentOf(request, projectId)).move.at(-1)!.body).path.nodes[0]!;
    expect(view!.body.pose.position[1] - start.y - 1.6).toBeCloseTo(rise, 1);
  });

  await test.step('keep a view that navigating cannot change', async () => {
    await toViews(page);
    const [kept] = (await documentOf(request, projectId)).view.slice(-1);
    const box = (await page.getByRole('group', { name: 'Picture', exact: true }).boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 120, box.y + box.height / 2 + 20, { steps: 6 });
    await page.mouse.up();
    await expect(page.getByText(/^Scouting/).first()).toBeVisible();
    await saved(page);
    const after = (await documentOf(request, projectId)).view.find((view) => view.id === kept!.id)!;
    expect(after.body.pose).toEqual(kept!.body.pose);
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await expect(page.getByText(/^Scouting/)).toHaveCount(0);
    await soon(
      async () =>
        (await documentOf(request, projectId)).view.find((view) => view.id === kept!.id)!.body.thumbnail?.size ?? 0,
    ).toBeGreaterThan(1000);
  });
}

/** The same, then render a second, send a link, reload: the whole slice on an open project. */
async function wholeSlice(page: Page, slice: Slice): Promise<void> {
  const { request } = page;
  const { projectId } = slice;
  await drawnAndKept(page, slice);

  await test.step('render a still and a second of film at 640 × 360', async () => {
    await page.getByRole('link', { name: 'Renders' }).click();
    const choose = async (what: string, option: RegExp) => {
      await page.getByRole('combobox', { name: what }).click();
      await page.getByRole('option', { name: option }).last().click();
    };
    await choose('What to render', /^View:/);
    await choose('Size', /640/);
    await choose('Quality', /Draft/);
    await page.getByRole('button', { name: 'Render still' }).click();
    await choose('What to render', /^Move:/);
    const to = page.getByLabel('To, s');
    await to.fill('1s');
    await to.press('Enter');
    await expect(page.getByText('640 × 360, 24 frames at 24')).toBeVisible();
    await page.getByRole('button', { name: 'Render film' }).click();
    await soon(async () => (await documentOf(request, projectId)).take.length, { timeout: 120_000 }).toBe(2);
    const takes = (await documentOf(request, projectId)).take;
    expect(takes.map((take) => take.body.number)).toEqual([1, 2]);
    const film = takes.find((take) => take.body.kind === 'video')!;
    const bytes = await (await request.get(`/api/files/${film.body.file.sha256}`)).body();
    expect(probe(bytes)).toEqual({ codec: 'h264', frames: 24, rate: '24/1', width: 640, height: 360 });
    const still = takes.find((take) => take.body.kind === 'still')!;
    const png = await (await request.get(`/api/files/${still.body.file.sha256}`)).body();
    expect(png.subarray(1, 4).toString()).toBe('PNG');
    expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([640, 360]);
  });

  await test.step('the link plays the film and shows the view, and nothing else', async () => {
    await page.getByRole('link', { name: 'Review' }).click();
    await page.getByRole('button', { name: 'Make link' }).click();
    await saved(page);
    const link = page.getByTestId('link-address').first();
    await expect(link).toHaveText(/^http/);
    const address = (await link.textContent())!;
    const client = await page.context().newPage();
    await client.goto(address);
    const { project } = await documentOf(request, projectId);
    await expect(client.getByRole('heading', { name: project.name })).toBeVisible();
    const video = client.locator('video');
    await soon(() => video.evaluate((element: HTMLVideoElement) => element.readyState)).toBeGreaterThanOrEqual(2);
    await video.evaluate((element: HTMLVideoElement) => element.play());
    await soon(() => video.evaluate((element: HTMLVideoElement) => element.currentTime)).toBeGreaterThan(0.2);
    expect(await video.evaluate((element: HTMLVideoElement) => element.duration)).toBeCloseTo(1, 2);
    await expect(client.locator('figure img').first()).toBeVisible();
    const token = address.split('/').at(-1)!;
    const { model } = await documentOf(request, projectId);
    const { origin } = new URL(address);
    expect(origin).not.toBe(new URL(page.url()).origin);
    const file = model[0]!.body.source.sha256;
    expect((await request.get(`${origin}/api/review/${token}/files/${file}`)).status()).toBe(404);
    expect((await request.get(`${origin}/api/projects`)).status()).toBe(404);
    await client.close();
  });

  await test.step('a reload finds everything', async () => {
    const before = await documentOf(request, projectId);
    await page.getByRole('link', { name: 'Moves' }).click();
    await page.reload();
    await expect(page.getByTestId('path')).toBeVisible();
    await sharpPicture(page);
    expect(await documentOf(request, projectId)).toEqual(before);
  });
}

test('a path over the stair of the demo building; it is rendered in another story', async ({ page }) => {
  test.setTimeout(240_000);
  // The demo's model in a project of its own, so that stories do not meet.
  const projectId = await newProject(page, 'Stair story');
  const [model] = (await documentOf(page.request, DEMO_PROJECT)).model;
  await editElsewhere(page.request, projectId, 'Bring in Observatory', [
    { op: 'make', kind: 'model', id: crypto.randomUUID(), name: 'Observatory', order: 1, body: model!.body },
  ]);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Storeys' })).toBeVisible();
  await drawnAndKept(page, {
    projectId,
    path: [
      [9.9, 8.4],
      [9.9, 10.6],
      [8.68, 11.2],
      [8.68, 10.2],
      [8.68, 5.3],
      [8.7, 4.3],
      [12, 4.25],
    ],
    rise: 3.23,
  });
});

test('the whole slice on a building that is not ours', async ({ page }) => {
  test.setTimeout(240_000);
  const projectId = await newProjectByHand(page, 'Foreign house');
  await bringHouseIn(page);
  const { storeys } = await siteOf(page.request, projectId);
  expect(storeys.map(({ elevation }) => elevation)).toContain(0);
  await wholeSlice(page, {
    projectId,
    path: [
      [3, 4.6],
      [3.4, 3],
      [5.05, 2.9],
      [6, 2.9],
      [7.6, 3],
    ],
    rise: 0.48,
  });
});

test('scouting walks on the floor and does not pass through walls', async ({ page }) => {
  await page.goto(`/project/${DEMO_PROJECT}/views`);
  await sharpPicture(page);
  await page
    .getByRole('group', { name: /press to stand/ })
    .getByTestId('plan-drawing')
    .waitFor();
  // In the hall, looking at the wall of the reading room.
  const stand = await planPoint(page, 10, 7);
  const look = await planPoint(page, 8.4, 7);
  await page.mouse.move(stand.x, stand.y);
  await page.mouse.down();
  await page.mouse.move(look.x, look.y, { steps: 4 });
  await page.mouse.up();
  await page.getByRole('group', { name: 'Picture', exact: true }).focus();
  await page.keyboard.down('w');
  const place = page.getByRole('region', { name: 'Pose' }).getByLabel('Place x');
  const position = async () => Number(await place.inputValue());
  await soon(position).toBeLessThan(9.7);
  let before = Infinity;
  await soon(
    async () => {
      const x = await position();
      const still = x === before;
      before = x;
      return still;
    },
    { intervals: [400] },
  ).toBe(true);
  await page.keyboard.up('w');
  // The wall's face is at 8.07, the stair's string stands before it.
  expect(before).toBeGreaterThan(8.2);
  await page.keyboard.press('b');
  await expect(page.getByText(/^Scouting/)).toHaveCount(0);
});
