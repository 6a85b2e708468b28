import type { ViewBody } from '@eskovan/core/document';
import { Document, NodeIO, type Material } from '@gltf-transform/core';
import { expect, test, type Page } from '@playwright/test';
import { BoxGeometry, CircleGeometry, PlaneGeometry, type BufferGeometry } from 'three';
import { hutGlb, stl } from '../../core/src/format/files.fixture.ts';
import { editElsewhere } from '../support/edits.ts';
import { nodeOf } from '../support/foreign-model.ts';
import { bringHouseIn } from '../support/house.ts';
import { pixelsOf } from '../support/pixels.ts';
import { VIEW } from '../support/rows.ts';
import {
  bringIn,
  choose,
  documentOf,
  litScene,
  newestTake,
  newProject,
  pictureStatistics,
  planPoint,
  saved,
  sharpPicture,
  siteOf,
  soon,
} from '../support/studio.ts';

test('a model whose file does not say its size is shown as it may be, set with one press, and measured again', async ({
  page,
}) => {
  const projectId = await newProject(page, 'Right size');
  await bringIn(page, { name: 'hut.stl', bytes: stl(true) });
  const card = page.getByRole('region', { name: 'Is this right?' });
  // Shape alone does not say which way is up: the likeliest answers are shown as pictures, the best one taken.
  await expect(card.getByText(/Which is it\?/)).toBeVisible();
  await expect(card.getByRole('button', { name: /millimetres, Y up/ })).toHaveAttribute('aria-pressed', 'true');
  await card.getByRole('button', { name: /millimetres, Z up/ }).click();
  await expect(card.getByText('4.40 × 2.80 × 3.40')).toBeVisible();
  // Who has decided is not asked again.
  await expect(card.getByText(/As you have set it/)).toBeVisible();
  await expect(card.getByRole('button', { name: /millimetres, Y up/ })).toBeHidden();
  await card.getByRole('radio', { name: 'Y', exact: true }).click();
  await expect(card.getByText('4.40 × 3.40 × 2.80')).toBeVisible();
  await card.getByLabel('Up, m').fill('1.5');
  await card.getByLabel('Up, m').press('Enter');
  await saved(page);
  // The site is that of the placement that holds now.
  await soon(async () => (await siteOf(page.request, projectId)).bounds.min[1], {
    timeout: 60_000,
  }).toBeCloseTo(1.3, 3);
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  await soon(async () => (await siteOf(page.request, projectId)).bounds.min[1]).toBeCloseTo(-0.2, 3);
});

test('parts are found, chosen in tree and picture, hidden, shown alone and brought back', async ({ page }) => {
  const projectId = await newProject(page, 'Parts');
  await bringIn(page, { name: 'hut.glb', bytes: await hutGlb() });
  await sharpPicture(page);
  const parts = page.getByRole('complementary', { name: 'Parts' });
  const whole = await pictureStatistics(page);
  await parts.getByLabel('Search parts').fill('roof');
  await parts.getByRole('treeitem', { name: 'Roof', exact: true }).click();
  const card = page.getByRole('region', { name: 'Roof', exact: true });
  await expect(card.getByText('4.40 × 0.20 × 3.40')).toBeVisible();
  await card.getByRole('button', { name: 'Hide' }).click();
  await saved(page);
  expect((await documentOf(page.request, projectId)).model[0]!.body.parts).toEqual({ Roof: { hidden: true } });
  await sharpPicture(page);
  await expect
    .poll(
      async () => {
        // Exposure makes up for some of what is missing: mean and spread together tell.
        const { mean, spread } = await pictureStatistics(page);
        return Math.abs(mean - whole.mean) + Math.abs(spread - whole.spread);
      },
      { timeout: 30_000 },
    )
    .toBeGreaterThan(0.3);
  await card.getByRole('button', { name: 'Show', exact: true }).click();
  await card.getByRole('button', { name: 'Alone' }).click();
  await expect(card.getByRole('button', { name: 'Alone' })).toHaveAttribute('aria-pressed', 'true');
  await card.getByRole('button', { name: 'Frame it' }).click();
  await card.getByRole('button', { name: 'Choose nothing' }).click();
  await expect(card).toHaveCount(0);
  await saved(page);
  expect((await documentOf(page.request, projectId)).model[0]!.body.parts).toEqual({});
  // What they are made of, changed wherever it is used, and back.
  await parts.getByRole('radio', { name: 'Materials' }).click();
  const materials = parts.getByRole('listbox', { name: 'Materials of the model' });
  const first = materials.getByRole('option').first();
  const name = (await first.getAttribute('title'))!;
  await parts.getByLabel('Search materials').fill(name.slice(0, 4));
  await first.click();
  const made = page.getByRole('region', { name, exact: true });
  await expect(made).toContainText(/Material of\s*\d+ parts?/);
  await made.getByLabel('Roughness').fill('0.15');
  await made.getByLabel('Roughness').press('Enter');
  await saved(page);
  const looks = async () => (await documentOf(page.request, projectId)).model[0]!.body.materials;
  expect(await looks()).toEqual({ [name]: { roughness: 0.15 } });
  await made.getByLabel('Light').getByRole('radio', { name: 'Unlit' }).click();
  await expect(made).toContainText('hold their light already');
  await saved(page);
  expect(await looks()).toEqual({ [name]: { roughness: 0.15, light: 'unlit' } });
  await made.getByRole('button', { name: 'As it came' }).click();
  await saved(page);
  expect(await looks()).toEqual({});
  await made.getByRole('button', { name: 'Choose no material' }).click();
  // A press on the picture that is no drag chooses what is there.
  await page.getByRole('button', { name: 'Whole model' }).click();
  await sharpPicture(page);
  const frame = (await page.getByTestId('frame').boundingBox())!;
  await page.mouse.click(frame.x + frame.width / 2, frame.y + frame.height / 2);
  await expect(page.getByRole('button', { name: 'Frame it' })).toBeVisible();
});

/**
 * A block, and over it a sheet whose picture is there on its western half and cut out on its eastern one; a red rug lies in
 * the plane of the block's top, on other triangles.
 */
async function underALeaf(page: Page): Promise<Uint8Array> {
  const png = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(64, 64);
    const context = canvas.getContext('2d')!;
    context.fillStyle = '#2f7d32';
    context.fillRect(0, 0, 32, 64);
    const bytes = new Uint8Array(await (await canvas.convertToBlob()).arrayBuffer());
    return [...bytes];
  });
  const document = new Document();
  document.createBuffer();
  const scene = document.createScene('Both');
  const add = (name: string, geometry: BufferGeometry, material: Material) =>
    scene.addChild(nodeOf(document, name, geometry, material, { TEXCOORD_0: 'uv' }));
  add('Block', new BoxGeometry(4, 0.5, 4).translate(0, 0.25, 0), document.createMaterial('Stone'));
  const red = document.createMaterial('Red').setBaseColorFactor([0.6, 0.02, 0.02, 1]);
  add(
    'Rug',
    new CircleGeometry(0.6, 24)
      .rotateX(-Math.PI / 2)
      .rotateY(0.3)
      .translate(1.2, 0.5, 1.2),
    red,
  );
  const leaf = document.createMaterial('Leaf').setAlphaMode('MASK').setDoubleSided(true);
  leaf.setBaseColorTexture(document.createTexture('Leaf').setImage(Uint8Array.from(png)).setMimeType('image/png'));
  add('Leaf', new PlaneGeometry(4, 4).rotateX(-Math.PI / 2).translate(0, 0.9, 0), leaf);
  return new NodeIO().writeBinary(document);
}

/** Of the pixels between the first and the last red one of each row, the part that is not red; and how many red ones there are. */
function holesInRed(pixels: Buffer, width: number): { holes: number; red: number } {
  let [holes, red] = [0, 0];
  for (let row = 0; row < pixels.length / 3; row += width) {
    const isRed = (x: number) => pixels[3 * (row + x)]! > 2 * pixels[3 * (row + x) + 1]! + 20;
    const reds = Array.from({ length: width }, (_, x) => x).filter(isRed);
    if (reds.length === 0) continue;
    red += reds.length;
    holes += reds.at(-1)! - reds[0]! + 1 - reds.length;
  }
  return { holes: holes / Math.max(1, red), red };
}

test('a press where something is cut out means what is behind it; what lies in one plane with another is seen whole', async ({
  page,
}) => {
  await newProject(page, 'Between the leaves');
  await bringIn(page, { name: 'leaf.glb', bytes: await underALeaf(page) });
  await sharpPicture(page);
  const press = async (x: number, z = 0.5) => {
    const at = await planPoint(page, x, z);
    await page.mouse.dblclick(at.x, at.y);
  };
  await press(-1);
  await expect(page.getByRole('region', { name: 'Leaf', exact: true })).toBeVisible();
  await press(1);
  await expect(page.getByRole('region', { name: 'Block', exact: true })).toBeVisible();
  await press(1.2, 1.2);
  await expect(page.getByRole('region', { name: 'Rug', exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await sharpPicture(page);
  const picture = await page.getByTestId('frame').first().screenshot();
  const { holes, red } = holesInRed(pixelsOf(picture), picture.readUInt32BE(16));
  expect(red).toBeGreaterThan(300);
  expect(holes).toBeLessThan(0.01);
});

test('looks change the picture and not the light; names and the sun are kept', async ({ page }) => {
  test.setTimeout(200_000);
  const projectId = await newProject(page, 'Looks');
  await bringIn(page, { name: 'hut.glb', bytes: await hutGlb() });
  await sharpPicture(page);
  const natural = await pictureStatistics(page);
  const lit = await litScene(page.request, projectId);
  await page.getByRole('radio', { name: 'Line' }).click();
  await saved(page);
  await expect
    .poll(
      async () => {
        const { mean, spread } = await pictureStatistics(page);
        return Math.abs(mean - natural.mean) + Math.abs(spread - natural.spread);
      },
      { timeout: 30_000 },
    )
    .toBeGreaterThan(5);
  expect(await litScene(page.request, projectId)).toEqual(lit);
  expect((await documentOf(page.request, projectId)).project.body.look).toBe('line');
  const storey = page.getByLabel(/^Storey name/).first();
  await storey.fill('Bird room');
  await storey.press('Enter');
  await page.getByLabel('Time', { exact: true }).fill('08:30');
  await saved(page);
  const { body } = (await documentOf(page.request, projectId)).project;
  expect(body.storeyNames.map(({ name }) => name)).toEqual(['Bird room']);
  expect(body.sun.instant).toBe('2026-08-28T06:30:00.000Z');
  await page.reload();
  await expect(page.getByLabel('Storey name: Bird room')).toBeVisible({ timeout: 60_000 });
  await test.step('a still of it is a drawing: lines on paper', async () => {
    const body: ViewBody = { ...VIEW, pose: { ...VIEW.pose, position: [0, 1.6, 8] } };
    await editElsewhere(page.request, projectId, 'New view', [
      { op: 'make', kind: 'view', id: crypto.randomUUID(), name: 'Front', order: 1, body },
    ]);
    await page.getByRole('link', { name: 'Renders' }).click();
    await choose(page, { 'What to render': /Front/, Size: /640/, Quality: /Draft/ });
    await page.getByRole('button', { name: 'Render still' }).click();
    const pixels = pixelsOf(await newestTake(page.request, projectId, 1));
    const shareOf = (is: (value: number) => boolean) => pixels.reduce((n, value) => n + +is(value), 0) / pixels.length;
    expect(shareOf((value) => value > 200)).toBeGreaterThan(0.5);
    expect(shareOf((value) => value < 100)).toBeGreaterThan(0.001);
  });
});

test('a storey is corrected, left out and found again; the light stays', async ({ page }) => {
  const projectId = await newProject(page, 'Heights');
  await bringHouseIn(page);
  const lit = await litScene(page.request, projectId);
  const heights = async () => {
    const { storeys } = await siteOf(page.request, projectId);
    return storeys.map(({ elevation }) => elevation);
  };
  const found = await heights();
  const card = page.getByRole('region', { name: 'Storeys and rooms' });
  const height = card.getByRole('textbox', { name: /^Height of/ }).last();
  await height.fill('25 cm');
  await height.press('Enter');
  await soon(heights, { timeout: 60_000 }).toContain(0.25);
  // Nothing of the light depends on storeys: it is the very same file.
  expect(await litScene(page.request, projectId)).toEqual(lit);
  await card.getByRole('button', { name: 'Add a storey' }).click();
  await soon(async () => (await heights()).length, { timeout: 60_000 }).toBe(found.length + 1);
  await card.getByRole('button', { name: 'As found' }).click();
  await soon(heights, { timeout: 60_000 }).toEqual(found);
  await saved(page);
  expect((await documentOf(page.request, projectId)).project.body.storeyChanges).toEqual([]);
});

test('two models stand in one project; hiding one takes it out of the plan and the picture', async ({ page }) => {
  const projectId = await newProject(page, 'Two models');
  await bringIn(page, { name: 'hut.glb', bytes: await hutGlb() });
  await page
    .getByLabel('Model file')
    .setInputFiles({ name: 'second.glb', mimeType: 'model/gltf-binary', buffer: Buffer.from(await hutGlb()) });
  const shelf = page.getByRole('complementary', { name: 'Models' });
  await expect(shelf.getByRole('button', { name: /^second/ })).toBeVisible({ timeout: 30_000 });
  await shelf.getByRole('button', { name: /^second/ }).click();
  await page.getByLabel('East, m').fill('10');
  await page.getByLabel('East, m').press('Enter');
  await saved(page);
  const width = async () => {
    const { bounds } = await siteOf(page.request, projectId);
    return bounds.max[0] - bounds.min[0];
  };
  await soon(width, { timeout: 60_000 }).toBeCloseTo(14.4, 3);
  await shelf.getByRole('button', { name: 'More for second' }).click();
  await page.getByRole('menuitem', { name: 'Hide' }).click();
  await saved(page);
  await soon(width, { timeout: 60_000 }).toBeCloseTo(4.4, 3);
});
