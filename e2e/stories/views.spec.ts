import { anglesOf, toDegrees } from '@eskovan/core/geometry';
import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { house } from '../support/house.ts';
import { choose, documentOf, pressPlan, saved, sharpPicture, soon, toViews } from '../support/studio.ts';

const INPUTS = 500;

/** The one view of a project, as the server has it. */
async function viewOf(page: Page, projectId: string) {
  await saved(page);
  const [view] = (await documentOf(page.request, projectId)).view;
  return view!;
}

async function type(page: Page, card: string, field: string, value: string): Promise<void> {
  const input = page.getByRole('region', { name: card }).getByLabel(field);
  await input.fill(value);
  await input.press('Enter');
}

/** Hands that do not know what they want: turns, steps, wheel, drags, nudges, typed poses. */
async function wander(page: Page): Promise<void> {
  const picture = page.getByRole('group', { name: 'Picture', exact: true });
  const box = (await picture.boundingBox())!;
  let seed = 11;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  const place = () =>
    [box.x + (0.2 + 0.6 * random()) * box.width, box.y + (0.2 + 0.4 * random()) * box.height] as const;
  const nudges = ['Pan left', 'Tilt up', 'Roll right', 'Truck right', 'Pedestal up', 'Dolly in'];
  await picture.focus();
  for (let n = 0; n < INPUTS; n += 1) {
    const what = n % 20;
    if (what < 12) await picture.press(['w', 'a', 's', 'd', 'ArrowLeft', 'ArrowRight'][n % 6]!);
    else if (what < 16) await page.mouse.wheel(0, random() < 0.5 ? -40 : 40);
    else if (what < 18) {
      await page.mouse.move(...place());
      await page.mouse.down({ button: random() < 0.5 ? 'left' : 'right' });
      await page.mouse.move(...place());
      await page.mouse.up({ button: 'left' });
      await page.mouse.up({ button: 'right' });
    } else if (what === 18)
      await page
        .getByRole('button', { name: nudges[n % nudges.length]! })
        .first()
        .click();
    else await type(page, 'Pose', 'Tilt', (10 * random() - 5).toFixed(1));
  }
}

test('a view is composed: stood on the plan, straightened, focused, checked, locked; looking about changes nothing', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const projectId = await house(page, 'Composed');
  await toViews(page);
  await pressPlan(page, 2.5, 3.2);
  await type(page, 'Pose', 'Bearing', '0');
  await page.getByRole('button', { name: 'Keep view' }).first().click();
  const first = (await viewOf(page, projectId)).body;
  expect(toDegrees(anglesOf(first.pose.orientation).tilt)).toBeCloseTo(0, 1);
  expect(Math.hypot(first.pose.position[0] - 2.5, first.pose.position[2] - 3.2)).toBeLessThan(0.1);

  await test.step('what leans is said; the mend is looked at, and kept only when asked', async () => {
    await type(page, 'Pose', 'Tilt', '10');
    await type(page, 'Pose', 'Roll', '2');
    const checks = page.getByRole('region', { name: 'Checks' });
    await expect(checks.getByText('The horizon is 2.0° off level.')).toBeVisible();
    await expect(checks.getByText(/^Verticals lean by/)).toBeVisible();
    await checks.getByRole('button', { name: 'Try it level' }).click();
    await expect(checks.getByText(/off level/)).toBeHidden();
    expect((await viewOf(page, projectId)).body.pose).toEqual(first.pose);
    await page.getByRole('button', { name: 'Update view' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('img', { name: 'After' })).toBeVisible();
    await dialog.getByRole('button', { name: 'Leave it' }).click();
    expect((await viewOf(page, projectId)).body.pose).toEqual(first.pose);
    await page.getByRole('button', { name: 'Update view' }).click();
    await dialog.getByRole('button', { name: 'Update', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Update view' })).toBeHidden();
    const { tilt, roll } = anglesOf((await viewOf(page, projectId)).body.pose.orientation);
    expect(toDegrees(tilt)).toBeCloseTo(10, 1);
    expect(toDegrees(roll)).toBeCloseTo(0, 1);
  });

  await test.step('what it was before is still there: to be looked at, and beside what it is', async () => {
    const before = page.getByRole('region', { name: 'This view' }).getByRole('button', { name: 'As it was before' });
    await before.click();
    await page.getByRole('button', { name: /^Look as it was until Update/ }).click();
    await expect(page.getByText(/^Scouting/).first()).toBeVisible();
    const tilt = page.getByRole('region', { name: 'Pose' }).getByLabel('Tilt');
    await expect(tilt).toHaveValue('0.0');
    expect(toDegrees(anglesOf((await viewOf(page, projectId)).body.pose.orientation).tilt)).toBeCloseTo(10, 1);
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await expect(tilt).toHaveValue('10.0');
    await before.click();
    await page.getByRole('button', { name: /^Compare with what it was until Update/ }).click();
    const compare = page.getByRole('group', { name: 'Compare', exact: true });
    await expect(compare.getByRole('button', { name: /^Go on with .*, before / })).toBeVisible();
    await expect(compare.getByRole('img')).toHaveCount(2);
    await compare.getByRole('button', { name: 'Done' }).click();
    await sharpPicture(page);
  });

  await test.step('what burns out to white is said, and mended by the exposure that it takes', async () => {
    const checks = page.getByRole('region', { name: 'Checks' });
    const exposure = page.getByRole('region', { name: 'Lens' }).getByLabel('Exposure');
    await expect(checks.getByText(/burns out/)).toBeHidden();
    await type(page, 'Lens', 'Exposure', '3');
    await expect(checks.getByText(/burns out to white/)).toBeVisible({ timeout: 20_000 });
    await checks.getByRole('button', { name: 'Try it darker' }).click();
    await expect(checks.getByText(/burns out/)).toBeHidden();
    await sharpPicture(page);
    await expect(checks.getByText(/burns out/)).toBeHidden();
    expect(Number(await exposure.inputValue())).toBeLessThan(3);
    expect((await viewOf(page, projectId)).body.lens.exposure).toBe(3);
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await soon(async () => (await viewOf(page, projectId)).body.lens.exposure).toBeUndefined();
  });

  await test.step('straight verticals are one press and one step of undo', async () => {
    await page.getByRole('button', { name: 'Straight verticals' }).click();
    const { pose, lens } = (await viewOf(page, projectId)).body;
    expect(toDegrees(anglesOf(pose.orientation).tilt)).toBeCloseTo(0, 6);
    // f · tan 10°, on a sensor 24 mm high.
    expect(lens.shift[1] * 24).toBeCloseTo(lens.focalLengthMm * Math.tan(Math.PI / 18), 1);
    await expect(page.getByRole('region', { name: 'Lens' }).getByLabel('Shift up')).toHaveValue(
      (lens.shift[1] * 24).toFixed(1),
    );
    await page.getByRole('button', { name: 'Undo' }).click();
    await soon(async () => (await viewOf(page, projectId)).body.lens.shift[1]).toBe(0);
    await page.getByRole('button', { name: 'Redo' }).click();
    await soon(async () => (await viewOf(page, projectId)).body.lens.shift[1]).toBeGreaterThan(0.1);
  });

  await test.step('the horizon is put where it is wanted, and verticals stay upright', async () => {
    const shifted = async () => 24 * (await viewOf(page, projectId)).body.lens.shift[1];
    const before = await shifted();
    await type(page, 'Framing', 'Horizon from below', '40');
    // A tenth of the 20.25 mm that a picture of 16 : 9 takes of the sensor.
    await soon(shifted).toBeCloseTo(2.025, 2);
    expect(anglesOf((await viewOf(page, projectId)).body.pose.orientation).tilt).toBeCloseTo(0, 6);
    await page.getByRole('button', { name: 'Undo' }).click();
    await soon(shifted).toBe(before);
  });

  await test.step('pressed in the picture, a thing is sharp', async () => {
    await sharpPicture(page);
    await page.getByRole('button', { name: 'Focus by pressing' }).click();
    const frame = (await page.getByTestId('frame').boundingBox())!;
    await page.mouse.click(frame.x + frame.width / 2, frame.y + 0.8 * frame.height);
    const focus = async () => (await viewOf(page, projectId)).body.lens.focus ?? null;
    await soon(focus).not.toBeNull();
    // The north wall, whose inner face is at 0.25 m.
    const { pose } = (await viewOf(page, projectId)).body;
    expect((await focus())!).toBeCloseTo(pose.position[2] - 0.25, 2);
    await expect(page.getByRole('region', { name: 'Lens' }).getByText('Sharp from')).toBeVisible();
  });

  await test.step('framed for a tall picture, with a square cut out of it; the project keeps its frame', async () => {
    await choose(page, { Ratio: /4 : 5/, 'Guide lines': /Diagonals/, 'Cut out as well': /1 : 1/ });
    const frame = async () => (await page.getByTestId('frame').boundingBox())!;
    await soon(async () => (await frame()).width / (await frame()).height).toBeCloseTo(0.8, 2);
    expect((await viewOf(page, projectId)).body.frame).toEqual({ width: 4, height: 5 });
    const { project } = await documentOf(page.request, projectId);
    expect(project.body.frame).toEqual({ width: 16, height: 9 });
    await expect(page.getByTestId('guides').locator('line')).toHaveCount(6);
    // Two safe areas, and the square.
    await expect(page.getByTestId('guides').locator('rect')).toHaveCount(3);
    await choose(page, { Ratio: /As the project/ });
    await soon(async () => (await viewOf(page, projectId)).body.frame).toBeUndefined();
  });

  await test.step(`${INPUTS} random inputs change no kept view; back is back`, async () => {
    const before = await viewOf(page, projectId);
    await wander(page);
    await expect(page.getByText(/^Scouting/).first()).toBeVisible();
    const after = await viewOf(page, projectId);
    expect(after.body).toEqual({ ...before.body, thumbnail: after.body.thumbnail });
    expect(after.name).toBe(before.name);
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await expect(page.getByText(/^Scouting/)).toBeHidden();
  });

  await test.step('a locked view stays as it is: another lens is only looked through', async () => {
    const card = page.getByRole('region', { name: 'This view' });
    await card.getByRole('button', { name: 'Lock' }).click();
    await card.getByRole('combobox', { name: 'Status' }).click();
    await page.getByRole('option', { name: 'Ready' }).click();
    await card.getByLabel('Note').fill('Ask about the stair');
    await card.getByLabel('Note').blur();
    const before = (await viewOf(page, projectId)).body;
    expect(before).toMatchObject({ locked: true, status: 'ready', note: 'Ask about the stair' });
    await type(page, 'Lens', 'Focal length', '50');
    await expect(page.getByText(/^Scouting with another lens/)).toBeVisible();
    await expect(page.getByRole('button', { name: 'Update view' })).toBeHidden();
    expect((await viewOf(page, projectId)).body.lens).toEqual(before.lens);
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await expect(page.getByRole('region', { name: 'Lens' }).getByLabel('Focal length')).toHaveValue(
      before.lens.focalLengthMm.toFixed(0),
    );
  });

  await test.step('two views are compared: beside each other, in place, with an edge between them', async () => {
    await page.getByRole('button', { name: 'Compare' }).click();
    await expect(page.getByText(/^Choose two to 4 views/)).toBeVisible();
    await type(page, 'Pose', 'Bearing', '180');
    await page.getByRole('button', { name: 'Keep as new' }).click();
    const rows = page.getByRole('complementary', { name: 'Views' }).locator('[data-row]');
    await expect(rows).toHaveCount(2);
    await rows.nth(0).click({ modifiers: ['Control'] });
    await page.getByRole('button', { name: 'Compare' }).click();
    const compare = page.getByRole('group', { name: 'Compare', exact: true });
    await expect(compare.locator('[data-drawn="true"]')).toHaveCount(2, { timeout: 60_000 });
    const sources = () =>
      compare.getByRole('img').evaluateAll((all) => all.map((img) => (img as HTMLImageElement).src));
    expect(new Set(await sources()).size).toBe(2);
    // The same pose is the same picture.
    await choose(page, { 'What they share': /pose/ });
    await expect(compare.locator('[data-drawn="true"]')).toHaveCount(2, { timeout: 60_000 });
    await compare.getByRole('radio', { name: 'Wipe' }).click();
    const edge = compare.getByRole('slider', { name: 'Edge between the two views' });
    await edge.press('ArrowRight');
    await expect(edge).toHaveValue('51');
    await compare.getByRole('radio', { name: 'Flick' }).click();
    await expect(compare.getByText(/^24 mm · 1 of 2/)).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(compare.getByText(/^24 mm · 2 of 2/)).toBeVisible();
    await compare.getByRole('button', { name: 'Done' }).click();
    await sharpPicture(page);
  });

  await test.step('both are put into a group, which is put away and shown again', async () => {
    const shelf = page.getByRole('complementary', { name: 'Views' });
    const group = page.getByLabel('Group', { exact: true });
    await group.fill('Hall');
    await group.press('Enter');
    await saved(page);
    const groups = async () => (await documentOf(page.request, projectId)).view.map(({ body }) => body.group);
    expect(await groups()).toEqual(['Hall', 'Hall']);
    await shelf.getByRole('button', { name: /^Hall/, expanded: true }).click();
    await expect(shelf.locator('[data-row]')).toHaveCount(0);
    await shelf.getByRole('button', { name: /^Hall/, expanded: false }).click();
    await expect(shelf.locator('[data-row]')).toHaveCount(2);
    await page.getByRole('button', { name: 'Undo' }).click();
    await soon(groups).toEqual([undefined, undefined]);
  });

  await test.step('a contact sheet: one page of paper as PDF, the same as PNG', async () => {
    const saving = async (button: string) => {
      await page.getByRole('button', { name: 'Contact sheet' }).click();
      const dialog = page.getByRole('dialog');
      await choose(page, { 'Which views': /All views/, Paper: /A3, wide/, 'Pictures across and down': /2 × 2/ });
      await expect(dialog.getByRole('status')).toHaveText(/^2 views on 1 page\./);
      const coming = page.waitForEvent('download');
      await dialog.getByRole('button', { name: button }).click();
      const file = await coming;
      return { name: file.suggestedFilename(), bytes: readFileSync(await file.path()) };
    };
    const pdf = await saving('Save PDF');
    expect(pdf.name).toBe('Composed, views.pdf');
    const text = pdf.bytes.toString('latin1');
    expect(text.startsWith('%PDF-1.')).toBe(true);
    expect(text.match(/\/Type \/Page\b/g)).toHaveLength(1);
    // ISO 32000: points of 1/72 inch; A3 is 420 × 297 mm.
    const box = /\/MediaBox \[ 0 0 ([\d.]+) ([\d.]+) \]/.exec(text)!.slice(1).map(Number);
    expect(box.map((points) => Math.round((points * 25.4) / 72))).toEqual([420, 297]);
    const png = await saving('Save PNG');
    // Width and height stand in a PNG from byte 16 on; 200 dots an inch.
    expect([16, 20].map((at) => Math.round((png.bytes.readUInt32BE(at) * 25.4) / 200))).toEqual([420, 297]);
  });
});
