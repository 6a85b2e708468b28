import { expect, test, type Page } from '@playwright/test';
import { house } from '../support/house.ts';
import {
  choose,
  documentOf,
  litScene,
  pictureStatistics,
  saved,
  sharpPicture,
  soon,
  toViews,
} from '../support/studio.ts';

const card = (page: Page) => page.getByRole('region', { name: 'Lights' });
/** All lights of the card are there as a whole, with their pictures. */
async function lightsThere(page: Page, count: number): Promise<void> {
  const list = card(page).getByRole('list', { name: 'Lights of this project' });
  await expect(list.getByRole('listitem')).toHaveCount(count);
  await expect(list.getByText('coming')).toHaveCount(0, { timeout: 90_000 });
  await expect(list.locator('img')).toHaveCount(count, { timeout: 60_000 });
}

/** What the picture comes to rest at. */
async function restingPicture(page: Page): Promise<{ mean: number; spread: number }> {
  await sharpPicture(page);
  let before = await pictureStatistics(page);
  for (let i = 0; i < 20; i += 1) {
    await page.waitForTimeout(500);
    await sharpPicture(page);
    const now = await pictureStatistics(page);
    if (Math.abs(now.mean - before.mean) < 0.3) return now;
    before = now;
  }
  return before;
}

test('lights of a project: made, set, gathered behind the work, chosen by a view, rendered; what is measured stays', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const projectId = await house(page, 'Lights');
  const own = await litScene(page.request, projectId);
  await lightsThere(page, 1);
  const afternoon = await restingPicture(page);

  await test.step('a dusk is made, is looked at, and is darker', async () => {
    await card(page).getByRole('button', { name: 'New light' }).click();
    await page.getByRole('menuitem', { name: 'Dusk, lamps on' }).click();
    await lightsThere(page, 2);
    await expect(card(page).getByText('below the horizon')).toBeVisible();
    await saved(page);
    const [light] = (await documentOf(page.request, projectId)).light;
    expect(light).toMatchObject({ name: 'Dusk, lamps on', body: { sky: 'clear', lamps: { lit: true }, exposure: 0 } });
    expect(light!.body.picture).not.toBeNull();
    expect((await restingPicture(page)).mean).toBeLessThan(0.85 * afternoon.mean);
    // The project's own light is what it was: nothing of it is gathered again.
    expect(await litScene(page.request, projectId)).toEqual(own);
  });

  await test.step('named, set to overcast, and undone', async () => {
    const name = card(page).getByLabel(/^Light name/);
    await name.fill('Grey morning');
    await name.press('Enter');
    await card(page).getByRole('radio', { name: 'Overcast' }).click();
    await lightsThere(page, 2);
    await saved(page);
    const [light] = (await documentOf(page.request, projectId)).light;
    expect(light).toMatchObject({ name: 'Grey morning', body: { sky: 'overcast' } });
    await page.getByRole('button', { name: 'Undo' }).click();
    await saved(page);
    expect((await documentOf(page.request, projectId)).light[0]!.body.sky).toBe('clear');
    // That light was gathered before: it is there at once.
    await expect(card(page).getByText('coming')).toHaveCount(0, { timeout: 10_000 });
  });

  await test.step('a view is kept, seen in the new light, and its small picture follows', async () => {
    await toViews(page);
    await page.getByRole('button', { name: 'Keep view' }).click();
    const picture = page.getByRole('complementary', { name: 'Views' }).locator('li img');
    await expect(picture).toHaveCount(1, { timeout: 60_000 });
    const first = await picture.getAttribute('src');
    const bright = await restingPicture(page);
    await choose(page, { Light: /Grey morning/ });
    await soon(() => picture.getAttribute('src'), { timeout: 60_000 }).not.toBe(first);
    expect((await restingPicture(page)).mean).toBeLessThan(0.85 * bright.mean);
    await saved(page);
    const { light, view } = await documentOf(page.request, projectId);
    expect(view[0]!.body.light).toBe(light[0]!.id);
  });

  await test.step('it is rendered in that light; another page finds all of it', async () => {
    await page.getByRole('link', { name: 'Renders' }).click();
    await choose(page, { Size: /640/, Quality: /Draft/ });
    const button = page.getByRole('button', { name: 'Render still' });
    await expect(button).toBeEnabled({ timeout: 30_000 });
    await button.click();
    const take = async () => (await documentOf(page.request, projectId)).take[0]?.body.file.sha256;
    await soon(take, { timeout: 60_000 }).toBeTruthy();
    const shown = await page.evaluate(
      async (url) => {
        const image = await createImageBitmap(await (await fetch(url)).blob());
        const context = new OffscreenCanvas(64, 36).getContext('2d')!;
        context.drawImage(image, 0, 0, 64, 36);
        const { data } = context.getImageData(0, 0, 64, 36);
        let sum = 0;
        for (let i = 0; i < data.length; i += 4) sum += data[i]! + data[i + 1]! + data[i + 2]!;
        return sum / (64 * 36 * 3);
      },
      `/api/files/${await take()}`,
    );
    await page.getByRole('link', { name: 'Views' }).click();
    // The same picture, but for what only finished ones have.
    expect(Math.abs(shown - (await restingPicture(page)).mean)).toBeLessThan(20);
    await page.reload();
    await sharpPicture(page);
    await page.getByRole('link', { name: 'Model' }).click();
    await lightsThere(page, 2);
  });

  await test.step('deleted, the view is seen in the project’s light again', async () => {
    await card(page)
      .getByRole('button', { name: /Grey morning/ })
      .first()
      .click();
    await card(page).getByRole('button', { name: 'More for this light' }).click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await lightsThere(page, 1);
    await page.getByRole('link', { name: 'Views' }).click();
    await expect(page.getByRole('combobox', { name: 'Light' })).toHaveText('The project’s light');
    expect((await restingPicture(page)).mean).toBeGreaterThan(0.85 * afternoon.mean);
  });
});
