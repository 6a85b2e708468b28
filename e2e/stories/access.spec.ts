import AxeBuilder from '@axe-core/playwright';
import { DEMO_PROJECT } from '@eskovan/demo/seed';
import { expect, test, type Page } from '@playwright/test';
import { newProject, newProjectByHand, saved, sharpPicture } from '../support/studio.ts';

const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** Stages, what each is known by, and what is asked of it besides while it is open. */
const STAGES: readonly { name: string; heading: string; more?: (page: Page) => Promise<void> }[] = [
  { name: 'Model', heading: 'Storeys and rooms' },
  { name: 'Views', heading: 'This view' },
  { name: 'Moves', heading: 'Checks', more: dialogsAndFields },
  { name: 'Reel', heading: 'Bring in' },
  { name: 'Renders', heading: 'New render' },
  { name: 'Review', heading: 'Links sent', more: clientsPage },
];

test('Projects has no barrier that can be found by rule, in either colours, and nothing scrolls', async ({ page }) => {
  const demo = page.getByRole('heading', { name: /Ternholm Observatory/ }).first();
  await page.goto('/');
  await expect(demo).toBeVisible();
  await noBarriers(page);
  await page.evaluate(() => localStorage.setItem('eskovan-theme', 'evening'));
  await page.reload();
  await expect(demo).toBeVisible();
  await inEvening(page);
  await nothingScrolls(page);
});

test('no stage has a barrier that can be found by rule, in either colours, and nothing scrolls', async ({ page }) => {
  test.setTimeout(240_000);
  await page.goto(`/project/${DEMO_PROJECT}/model`);
  for (const { name, heading, more } of STAGES)
    await test.step(name, async () => {
      await page.getByRole('link', { name, exact: true }).click();
      await expect(page.getByRole('heading', { name: heading, exact: true })).toBeVisible();
      await noBarriers(page);
      await page.getByRole('button', { name: 'Switch to evening colours' }).click();
      await inEvening(page);
      await more?.(page);
      await nothingScrolls(page);
      await page.getByRole('button', { name: 'Switch to day colours' }).click();
      await settled(page);
    });
});

/** Colours come over a moment: rules are read when they are there. */
const settled = (page: Page) =>
  page.evaluate(() => Promise.allSettled(document.getAnimations().map(({ finished }) => finished)));

async function inEvening(page: Page): Promise<void> {
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening');
  await settled(page);
  await noBarriers(page);
}

async function nothingScrolls(page: Page): Promise<void> {
  for (const [width, height] of [
    [1024, 768],
    [1280, 800],
  ] as const) {
    await page.setViewportSize({ width, height });
    const [scrollWidth, scrollHeight] = await page.evaluate(() => [
      document.documentElement.scrollWidth,
      document.documentElement.scrollHeight,
    ]);
    expect(scrollWidth).toBeLessThanOrEqual(width);
    expect(scrollHeight).toBeLessThanOrEqual(height);
  }
}

/**
 * Nothing on the page keeps anybody out, as far as rules can tell.
 * @param within looks at some of it: the rest was looked at before, and lies behind
 */
async function noBarriers(page: Page, within = 'html'): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .include(within)
    .options({ runOnly: RULES, resultTypes: ['violations'] })
    // Without frames nothing has to be put together of parts in a page of its own, which takes most of the time.
    .setLegacyMode(true)
    .analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
}

async function dialogsAndFields(page: Page): Promise<void> {
  await sharpPicture(page);
  const dialogs: readonly (() => Promise<void>)[] = [
    () => page.getByRole('button', { name: 'Project settings' }).click(),
    () => page.keyboard.press('?'),
    () => page.keyboard.press('Control+k'),
    () => page.getByRole('button', { name: 'Pace as a table' }).click(),
    () => page.getByRole('button', { name: /^You are/ }).click(),
  ];
  for (const open of dialogs) {
    await open();
    await expect(page.getByRole('dialog')).toBeVisible();
    await noBarriers(page, '[role="dialog"]');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
  const entry = page.getByRole('complementary', { name: 'Moves' }).getByRole('listitem').first();
  await entry.hover();
  await entry.getByRole('button', { name: /^More for/ }).click();
  await expect(page.getByRole('menu')).toBeVisible();
  await noBarriers(page, '[role="menu"]');
  await page.keyboard.press('Escape');
  await numbersTakeUnits(page);
}

/** Arithmetic and units, and Escape brings back what was there. */
async function numbersTakeUnits(page: Page): Promise<void> {
  const speed = page.getByLabel('Walking speed, m/s');
  await speed.fill('3.6 km/h + 0.1');
  await speed.press('Enter');
  await expect(speed).toHaveValue('1.10');
  await speed.fill('fast');
  await speed.press('Enter');
  await expect(speed).toHaveAttribute('aria-invalid', 'true');
  await speed.press('Escape');
  await expect(speed).toHaveValue('1.10');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(speed).toHaveValue('1.20');
  await saved(page);
}

async function clientsPage(page: Page): Promise<void> {
  const link = page.getByTestId('link-address').first();
  await expect(link).toHaveText(/^http/);
  const client = await page.context().newPage();
  await client.goto((await link.textContent())!);
  await expect(client.getByRole('heading', { name: 'Ternholm Observatory' })).toBeVisible();
  await noBarriers(client);
  await client.close();
}

test('a project without a model points to the one next step on every stage', async ({ page }) => {
  await newProjectByHand(page, 'Nothing yet');
  for (const stage of ['Views', 'Moves', 'Reel', 'Renders']) {
    await page.getByRole('link', { name: stage, exact: true }).click();
    await expect(page.getByRole('heading', { name: 'First a model' })).toBeVisible();
    await page.getByRole('link', { name: 'Bring a model in' }).click();
    await expect(page.getByRole('heading', { name: 'Bring a model in' })).toBeVisible();
  }
});

test('long and foreign names are kept whole and break nothing', async ({ page }) => {
  const name = `${'Вид на залив 🐦 عرض الخليج '.repeat(4)}end`.slice(0, 118);
  const projectId = await newProject(page, name);
  await page.getByRole('button', { name: 'Project settings' }).click();
  await page.getByLabel('Client').fill('x'.repeat(120));
  await page.getByRole('button', { name: 'Save settings' }).click();
  await saved(page);
  await page.goto('/');
  await expect(page.locator(`a[href*="${projectId}"]`).getByRole('heading', { name: name.trim() })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280);
  await page.goto(`/project/${projectId}/model`);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeInViewport();
});
