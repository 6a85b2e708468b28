import { expect, test } from '@playwright/test';
import { hutGlb } from '../../core/src/format/files.fixture.ts';
import { bringIn, newProject, sharpPicture } from '../support/studio.ts';
import { walkInHut } from '../support/walk.ts';

test('what was drawn while a walk played is shown again the next time, until the walk is another', async ({ page }) => {
  await newProject(page, 'Played twice');
  await bringIn(page, { name: 'hut.glb', bytes: await hutGlb() });
  await page.getByRole('link', { name: 'Moves' }).click();
  await walkInHut(page);
  const canvas = page.getByTestId('picture-canvas');
  const count = async (what: string) => Number((await canvas.getAttribute(`data-${what}`)) ?? 0);
  /** Plays to the end. @returns how many pictures were shown meanwhile, and how many of them again */
  const played = async () => {
    const before = [await count('pictures'), await count('again')] as const;
    const transport = page.getByTestId('picture');
    await transport.getByRole('button', { name: 'Play', exact: true }).click();
    await expect(transport.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
    await expect(transport.getByRole('button', { name: 'Play', exact: true })).toBeVisible({ timeout: 60_000 });
    await sharpPicture(page);
    return { pictures: (await count('pictures')) - before[0], again: (await count('again')) - before[1] };
  };

  await page.getByRole('button', { name: 'Every frame' }).click();
  const first = await played();
  expect(first.pictures).toBeGreaterThan(20);
  expect(first.again).toBe(0);
  await page.getByRole('button', { name: 'Every frame' }).click();
  const second = await played();
  // All but where it begins and where it rests at the end: there it is drawn as it is when nothing plays.
  expect(second.again).toBeGreaterThan(5);
  expect(second.pictures - second.again).toBeLessThanOrEqual(4);

  await page.getByLabel('Eye height, m').fill('1.4');
  await page.getByLabel('Eye height, m').press('Enter');
  await sharpPicture(page);
  expect((await played()).again).toBe(0);
});
