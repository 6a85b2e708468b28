import { expect, test } from '@playwright/test';
import { HUT, hutGlb } from '../../core/src/format/files.fixture.ts';
import {
  bringIn,
  choose,
  documentOf,
  newProject,
  pictureStatistics,
  saved,
  sharpPicture,
  soon,
} from '../support/studio.ts';
import { pixelsOf } from '../support/pixels.ts';
import { heading, lookAtMiddle, walkInHut } from '../support/walk.ts';

test('a movement that came with a file becomes an action, plays, and a newer file without it is told', async ({
  page,
}) => {
  const projectId = await newProject(page, 'Moving');
  await bringIn(page, { name: 'hut.glb', bytes: await hutGlb({ animation: true }) });
  const card = page.getByRole('region', { name: 'Actions' });
  const resting = await test.step('at rest', async () => {
    await sharpPicture(page);
    return pictureStatistics(page);
  });

  await test.step('it is offered with its length, and used', async () => {
    await expect(card).toContainText('Lift the roof');
    await expect(card).toContainText('2.0 s');
    await card.getByRole('button', { name: 'Use Lift the roof' }).click();
    await saved(page);
    const { action, model } = await documentOf(page.request, projectId);
    expect(model[0]!.body.movements).toEqual([{ name: 'Lift the roof', duration: 2, targets: ['Roof'] }]);
    expect(action.map(({ body }) => body)).toEqual([
      { kind: 'recorded', model: model[0]!.id, start: 0, movement: 'Lift the roof', speed: 1, repeat: 'once' },
    ]);
  });

  await test.step('it plays in the picture', async () => {
    await card.getByRole('button', { name: 'Play' }).click();
    await expect(card).toContainText(/[3-9]\.\d s/, { timeout: 20_000 });
    await card.getByRole('button', { name: 'Pause' }).click();
    await sharpPicture(page);
    const lifted = await pictureStatistics(page);
    expect(Math.abs(lifted.mean - resting.mean) + Math.abs(lifted.spread - resting.spread)).toBeGreaterThan(1);
  });

  await test.step('a part is let spin, and the spin is changed by typing', async () => {
    const parts = page.getByRole('complementary', { name: 'Parts' });
    await parts.getByRole('treeitem', { name: 'East wall', exact: true }).click();
    await page.getByRole('button', { name: 'Spin', exact: true }).click();
    await card.getByLabel(/Turns a minute/).fill('30/2');
    await card.getByLabel(/Turns a minute/).press('Enter');
    await saved(page);
    const spin = (await documentOf(page.request, projectId)).action.find(({ body }) => body.kind === 'spin')!;
    expect(spin).toMatchObject({ name: 'East wall', body: { part: 'East wall', axis: [0, 1, 0] } });
    if (spin.body.kind === 'spin') expect(spin.body.rate).toBeCloseTo(Math.PI / 2, 9);
  });

  await test.step('a walk goes on while things move, and follows one of them with its gaze', async () => {
    await page.getByRole('link', { name: 'Moves' }).click();
    await walkInHut(page);
    await lookAtMiddle(page, 'East wall');
    const slider = page.getByRole('slider', { name: 'Time' });
    await slider.focus();
    await page.keyboard.press('Home');
    const first = await heading(page);
    await page.keyboard.press('End');
    // What was pressed has turned away with the wall by then: the eye has turned after it.
    await soon(async () => Math.abs((await heading(page)) - first), { timeout: 20_000 }).toBeGreaterThan(0.05);
  });

  await test.step('a newer file without the movement: the card says so, and nothing is lost', async () => {
    await page.getByRole('link', { name: 'Model' }).click();
    await page.getByLabel('Newer file of this model').setInputFiles({
      name: 'still.glb',
      mimeType: 'model/gltf-binary',
      buffer: Buffer.from(await hutGlb()),
    });
    await expect(card).toContainText('“still.glb” has no movement “Lift the roof” any more', { timeout: 30_000 });
    await saved(page);
    expect((await documentOf(page.request, projectId)).action).toHaveLength(2);
  });
});

test('a lamp that dims takes its light off walls and floor, bit by bit', async ({ page }) => {
  const projectId = await newProject(page, 'Dimming');
  const open = HUT.filter(({ name }) => /Floor|North|West/.test(name));
  const lamp = { name: 'Bulb', size: [0.12, 0.12, 0.12], at: [-0.8, 1.6, -0.7], glows: true } as const;
  await bringIn(page, {
    name: 'corner.glb',
    bytes: await hutGlb({ parts: [...open, { ...lamp, size: [...lamp.size], at: [...lamp.at] }] }),
  });
  const lights = page.getByRole('region', { name: 'Lights' });
  const card = page.getByRole('region', { name: 'Actions' });
  /** How light the picture is once time has gone on beyond all that happens. */
  const atTheEnd = async () => {
    await card.getByRole('button', { name: 'Play' }).click();
    await expect(card).toContainText(/[4-9]\.\d s/, { timeout: 20_000 });
    await card.getByRole('button', { name: 'Pause' }).click();
    await sharpPicture(page);
    return (await pictureStatistics(page)).mean;
  };

  const lit = await test.step('at dusk, the lamp lights its corner', async () => {
    await lights.getByRole('button', { name: 'New light' }).click();
    await page.getByRole('menuitem', { name: 'Dusk, lamps on' }).click();
    await expect(lights.getByText('coming')).toHaveCount(0, { timeout: 60_000 });
    await sharpPicture(page);
    return (await pictureStatistics(page)).mean;
  });

  const dark = await test.step('its part is chosen and dimmed to nothing: so does its light', async () => {
    const parts = page.getByRole('complementary', { name: 'Parts' });
    await parts.getByRole('treeitem', { name: 'North wall', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Dim', exact: true })).toHaveCount(0);
    await parts.getByRole('treeitem', { name: 'Bulb', exact: true }).click();
    await page.getByRole('button', { name: 'Dim', exact: true }).click();
    for (const [label, value] of [
      ['Begins at, s', '1'],
      ['Takes, s', '2'],
      ['To, %', '0'],
    ] as const) {
      await card.getByLabel(label, { exact: true }).fill(value);
      await card.getByLabel(label, { exact: true }).press('Enter');
    }
    await saved(page);
    const [action] = (await documentOf(page.request, projectId)).action;
    expect(action!.body).toMatchObject({ kind: 'dim', part: 'Bulb', start: 1, seconds: 2, from: 1, to: 0 });
    // What it gives is gathered behind the work.
    await expect(lights.getByText('coming')).toHaveCount(0, { timeout: 60_000 });
    const dark = await atTheEnd();
    expect(dark).toBeLessThan(0.9 * lit);
    return dark;
  });

  await test.step('dimmed to a half, it is in between', async () => {
    const to = card.getByLabel('To, %', { exact: true });
    await to.fill('50');
    await to.press('Enter');
    await saved(page);
    await sharpPicture(page);
    const half = (await pictureStatistics(page)).mean;
    expect(half).toBeGreaterThan(dark + 0.15 * (lit - dark));
    expect(half).toBeLessThan(lit - 0.05 * (lit - dark));
  });
});

test('a part that fades is half there when half of the time is over: a mean of the pictures with and without it', async ({
  page,
}) => {
  const projectId = await newProject(page, 'Fading');
  const open = HUT.filter(({ name }) => /Floor|North|West/.test(name));
  await bringIn(page, {
    name: 'corner.glb',
    bytes: await hutGlb({ parts: [...open, { name: 'Chest', size: [1.2, 1.2, 1.2], at: [0, 0.6, 0] }] }),
  });
  const card = page.getByRole('region', { name: 'Actions' });
  const fill = async (label: string, value: string) => {
    const field = card.getByLabel(label, { exact: true });
    await field.fill(value);
    await field.press('Enter');
  };
  /** Its picture when it begins at a time and takes so long, seconds; the clock stands still. */
  const pictureOf = async (begins: string, takes: string) => {
    await fill('Begins at, s', begins);
    await fill('Takes, s', takes);
    await saved(page);
    await page.mouse.move(0, 0);
    await sharpPicture(page);
    return page.getByTestId('picture-canvas').first().screenshot();
  };

  await test.step('its part is chosen, appears, and fades', async () => {
    await page
      .getByRole('complementary', { name: 'Parts' })
      .getByRole('treeitem', { name: 'Chest', exact: true })
      .click();
    await page.getByRole('button', { name: 'Appear', exact: true }).click();
    await card.getByRole('radio', { name: 'Fades' }).click();
    await choose(page, { Shape: /Constant/ });
    await saved(page);
    const [action] = (await documentOf(page.request, projectId)).action;
    expect(action!.body).toMatchObject({ kind: 'appear', part: 'Chest', how: 'fades', shape: 'constant' });
  });

  await test.step('half-way it is as much there as not', async () => {
    await card.getByRole('button', { name: 'Play' }).click();
    await expect(card).toContainText(/[2-9]\.\d s/, { timeout: 20_000 });
    await card.getByRole('button', { name: 'Pause' }).click();
    const now = Number(/(\d+\.\d+) s/.exec((await card.textContent())!)![1]);
    const without = await pictureOf('200', '1');
    const half = await pictureOf('0', String(2 * now));
    const whole = await pictureOf('0', '0.1');
    const [a, b, c] = [without, half, whole].map((png) => pixelsOf(png)) as [Buffer, Buffer, Buffer];
    /** Of what it changes, how much is changed half-way. */
    const parts: number[] = [];
    for (let i = 0; i < a.length; i += 3)
      if (Math.abs(c[i]! - a[i]!) > 40) parts.push((b[i]! - a[i]!) / (c[i]! - a[i]!));
    parts.sort((x, y) => x - y);
    expect(parts.length / (a.length / 3)).toBeGreaterThan(0.005);
    const at = (part: number) => parts[Math.floor(part * (parts.length - 1))]!;
    expect(at(0.5)).toBeCloseTo(0.5, 1);
    expect(at(0.1)).toBeGreaterThan(0.4);
    expect(at(0.9)).toBeLessThan(0.6);
  });
});
