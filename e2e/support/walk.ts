import { expect, type Locator, type Page } from '@playwright/test';
import { pressPlan, sharpPicture } from './studio.ts';

/** Makes a walk on the Moves stage and presses its places on the plan. */
export async function drawWalk(page: Page, points: readonly (readonly [number, number])[]): Promise<void> {
  await page.getByRole('link', { name: 'Moves' }).click();
  await page.getByRole('button', { name: 'New walk' }).click();
  await expect(page.getByRole('button', { name: 'Done drawing' })).toBeVisible();
  for (const [x, z] of points) await pressPlan(page, x, z);
  await page.keyboard.press('Enter');
}

/** Draws a walk inside the hut, from its middle towards the east wall, on an open Moves stage. */
export async function walkInHut(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'New walk' }).click();
  await pressPlan(page, -1.2, 0.4);
  await pressPlan(page, 0.6, 0.4);
  await page.keyboard.press('Enter');
  await sharpPicture(page);
}

/** Lets the walk look at what is in the middle of the picture. */
export async function lookAtMiddle(page: Page, expected: string): Promise<void> {
  await page.getByRole('radio', { name: 'At an object' }).click();
  const picture = (await page.getByRole('group', { name: 'Picture' }).boundingBox())!;
  await page.mouse.click(picture.x + picture.width / 2, picture.y + picture.height / 2);
  // While it asks, the card lists the parts by name.
  const gaze = page.getByRole('region', { name: 'Gaze' });
  await expect(gaze.getByText('Press in the picture')).toBeHidden();
  await expect(gaze).toContainText(expected);
}

/** Where the camera looks on the plan, radians clockwise from north. */
export async function heading(page: Page): Promise<number> {
  const style = (await page.getByTestId('moving-camera').getAttribute('style'))!;
  return Number(/rotate\((-?[\d.]+)rad\)/.exec(style)![1]);
}

/** The strips of a move, once they show its newest state: nothing in them is about to change its place. */
export async function currentStrips(page: Page): Promise<Locator> {
  const strips = page.getByTestId('strip-charts');
  await expect(strips).toHaveAttribute('data-current', 'true', { timeout: 30_000 });
  return strips;
}
