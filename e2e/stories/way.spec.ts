import { walkOf, type Walk } from '@eskovan/core/document';
import { expect, test, type Page } from '@playwright/test';
import { foreignModel } from '../support/foreign-model.ts';
import { bringIn, documentOf, newProject, pressPlan, saved, sharpPicture } from '../support/studio.ts';

const pace = (page: Page) => page.getByRole('region', { name: 'Pace' });
const gaze = (page: Page) => page.getByRole('region', { name: 'Gaze' });
const strips = (page: Page) => page.getByTestId('strip-charts');

/** Goes to a part of the move by pressing on the ruler of the strips. */
async function goTo(page: Page, part: number): Promise<void> {
  const box = (await strips(page).boundingBox())!;
  const [labels, right] = [108, 18];
  await page.mouse.click(box.x + labels + part * (box.width - labels - right), box.y + 12);
}

async function dragBy(page: Page, name: RegExp, dx: number, dy: number, at = 0.5): Promise<void> {
  const box = (await strips(page).getByRole('slider', { name }).boundingBox())!;
  const [x, y] = [box.x + at * box.width, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx / 2, y + dy / 2);
  await page.mouse.move(x + dx, y + dy);
  await page.mouse.up();
}

test('a way through rooms is found, stays and looks where it should, and is shaped on its strips', async ({ page }) => {
  test.setTimeout(300_000);
  const projectId = await newProject(page, 'Found on foot');
  await bringIn(page, { name: 'house.glb', bytes: await foreignModel() });
  const walk = async (): Promise<Walk> => {
    await saved(page);
    const { move } = await documentOf(page.request, projectId);
    return walkOf(move[0]!.body);
  };
  await page.getByRole('link', { name: 'Moves' }).click();

  await test.step('an unknown place is said; two rooms make a way over the steps', async () => {
    await page.getByRole('button', { name: 'Find the way' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('button', { name: 'Make the walk' })).toBeDisabled();
    await dialog.getByLabel('Room or view').fill('Ballroom');
    await expect(dialog.getByText('No room and no view is called that.')).toBeVisible();
    for (const room of ['Room 1', 'Room 2']) {
      await dialog.getByLabel('Room or view').fill(room);
      await dialog.getByRole('option', { name: room }).first().click();
    }
    await expect(dialog.getByRole('status')).toHaveText(/^[\d.]+ m, \d+ s, \d+ nodes\.$/, { timeout: 60_000 });
    await dialog.getByRole('button', { name: 'Make the walk' }).click();
    await expect(dialog).toBeHidden();
    const { path, pace: made } = await walk();
    expect(path.nodes.length).toBeGreaterThan(2);
    // The second room has a platform, three steps of 160 mm up.
    expect(Math.abs(path.nodes.at(-1)!.y - path.nodes[0]!.y)).toBeCloseTo(0.48, 2);
    expect(made.pauses).toHaveLength(1);
    await expect(
      page
        .getByText('1 to look at')
        .or(page.getByText('all fine', { exact: false }))
        .first(),
    ).toBeVisible();
  });

  await test.step('a pause: put, moved, made longer, by mouse, in numbers and by keys', async () => {
    await goTo(page, 0.35);
    await pace(page).getByRole('button', { name: 'Pause here' }).click();
    await expect(strips(page).getByRole('slider', { name: /^Pause/ })).toHaveCount(2);
    const before = (await walk()).pace.pauses!.at(-1)!;
    await dragBy(page, /^Pause.*3\.0 s/, 60, 0);
    const after = (await walk()).pace.pauses!.at(-1)!;
    expect(after.anchor).not.toEqual(before.anchor);
    expect(after.seconds).toBe(before.seconds);
    await pace(page)
      .getByLabel(/^Pause at/)
      .first()
      .fill('5s');
    await pace(page)
      .getByLabel(/^Pause at/)
      .first()
      .press('Enter');
    expect((await walk()).pace.pauses!.map(({ seconds }) => seconds).sort()).toEqual([3, 5]);
    await strips(page)
      .getByRole('slider', { name: /^Pause, 5\.0 s/ })
      .focus();
    await page.keyboard.press('Delete');
    expect((await walk()).pace.pauses).toHaveLength(1);
    await page.getByRole('button', { name: 'Undo' }).click();
    expect((await walk()).pace.pauses).toHaveLength(2);
  });

  await test.step('slower at a place; the time of another place is pinned', async () => {
    await goTo(page, 0.7);
    await pace(page).getByRole('button', { name: 'Slower here' }).click();
    const slow = (await walk()).pace.marks![0]!;
    await dragBy(page, /^(Slow|Quick)/, 0, 8);
    const slower = (await walk()).pace.marks![0]!;
    expect(slower.speed).toBeLessThan(slow.speed);
    expect(slower.length).toBe(slow.length);
    const late = page.getByRole('slider', { name: 'Time' });
    const duration = Number(await late.getAttribute('aria-valuemax'));
    await goTo(page, 0.9);
    await pace(page).getByRole('button', { name: 'Pin this time' }).click();
    const field = pace(page).getByLabel(/^Pin at/);
    const pinned = Number(await field.inputValue());
    await field.fill(String(pinned + 4));
    await field.press('Enter');
    await expect(field).toHaveValue((pinned + 4).toFixed(2));
    expect(Number(await late.getAttribute('aria-valuemax'))).toBeGreaterThan(duration + 3);
  });

  await test.step('looks at something for a while; what was looked at by hand is kept as gaze', async () => {
    await goTo(page, 0.1);
    await sharpPicture(page);
    await gaze(page).getByRole('button', { name: 'Look at something from here' }).click();
    await page.getByLabel('Find an object').fill('Table');
    await page.getByRole('option', { name: /Table/ }).first().click();
    await expect(gaze(page).getByRole('list', { name: 'Looks for a while' })).toContainText('Table');
    await goTo(page, 0.95);
    await sharpPicture(page);
    const frame = (await page.getByTestId('frame').first().boundingBox())!;
    await page.mouse.move(frame.x + frame.width / 2, frame.y + frame.height / 2);
    await page.mouse.down();
    await page.mouse.move(frame.x + frame.width / 2 + 60, frame.y + frame.height / 2, { steps: 4 });
    await page.mouse.up();
    await page.getByRole('button', { name: 'Keep as gaze' }).click();
    await expect(page.getByText(/^Scouting/)).toBeHidden();
    const { gazeSpans } = await walk();
    expect(gazeSpans!.map((span) => span.gaze.kind)).toEqual(['object', 'bearing']);
    await dragBy(page, /^Table/, 30, 0);
    expect((await walk()).gazeSpans![0]!.from).not.toEqual(gazeSpans![0]!.from);
  });

  await test.step('lifted by a key; the keys show in strips of their own', async () => {
    await goTo(page, 0.5);
    const over = page.getByRole('region', { name: 'Over time' });
    await over.getByRole('button', { name: /^Lift/ }).click();
    const key = strips(page).getByRole('slider', { name: 'Section key 1' });
    await key.focus();
    for (let n = 0; n < 4; n += 1) await page.keyboard.press('ArrowUp');
    await expect.poll(async () => (await walk()).tracks?.lift?.[0]?.value).toBeCloseTo(0.2, 6);
    await over.getByRole('button', { name: /^Roll/ }).click();
    await expect(strips(page).getByRole('slider', { name: 'Roll key 1' })).toBeVisible();
  });

  await test.step('all of it is there after a reload, and moves along with its path', async () => {
    const kept = await walk();
    await page.reload();
    await sharpPicture(page);
    expect(await walk()).toEqual(kept);
    await expect(strips(page).getByRole('slider', { name: /^Pause/ })).toHaveCount(2);
  });
});

test('where there is no way, it says between which places', async ({ page }) => {
  test.setTimeout(200_000);
  await newProject(page, 'No way');
  await bringIn(page, { name: 'house.glb', bytes: await foreignModel() });
  await page.getByRole('link', { name: 'Views' }).click();
  await sharpPicture(page);
  // On the roof stands nobody who came on foot.
  await pressPlan(page, 2.5, 4.6);
  await page.getByRole('region', { name: 'Pose' }).getByLabel('Height', { exact: true }).fill('4.8');
  await page.getByRole('region', { name: 'Pose' }).getByLabel('Height', { exact: true }).press('Enter');
  await page.getByRole('complementary', { name: 'Views' }).getByRole('button', { name: 'Keep view' }).click();
  await expect(page.getByRole('complementary', { name: 'Views' }).locator('[data-row]')).toHaveCount(1);
  const name = (
    await page.getByRole('complementary', { name: 'Views' }).locator('[data-row]').first().innerText()
  ).split('\n')[1]!;
  await page.getByRole('link', { name: 'Moves' }).click();
  await page.getByRole('button', { name: 'Find the way' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Room or view').fill('Room 1');
  await dialog.getByRole('option', { name: 'Room 1' }).first().click();
  await dialog.getByLabel('Room or view').fill(name);
  await dialog.getByRole('option', { name }).first().click();
  await expect(dialog.getByRole('status')).toContainText('There is no way from Room 1 to', { timeout: 60_000 });
  await expect(dialog.getByRole('button', { name: 'Make the walk' })).toBeDisabled();
});
