import type { Glide } from '@eskovan/core/document';
import { expect, test } from '@playwright/test';
import { Mesh, TorusGeometry } from 'three';
import { STLExporter } from 'three/examples/jsm/exporters/STLExporter.js';
import { bringIn, documentOf, newProject, saved, siteOf, soon, toViews } from '../support/studio.ts';

/** A ring of 24 mm that lies on its side, in millimetres, as another program writes it. */
const ring = (): Uint8Array =>
  new TextEncoder().encode(new STLExporter().parse(new Mesh(new TorusGeometry(10, 2, 16, 64))));

test('a ring is worked on in millimetres: read, looked at from beside, come near to, and glided past', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const projectId = await newProject(page, 'A ring of twelve carats');
  await bringIn(page, { name: 'ring.stl', bytes: ring() });

  await test.step('its size is said in the unit of the trade', async () => {
    // Told by its shape: it lies on its wider side.
    const right = page.getByRole('region', { name: 'Is this right?' });
    await expect(right.getByRole('radio', { name: 'Z', exact: true })).toBeChecked();
    await expect(right).toContainText(/2[34]\.\d × 2[34]\.\d × 4\.0mm/);
    // What is stood on is the ground of the ring as it lies.
    await saved(page);
    await siteOf(page.request, projectId);
  });

  await test.step('who is put beside it has the eye as high as it is large, not as people have it', async () => {
    await toViews(page);
    const plan = (await page.getByTestId('plan-drawing').boundingBox())!;
    await page.mouse.click(plan.x + 0.2 * plan.width, plan.y + 0.7 * plan.height);
    await expect(page.getByText(/^Scouting [\d.]+ mm away/)).toBeVisible();
    const height = page.getByRole('region', { name: 'Pose' }).getByLabel('Height, mm');
    await soon(async () => Number(await height.inputValue())).toBeGreaterThan(4);
    expect(Number(await height.inputValue())).toBeLessThan(25);
    // And who drags from there looks that way, however small the way is.
    const bearing = page.getByRole('region', { name: 'Pose' }).getByLabel('Bearing, °');
    await page.mouse.move(plan.x + 0.2 * plan.width, plan.y + 0.7 * plan.height);
    await page.mouse.down();
    await page.mouse.move(plan.x + 0.2 * plan.width + 80, plan.y + 0.7 * plan.height, { steps: 4 });
    await page.mouse.up();
    await expect(bearing).toHaveValue('90.0');
    // A number alone is millimetres.
    await height.fill('12.5');
    await height.press('Enter');
    await expect(height).toHaveValue('12.5');
  });

  await test.step('a turn of the wheel comes nearer by a part of the way, and not past it', async () => {
    const away = async () =>
      Number(/Scouting ([\d.]+) mm/.exec((await page.getByText(/^Scouting [\d.]+ mm/).textContent()) ?? '')?.[1]);
    const before = await away();
    const picture = (await page.getByTestId('frame').boundingBox())!;
    await page.mouse.move(picture.x + picture.width / 2, picture.y + picture.height / 2);
    await page.mouse.wheel(0, -100);
    await soon(async () => Math.abs((await away()) - before)).toBeGreaterThan(0.2);
    expect(Math.abs((await away()) - before)).toBeLessThan(30);
    await expect(page.getByRole('group', { name: 'Step of distances' })).toContainText('0.1mm');
  });

  await test.step('a glide past it: three presses, three nodes, looking at it, measured in millimetres', async () => {
    await page.getByRole('link', { name: 'Moves' }).click();
    await page.getByRole('button', { name: 'Other move' }).click();
    await page.getByRole('menuitem', { name: /^Glide/ }).click();
    await expect(page.getByRole('region', { name: 'Height', exact: true })).toBeVisible();
    const plan = (await page.getByTestId('plan-drawing').boundingBox())!;
    for (const [x, y] of [
      [0.25, 0.75],
      [0.5, 0.6],
      [0.75, 0.75],
    ] as const)
      await page.mouse.click(plan.x + x * plan.width, plan.y + y * plan.height);
    await page.keyboard.press('Escape');
    await saved(page);
    const body = (await documentOf(page.request, projectId)).move.at(-1)!.body as Glide;
    expect(body.path.nodes).toHaveLength(3);
    expect(body.gaze.kind).toBe('point');
    for (const { y } of body.path.nodes) expect(y).toBeLessThan(0.03);
    await expect(page.getByRole('complementary', { name: 'Moves' })).toContainText(/ s · [\d.]+ mm/);
    await expect(page.getByTestId('strip-charts')).toContainText('mm/s');
    await page.getByRole('radio', { name: 'Above ground' }).click();
    await soon(async () => {
      const { height } = (await documentOf(page.request, projectId)).move.at(-1)!.body as Glide;
      return height.by === 'ground' ? height.above : NaN;
    }).toBeLessThan(0.04);
  });
});
