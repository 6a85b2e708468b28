import { walkOf } from '@eskovan/core/document';
import { expect, test } from '@playwright/test';
import { hutGlb } from '../../core/src/format/files.fixture.ts';
import { bringIn, documentOf, newProject, planPoint, pressPlan, saved } from '../support/studio.ts';

/** The hut on a platform of 0.31 m beside it: a step higher than a walker takes. */
const PLATFORM = { name: 'Platform', size: [3, 0.31, 3], at: [0, 0.155, 4] } as const;

test('a node takes the floor under the press; walls and steps are said while drawing, in the checks and at their places', async ({
  page,
}) => {
  const projectId = await newProject(page, 'Floors');
  await bringIn(page, {
    name: 'hut.glb',
    bytes: await hutGlb({
      parts: [
        { name: 'Floor', size: [4, 0.2, 3], at: [0, -0.1, 0] },
        { name: 'East wall', size: [0.2, 2.4, 2.6], at: [1.9, 1.2, 0] },
        { name: 'Yard', size: [14, 0.2, 14], at: [0, -0.1, 0] },
        { ...PLATFORM, size: [...PLATFORM.size], at: [...PLATFORM.at] },
      ],
    }),
  });
  await page.getByRole('link', { name: 'Moves' }).click();
  await page.getByRole('button', { name: 'New walk' }).click();
  await pressPlan(page, -0.5, 0.3);
  const beyond = await planPoint(page, 3.4, 0.3);
  await page.mouse.move(beyond.x, beyond.y);
  await expect(page.getByTestId('height-here')).toHaveText('0.00 m');
  await expect(page.getByTestId('in-the-way')).toHaveText('wall');
  const platform = await planPoint(page, 0, 4);
  await page.mouse.move(platform.x, platform.y);
  await expect(page.getByTestId('height-here')).toHaveText('0.31 m');
  await expect(page.getByTestId('in-the-way')).toHaveText('step of 0.31 m');
  await pressPlan(page, 0, 4);
  await page.keyboard.press('Enter');
  const checks = page.getByRole('region', { name: 'Checks' });
  await expect(checks.getByText(/A step of 0\.31 m at 2\.2 m, higher than the walker takes/)).toBeVisible();
  await saved(page);
  const { move } = await documentOf(page.request, projectId);
  const nodes = walkOf(move[0]!.body).path.nodes;
  expect(nodes.map(({ y, surface }) => ({ y, surface }))).toEqual([
    { y: expect.closeTo(0, 4), surface: true },
    { y: expect.closeTo(0.31, 4), surface: true },
  ]);
  // A walker with longer legs takes it: then nothing is left to say of the way.
  await page.getByRole('link', { name: 'Model' }).click();
  const step = page.getByLabel(/^Step/);
  await step.fill('0.35');
  await step.press('Enter');
  await page.getByRole('link', { name: 'Moves' }).click();
  await expect(checks.getByText('fine')).toBeVisible({ timeout: 30_000 });
});
