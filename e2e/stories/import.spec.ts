import { expect, test, type Page } from '@playwright/test';
import { brokenFiles } from '../../core/src/format/broken-files.fixture.ts';
import { HUT_TRIANGLES, hutGlb, ply, stl, zippedGltf, zippedObj } from '../../core/src/format/files.fixture.ts';
import { volcanoAsciiGrid, volcanoGeoTiff } from '../../core/src/format/heights.fixture.ts';
import { writeIfc } from '../../core/src/format/ifc/ifc-house.fixture.ts';
import { readZip } from '../../core/src/format/zip/index.ts';
import {
  bringIn,
  documentOf,
  newProject,
  pictureStatistics,
  projectElsewhere,
  saved,
  sharpPicture,
  siteOf,
  soon,
} from '../support/studio.ts';

const right = (page: Page) => page.getByRole('region', { name: 'Is this right?' });

/** What the card says of the size, metres: width, depth, height. */
async function sizeShown(page: Page): Promise<number[]> {
  const text = await right(page).getByText('W × D × H').locator('..').textContent();
  const metres = text!.endsWith('mm') ? 0.001 : 1;
  return [...text!.matchAll(/\d+(?:\.\d+)?/g)].map(([number]) => metres * Number(number));
}

async function pictureShows(page: Page): Promise<void> {
  await sharpPicture(page);
  expect((await pictureStatistics(page)).spread).toBeGreaterThan(4);
}

const HUT_SIZE = [4.4, 3.4, 2.8];
const FORMATS = [
  { name: 'hut.glb', make: () => hutGlb(), size: HUT_SIZE, triangles: HUT_TRIANGLES },
  { name: 'packed.glb', make: () => hutGlb({ compression: 'draco' }), size: HUT_SIZE, triangles: HUT_TRIANGLES },
  { name: 'small.glb', make: () => hutGlb({ compression: 'meshopt' }), size: HUT_SIZE, triangles: HUT_TRIANGLES },
  { name: 'gltf.zip', make: () => zippedGltf(), size: HUT_SIZE, triangles: HUT_TRIANGLES },
  { name: 'obj.zip', make: () => Promise.resolve(zippedObj()), size: HUT_SIZE, triangles: HUT_TRIANGLES },
  // In millimetres, which STL cannot say: guessed.
  { name: 'hut.stl', make: () => Promise.resolve(stl(true)), size: HUT_SIZE, triangles: HUT_TRIANGLES },
  { name: 'text.stl', make: () => Promise.resolve(stl(false)), size: HUT_SIZE, triangles: HUT_TRIANGLES },
  { name: 'ball.ply', make: () => Promise.resolve(ply(true)), size: [0.8, 0.8, 0.8], triangles: 720 },
  // Heights of Maunga Whau, 87 × 61 at 10 m, 94–195 m (R manual, data set "volcano").
  { name: 'mountain.asc', make: () => Promise.resolve(volcanoAsciiGrid()), size: [860, 600, 101] },
  { name: 'mountain.tif', make: () => volcanoGeoTiff(), size: [860, 600, 101] },
];

test('models of every format, by libraries that are not ours, each in a project of its own, in one sitting', async ({
  page,
}) => {
  await page.goto('/');
  for (const { name, make, size, triangles } of FORMATS)
    await test.step(name, async () => {
      const projectId = await projectElsewhere(page.request, `Import ${name}`);
      await page.locator(`a[href*="${projectId}"]`).click();
      await expect(page.getByRole('heading', { name: `Import ${name}`, level: 1 })).toBeVisible();
      await bringIn(page, { name, bytes: await make() });
      expect(await sizeShown(page)).toEqual(size.map((value) => expect.closeTo(value, 1)));
      const { model } = await documentOf(page.request, projectId);
      expect(model).toHaveLength(1);
      if (triangles !== undefined) expect(model[0]!.body.triangles).toBe(triangles);
      await pictureShows(page);
      await page.getByRole('link', { name: 'All projects' }).click();
    });
});

test('an IFC with its storeys, rooms and doors', async ({ page }) => {
  const projectId = await newProject(page, 'Import house.ifc');
  const wall = (n: number, from: [number, number, number], to: [number, number, number]) =>
    ({ name: `Wall ${n}`, type: 'wall', from, to }) as const;
  const bytes = await writeIfc(
    [
      { name: 'Hall floor', elevation: 0 },
      { name: 'Attic', elevation: 3 },
    ],
    [
      { name: 'Slab', type: 'slab', from: [0, 0, -0.2], to: [9, 6, 0] },
      wall(1, [0, 0, 0], [9, 0.2, 2.8]),
      wall(2, [0, 5.8, 0], [9, 6, 2.8]),
      wall(3, [0, 0.2, 0], [0.2, 5.8, 2.8]),
      wall(4, [8.8, 0.2, 0], [9, 5.8, 2.8]),
      { name: 'Front door', type: 'door', from: [4, 0.05, 0], to: [5, 0.15, 2.1] },
      { name: 'Attic floor', type: 'slab', from: [0, 0, 2.8], to: [9, 6, 3] },
      { name: 'Roof', type: 'slab', from: [0, 0, 5.6], to: [9, 6, 5.8] },
    ],
    [
      {
        name: 'Great room',
        outline: [
          [0.2, 0.2],
          [8.8, 0.2],
          [8.8, 5.8],
          [0.2, 5.8],
        ],
        elevation: 0,
      },
    ],
  );
  await bringIn(page, { name: 'house.ifc', bytes });
  const storeys = page.getByRole('region', { name: 'Storeys and rooms' });
  await expect(storeys.getByLabel('Storey name: Attic')).toBeVisible();
  await expect(storeys.getByLabel('Room name: Great room')).toBeVisible();
  await expect(storeys.getByText(/48\.2/)).toBeVisible();
  expect((await siteOf(page.request, projectId)).storeys.map(({ name, elevation }) => [name, elevation])).toEqual([
    ['Hall floor', 0],
    ['Attic', 3],
  ]);
  await page.getByLabel('Search parts').fill('front');
  await page.getByRole('treeitem', { name: 'Hall floor / Door / Front door' }).click();
  await expect(page.getByRole('region', { name: 'Front door' })).toBeVisible();
  await pictureShows(page);
});

test('a model of several files comes in one drop; its materials alone say what is missing', async ({ page }) => {
  const projectId = await newProject(page, 'Import together');
  const files = [...readZip(await zippedGltf(), 'hut.zip')].map(([path, bytes]) => ({
    name: path.split('/').at(-1)!,
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(bytes),
  }));
  expect(files.length).toBeGreaterThan(1);
  await page.getByLabel('Model file').setInputFiles(files);
  await expect(right(page)).toBeVisible({ timeout: 60_000 });
  expect(await sizeShown(page)).toEqual([4.4, 3.4, 2.8].map((value) => expect.closeTo(value, 1)));
  const fileNames = async () => (await documentOf(page.request, projectId)).model.map(({ body }) => body.fileName);
  await soon(fileNames).toEqual(['hut.zip']);
  // One part of it alone: the file that is missing is named, and the way out.
  const description = files.find(({ name }) => name.endsWith('.gltf'))!;
  await page.getByLabel('Model file').setInputFiles([description]);
  await expect(page.getByText(/hut\.gltf: its geometry is kept in another file, “hut.*\.bin”/)).toBeVisible();
});

test('cameras of a file become views with exact angles', async ({ page }) => {
  const projectId = await newProject(page, 'Cameras');
  const cameras = [{ name: 'From the door', yfov: 0.8, at: [0, 1.6, 4] as [number, number, number] }];
  await bringIn(page, { name: 'hut.glb', bytes: await hutGlb({ cameras, animation: true }) });
  await expect(page.getByRole('region', { name: 'Actions' })).toContainText('Lift the roof');
  await page.getByRole('button', { name: 'Keep as views' }).click();
  await saved(page);
  const { view } = await documentOf(page.request, projectId);
  expect(view).toHaveLength(1);
  expect(view[0]!.name).toBe('From the door');
  const { focalLengthMm } = view[0]!.body.lens;
  // 16 : 9 uses 36 × 20.25 mm of the sensor: f = 20.25 / (2 tan 0.4).
  expect(focalLengthMm).toBeCloseTo(20.25 / (2 * Math.tan(0.4)), 6);
});

test('a newer file keeps the place, the changed parts and everything drawn', async ({ page }) => {
  const projectId = await newProject(page, 'Newer file');
  await bringIn(page, { name: 'hut.glb', bytes: await hutGlb() });
  await page.getByLabel('East, m').fill('2');
  await page.getByLabel('East, m').press('Enter');
  await page.getByLabel('Search parts').fill('roof');
  await page.getByRole('treeitem', { name: 'Roof', exact: true }).click();
  await page.getByRole('button', { name: 'As clay' }).click();
  await saved(page);
  await page.getByLabel('Newer file of this model').setInputFiles({
    name: 'hut-2.glb',
    mimeType: 'model/gltf-binary',
    buffer: Buffer.from(await hutGlb({ animation: true })),
  });
  await expect(right(page).getByText(/hut-2\.glb/)).toBeVisible({ timeout: 30_000 });
  await saved(page);
  const { model } = await documentOf(page.request, projectId);
  expect(model).toHaveLength(1);
  expect(model[0]!.body.placement.position[0]).toBe(2);
  expect(model[0]!.body.parts).toEqual({ Roof: { clay: true } });
  // A file without the roof: its change is kept, and somebody says so.
  await page
    .getByLabel('Newer file of this model')
    .setInputFiles({ name: 'ball.ply', mimeType: 'application/octet-stream', buffer: Buffer.from(ply(true)) });
  await expect(page.getByRole('region', { name: 'Changes not found again' })).toContainText('Roof', {
    timeout: 30_000,
  });
});

test('broken files: each gets its message, nothing half-made remains, the server stays up', async ({ page }) => {
  test.setTimeout(240_000);
  const projectId = await newProject(page, 'Broken files');
  const files = (await brokenFiles()).filter(({ partly }) => !partly);
  expect(files.length).toBeGreaterThanOrEqual(25);
  for (const { name, bytes, says, what } of files) {
    await page
      .getByLabel('Model file')
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(bytes) });
    const alert = page.getByRole('alert');
    await expect(alert, what).toContainText(name, { timeout: 30_000 });
    await expect(alert, what).toContainText(says);
    await expect(alert).toContainText('Nothing was changed.');
    await alert.getByRole('button', { name: 'Understood' }).click();
    await expect(alert).toHaveCount(0);
  }
  expect((await documentOf(page.request, projectId)).model).toEqual([]);
  expect((await page.request.get('/api/health')).ok()).toBe(true);
  await bringIn(page, { name: 'hut.glb', bytes: await hutGlb() });
});
