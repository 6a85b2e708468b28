import { readZip } from '@eskovan/core/format';
import { anglesOf, toDegrees } from '@eskovan/core/geometry';
import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { house } from '../support/house.ts';
import { documentOf, pressPicture, pressPlan, saved, sharpPicture, soon, toViews } from '../support/studio.ts';

const shelf = (page: Page) => page.getByRole('complementary', { name: 'Views' });
const rows = (page: Page) => shelf(page).locator('[data-row]');
const field = (page: Page, card: string, name: string) => page.getByRole('region', { name: card }).getByLabel(name);

async function type(page: Page, card: string, name: string, value: string): Promise<void> {
  await field(page, card, name).fill(value);
  await field(page, card, name).press('Enter');
}
const numberIn = async (page: Page, card: string, name: string) => Number(await field(page, card, name).inputValue());

test('stood and sat by pressing, a subject framed and held, drawn without perspective, suggested, remembered, carried', async ({
  page,
}) => {
  test.setTimeout(400_000);
  const projectId = await house(page, 'Stood and sat');
  await toViews(page);
  await pressPlan(page, 2.5, 4.6);
  await type(page, 'Pose', 'Bearing', '0');
  await shelf(page).getByRole('button', { name: 'Keep view' }).click();
  await expect(rows(page)).toHaveCount(1);
  await sharpPicture(page);

  await test.step('stand there: on the floor that was pressed, at eye height, level', async () => {
    await page.getByRole('button', { name: 'Stand there' }).click();
    await expect(page.getByText('Press where to stand')).toBeVisible();
    await pressPicture(page, 0.75, 0.92);
    await expect(page.getByText(/^Scouting/)).toBeVisible();
    expect(await numberIn(page, 'Pose', 'Height')).toBeCloseTo(1.6, 2);
    expect(await numberIn(page, 'Pose', 'Place z')).toBeLessThan(4.5);
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await sharpPicture(page);
  });

  await test.step('sit here: on the table’s top; what is no seat is said', async () => {
    await page.getByRole('button', { name: 'Sit here' }).click();
    await pressPicture(page, 0.5, 0.3);
    await expect(page.getByText(/^There is nothing to sit on there/)).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByText('Press what to sit on')).toBeHidden();
  });

  await test.step('a subject is framed from a side and keeps its size while the lens changes', async () => {
    await page.getByRole('button', { name: 'Choose what it is about' }).click();
    await page.getByLabel('Find an object').fill('Table');
    await page.getByRole('option', { name: /Table/ }).first().click();
    await page.getByRole('button', { name: 'Frame it from S', exact: true }).click();
    await expect(page.getByText(/^Scouting/)).toBeVisible();
    // From the south: beyond the table's middle at z = 1.6, looking north and a little down.
    expect(await numberIn(page, 'Pose', 'Place z')).toBeGreaterThan(2);
    expect(await numberIn(page, 'Pose', 'Place x')).toBeCloseTo(2.5, 1);
    expect(Math.abs(await numberIn(page, 'Pose', 'Tilt'))).toBeCloseTo(10, 1);
    await page.getByRole('radio', { name: 'Hold size' }).click();
    const depth = (z: number) => z - 1.6;
    const before = await numberIn(page, 'Pose', 'Place z');
    const focal = await numberIn(page, 'Lens', 'Focal length');
    await type(page, 'Lens', 'Focal length', String(2 * focal));
    await soon(() => numberIn(page, 'Pose', 'Place z')).toBeGreaterThan(before + 0.5);
    // Along a camera that looks 10° down, both axes alike: twice as far away.
    expect(depth(await numberIn(page, 'Pose', 'Place z')) / depth(before)).toBeCloseTo(2, 1);
    await page.getByRole('button', { name: 'Back', exact: true }).click();
  });

  await test.step('wide and long beside it: half and double as far away; gone on with, the eye is there', async () => {
    await page.getByRole('button', { name: 'Look at it' }).click();
    const focal = await numberIn(page, 'Lens', 'Focal length');
    await page.getByRole('button', { name: 'Wide and long beside it' }).click();
    const compare = page.getByRole('group', { name: 'Compare', exact: true });
    await expect(compare.getByRole('button', { name: /^Go on with/ })).toHaveCount(3);
    await expect(compare.getByRole('img')).toHaveCount(3);
    const away = async (which: string) =>
      Number(/from ([\d.]+) m/.exec((await compare.getByRole('button', { name: which }).textContent()) ?? '')![1]);
    const [wide, now, long] = [await away('Wide'), await away('As it is'), await away('Long')];
    expect(wide / now).toBeCloseTo(0.5, 1);
    expect(long / now).toBeCloseTo(2, 1);
    await compare.getByRole('button', { name: 'Wide' }).click();
    await expect(field(page, 'Lens', 'Focal length')).toHaveValue((focal / 2).toFixed(0));
    await expect(compare).toBeHidden();
    await page.getByRole('button', { name: 'Back', exact: true }).click();
  });

  await test.step('from farther back, the view is seen in the picture: its eye and what it sees; pressed, one is there', async () => {
    const shown = page.getByLabel('Other views');
    await shown.getByRole('radio', { name: 'Shown' }).click();
    const goTo = page.getByTestId('other-views').getByRole('button', { name: /^Go to/ });
    await expect(goTo).toHaveCount(0);
    await page.getByRole('button', { name: 'Dolly out' }).click();
    await page.getByRole('button', { name: 'Dolly out' }).click();
    await expect(goTo).toHaveCount(1);
    // Four edges from its eye and four around what it sees, in one piece or more.
    await soon(() => page.getByTestId('other-views').locator('line').count()).toBeGreaterThanOrEqual(8);
    await goTo.click();
    await expect(page.getByText(/^Scouting/)).toBeHidden();
    await expect(goTo).toHaveCount(0);
    await shown.getByRole('radio', { name: 'Hidden' }).click();
  });

  await test.step('without perspective: a plan, cut above the storey; the kept view stays as it is', async () => {
    const kept = (await documentOf(page.request, projectId)).view[0]!.body;
    await page.getByRole('button', { name: 'No subject' }).click();
    await page.getByRole('radio', { name: 'Parallel' }).click();
    await page.getByRole('button', { name: 'Plan', exact: true }).click();
    await expect(field(page, 'Pose', 'Tilt')).toHaveValue('-90.0');
    await page.getByRole('button', { name: /^Cut above/ }).click();
    await sharpPicture(page);
    await page.getByRole('button', { name: 'Keep as new' }).click();
    await expect(rows(page)).toHaveCount(2);
    await saved(page);
    const { view } = await documentOf(page.request, projectId);
    const plan = view.find(({ body }) => body.lens.parallel !== undefined)!.body;
    expect(toDegrees(anglesOf(plan.pose.orientation).tilt)).toBeCloseTo(-90, 3);
    // 1.2 m over the floor at 0.
    expect(plan.pose.position[1] - plan.lens.nearCut!).toBeCloseTo(1.2, 2);
    expect(view.find(({ body }) => body.lens.parallel === undefined)!.body.pose).toEqual(kept.pose);
    await rows(page).nth(0).click();
  });

  await test.step('suggested views of both rooms are kept in one step', async () => {
    await shelf(page).getByRole('button', { name: 'Suggest', exact: true }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('button', { name: /^Look at Room/ }).nth(1)).toBeVisible({ timeout: 30_000 });
    await dialog.getByRole('button', { name: /^Keep all/ }).click();
    await expect(dialog.getByRole('button', { name: /^Keep all/ })).toBeHidden();
    await page.keyboard.press('Escape');
    // The list follows a moment later.
    await soon(() => rows(page).count()).toBeGreaterThan(3);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(rows(page)).toHaveCount(2);
  });

  await test.step('a look that was left is remembered, also after a reload, and kept with one press', async () => {
    await rows(page).nth(0).click();
    await type(page, 'Pose', 'Bearing', '77');
    const recent = page.getByRole('region', { name: 'Recent' });
    await page.waitForTimeout(3500);
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await expect(recent.getByRole('button', { name: 'Look from recent 1 again' })).toBeVisible();
    await page.reload();
    await sharpPicture(page);
    await recent.getByRole('button', { name: 'Look from recent 1 again' }).click();
    await expect(field(page, 'Pose', 'Bearing')).toHaveValue('77.0');
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await recent.getByRole('button', { name: 'Keep recent 1' }).click();
    await expect(rows(page)).toHaveCount(3);
  });

  await test.step('out as BCF and in again: the same poses; a wrong file is refused in words', async () => {
    await shelf(page).getByRole('button', { name: 'Out and in' }).click();
    const dialog = page.getByRole('dialog');
    const coming = page.waitForEvent('download');
    await dialog.getByRole('button', { name: 'Save', exact: true }).click();
    const bytes = readFileSync(await (await coming).path());
    expect([...readZip(bytes, 'views.bcf').keys()].filter((name) => name.endsWith('.bcfv'))).toHaveLength(3);
    await shelf(page).getByRole('button', { name: 'Out and in' }).click();
    const bring = (name: string, buffer: Buffer) =>
      page.getByLabel('BCF file').setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
    await bring('notes.bcf', Buffer.from('no zip at all'));
    await expect(page.getByText('notes.bcf: it is no BCF file.')).toBeVisible();
    await bring('views.bcf', bytes);
    await expect(dialog.getByText('holds 3 viewpoints that can be used')).toBeVisible();
    await dialog.getByRole('button', { name: 'Keep as views' }).click();
    await expect(rows(page)).toHaveCount(6);
    await saved(page);
    const views = (await documentOf(page.request, projectId)).view.filter(({ deleted }) => !deleted);
    const places = views.map(({ body }) => body.pose.position.map((value) => value.toFixed(3)).join(' '));
    expect(new Set(places).size).toBeLessThanOrEqual(3);
  });
});
