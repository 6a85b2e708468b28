import type { Row } from '@eskovan/core/document';
import { expect, test, type Page } from '@playwright/test';
import { editElsewhere } from '../support/edits.ts';
import { house } from '../support/house.ts';
import { documentOf, planPoint, saved, sharpPicture, soon, toViews } from '../support/studio.ts';

const BY_MOUSE = 20;
const BY_KEYS = 10;
const STEPS = 50;
/** All over the house: on both rooms' floors and the platform. */
const PLACES = Array.from(
  { length: BY_MOUSE },
  (_, i) => [0.8 + 1.7 * (i % 5), 0.9 + 1.3 * Math.floor(i / 5)] as const,
);

const shelf = (page: Page) => page.getByRole('complementary', { name: 'Views' });
const rows = (page: Page) => shelf(page).locator('[data-row]');

/** Views as the server has them, in their order; without their pictures, which machines draw. */
async function viewsOf(page: Page, projectId: string): Promise<Row<'view'>[]> {
  await saved(page);
  const { view } = await documentOf(page.request, projectId);
  return view.filter(({ deleted }) => !deleted).sort((a, b) => a.order - b.order);
}
const asMade = (views: readonly Row<'view'>[]) =>
  views.map(({ name, order, body: { thumbnail: _, ...body } }) => ({ name, order, body }));

/** A plan that has just brought a view in rests first. */
async function restingPlan(page: Page): Promise<void> {
  const place = async () => JSON.stringify(await planPoint(page, 0, 0));
  await soon(async () => {
    const before = await place();
    await page.waitForTimeout(150);
    return before === (await place());
  }).toBe(true);
}

/** One gesture: press to stand, drag to look, let go. */
async function standAndLook(page: Page, x: number, z: number, bearing: number): Promise<void> {
  await restingPlan(page);
  const from = await planPoint(page, x, z);
  const to = await planPoint(page, x + Math.sin(bearing), z - Math.cos(bearing));
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 3 });
  await page.mouse.up();
}

test('twenty views by mouse, ten by keys alone; named, moved, tagged, taken back fifty steps and done again', async ({
  page,
}) => {
  test.setTimeout(400_000);
  // The whole house is in the plan, whichever view it brings in.
  await page.setViewportSize({ width: 1100, height: 1300 });
  const projectId = await house(page, 'Many views');
  await toViews(page);

  await test.step('by mouse: a press, a drag and a button each', async () => {
    for (let i = 0; i < BY_MOUSE; i += 1) {
      await standAndLook(page, ...PLACES[i]!, (2 * Math.PI * i) / BY_MOUSE);
      await shelf(page).getByRole('button', { name: 'Keep view' }).click();
      await expect(rows(page)).toHaveCount(i + 1);
    }
  });

  await test.step('by keys alone: into the picture, walk, turn, keep', async () => {
    const picture = page.getByRole('group', { name: 'Picture', exact: true });
    const isThere = () => picture.evaluate((element) => element === document.activeElement);
    for (let n = 0; n < 120 && !(await isThere()); n += 1) await page.keyboard.press('Tab');
    expect(await isThere()).toBe(true);
    for (let i = 0; i < BY_KEYS; i += 1) {
      await page.keyboard.press('ArrowLeft', { delay: 150 });
      await page.keyboard.press('s', { delay: 60 });
      await page.keyboard.press('Control+ArrowUp');
      await page.keyboard.press('v');
      await expect(page.getByText(`Kept as View ${BY_MOUSE + i + 1}`)).toBeVisible();
    }
  });
  const made = await viewsOf(page, projectId);
  expect(made).toHaveLength(BY_MOUSE + BY_KEYS);
  const poses = made.map(({ body }) => JSON.stringify(body.pose));
  expect(poses.flatMap((pose, i) => (poses.indexOf(pose) < i ? [made[i]!.name] : []))).toEqual([]);
  // On the floor of the foreign house, and on its platform three steps up: eyes at 1.6 m over either.
  for (const { body } of made.slice(0, BY_MOUSE))
    expect(body.pose.position[1]).toBeCloseTo(body.pose.position[0] > 7 ? 2.08 : 1.6, 2);

  await test.step('one is named, moved up, and five are tagged at once; tags are found', async () => {
    await shelf(page).getByLabel('Search views').fill('View 20');
    await rows(page).first().click();
    await page.keyboard.press('F2');
    await page.keyboard.type('Corner by the table');
    await page.keyboard.press('Enter');
    await shelf(page).getByLabel('Search views').fill('');
    await rows(page).nth(19).focus();
    for (let n = 0; n < 3; n += 1) await page.keyboard.press('Alt+ArrowUp');
    await rows(page).nth(0).click();
    await rows(page)
      .nth(4)
      .click({ modifiers: ['Shift'] });
    await page.getByLabel('New tag').fill('first round');
    await page.getByLabel('New tag').press('Enter');
    await shelf(page).getByLabel('Search views').fill('first r');
    await expect(rows(page)).toHaveCount(5);
    await shelf(page).getByLabel('Search views').fill('');
    const views = await viewsOf(page, projectId);
    expect(views.filter(({ body }) => body.tags?.includes('first round'))).toHaveLength(5);
    expect(views.findIndex(({ name }) => name === 'Corner by the table')).toBe(16);
  });

  await test.step(`${STEPS} steps of undo and as many of redo are where they were`, async () => {
    await rows(page).nth(0).click();
    const field = page.getByRole('region', { name: 'Lens' }).getByLabel('Focal length');
    for (let n = 0; n < 20; n += 1) {
      await field.fill(String(30 + n));
      await field.press('Enter');
    }
    await field.blur();
    const after = asMade(await viewsOf(page, projectId));
    for (let n = 0; n < STEPS; n += 1) await page.keyboard.press('Control+z');
    await saved(page);
    // Twenty lenses, one tag, three moves, one name, and the last twenty-five of the views.
    await soon(async () => (await viewsOf(page, projectId)).length).toBe(BY_MOUSE + BY_KEYS - (STEPS - 25));
    for (let n = 0; n < STEPS; n += 1) await page.keyboard.press('Control+y');
    await saved(page);
    await soon(async () => asMade(await viewsOf(page, projectId))).toEqual(after);
  });
});

test('two people on one view: different facets are both kept, the same one is asked about', async ({
  page,
  context,
}) => {
  const projectId = await house(page, 'One view, two people');
  await toViews(page);
  await standAndLook(page, 2, 4, 0);
  await shelf(page).getByRole('button', { name: 'Keep view' }).click();
  await expect(rows(page)).toHaveCount(1);
  // The picture is drawn and saved: a machine's edit is nobody's.
  await soon(async () => (await viewsOf(page, projectId))[0]!.body.thumbnail).not.toBeNull();
  const [row] = await viewsOf(page, projectId);
  const of = { op: 'set', kind: 'view', id: row!.id } as const;

  await editElsewhere(page.request, projectId, 'Status', [
    { ...of, facet: ['body', 'status'], before: undefined, after: 'ready' },
  ]);
  const note = page.getByRole('region', { name: 'This view' }).getByLabel('Note');
  await note.fill('More of the stair');
  await note.blur();
  await soon(async () => (await viewsOf(page, projectId))[0]!.body).toMatchObject({
    status: 'ready',
    note: 'More of the stair',
  });

  // The same lens, while this page does not hear of it.
  await context.route('**/api/live*', (route) => route.abort());
  await page.reload();
  await sharpPicture(page);
  await editElsewhere(page.request, projectId, 'Lens', [
    { ...of, facet: ['body', 'lens'], before: row!.body.lens, after: { ...row!.body.lens, focalLengthMm: 70 } },
  ]);
  const lens = page.getByRole('region', { name: 'Lens' }).getByLabel('Focal length');
  await lens.fill('35');
  await lens.press('Enter');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('was changed elsewhere');
  await dialog.getByRole('button', { name: 'Keep both' }).click();
  await soon(async () => (await viewsOf(page, projectId)).map(({ body }) => body.lens.focalLengthMm).sort()).toEqual([
    35, 70,
  ]);
});
