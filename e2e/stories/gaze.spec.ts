import { walkOf } from '@eskovan/core/document';
import { expect, test, type Page } from '@playwright/test';
import { HUT, hutGlb, type BoxPart } from '../../core/src/format/files.fixture.ts';
import {
  bringIn,
  documentOf,
  newerFile,
  newProject,
  pressPicture,
  saved,
  sharpPicture,
  soon,
} from '../support/studio.ts';
import { heading, lookAtMiddle, walkInHut } from '../support/walk.ts';

async function replaceBy(page: Page, name: string, parts: readonly BoxPart[]): Promise<void> {
  await newerFile(page, name, await hutGlb({ parts }));
  await page.getByRole('link', { name: 'Moves' }).click();
}

test('a walk looks at an object, finds it again in a newer file, and says when it is gone', async ({ page }) => {
  const projectId = await newProject(page, 'Looking');
  await bringIn(page, { name: 'hut.glb', bytes: await hutGlb() });
  await page.getByRole('link', { name: 'Moves' }).click();
  await walkInHut(page);
  await saved(page);

  await test.step('choosing it in the picture; Escape changes nothing', async () => {
    await page.getByRole('radio', { name: 'At an object' }).click();
    await expect(page.getByText('Press what the eye is to look at')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByText('Press what the eye is to look at')).toBeHidden();
    expect(walkOf((await documentOf(page.request, projectId)).move[0]!.body).gaze.kind).toBe('ahead');
    await lookAtMiddle(page, 'East wall');
    await saved(page);
    const { gaze } = walkOf((await documentOf(page.request, projectId)).move[0]!.body);
    expect(gaze).toMatchObject({ kind: 'object', name: 'East wall' });
    if (gaze.kind === 'object') expect(gaze.point[0]).toBeCloseTo(1.8, 2);
  });

  await test.step('where the wall has moved in a newer file, the eye follows', async () => {
    // East at first, then towards where the wall stands now: north of that.
    await soon(async () => Math.abs((await heading(page)) - Math.PI / 2)).toBeLessThan(0.1);
    const moved = HUT.map((part) => (part.name === 'East wall' ? { ...part, at: [1.9, 1.2, -1.5] as const } : part));
    await replaceBy(page, 'moved.glb', moved as readonly BoxPart[]);
    await soon(() => heading(page), { timeout: 30_000 }).toBeLessThan(Math.PI / 2 - 0.3);
    await expect(page.getByRole('region', { name: 'Gaze' })).not.toContainText('not among');
  });

  await test.step('for a while along a line that is drawn for the eye: in the plan and in the picture', async () => {
    await page.getByRole('button', { name: 'Look at something from here' }).click();
    await page.getByRole('button', { name: 'Draw a line for the eye' }).click();
    const plan = (await page.getByRole('group', { name: 'Plan', exact: true }).boundingBox())!;
    await page.mouse.click(plan.x + plan.width * 0.6, plan.y + plan.height * 0.45);
    await saved(page);
    await page.mouse.click(plan.x + plan.width * 0.6, plan.y + plan.height * 0.6);
    await saved(page);
    await sharpPicture(page);
    await pressPicture(page, 0.5, 0.5);
    const spans = async () => walkOf((await documentOf(page.request, projectId)).move[0]!.body).gazeSpans ?? [];
    const nodes = async () => {
      const gaze = (await spans())[0]?.gaze;
      return gaze?.kind === 'line' ? gaze.path.nodes : [];
    };
    await soon(async () => (await nodes()).length).toBe(3);
    // As high as eyes over the floor, where the plan was pressed.
    expect((await nodes())[0]!.y).toBeCloseTo(1.6, 2);
    await page.getByRole('region', { name: 'Gaze' }).getByRole('button', { name: 'Done' }).click();
    await expect(page.getByText('Press what the eye goes along')).toBeHidden();
    await expect(page.getByTestId('gaze-line')).toHaveCount(1);
    await page.getByRole('button', { name: /^Take away: Along a line/ }).click();
    await soon(async () => (await spans()).length).toBe(0);
  });

  await test.step('where it is gone, the card says so, and the walk keeps its gaze', async () => {
    await replaceBy(
      page,
      'without.glb',
      HUT.filter(({ name }) => name !== 'East wall'),
    );
    await expect(page.getByRole('region', { name: 'Gaze' })).toContainText('“East wall” is not among the shown parts', {
      timeout: 30_000,
    });
    const { gaze } = walkOf((await documentOf(page.request, projectId)).move[0]!.body);
    expect(gaze).toMatchObject({ kind: 'object', name: 'East wall' });
  });
});
