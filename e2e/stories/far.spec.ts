import { expect, test, type Page } from '@playwright/test';
import { foreignModel } from '../support/foreign-model.ts';
import { apart } from '../support/pixels.ts';
import { bringIn, litScene, newProject, sharpPicture, siteOf } from '../support/studio.ts';

/** A small house as text, all of its corners moved: 64-bit numbers, as surveyors write them. */
function houseObj([dx, dy, dz]: readonly [number, number, number]): Uint8Array {
  const boxes: [string, number[]][] = [
    ['Floor', [0, -0.2, 0, 8, 0, 5]],
    ['Roof', [-0.3, 2.7, -0.3, 8.3, 2.9, 5.3]],
    ['North wall', [0, 0, 0, 8, 2.7, 0.2]],
    ['East wall', [7.8, 0, 0.2, 8, 2.7, 5]],
    ['West wall', [0, 0, 0.2, 0.2, 2.7, 5]],
    ['South wall', [0.2, 0, 4.8, 5, 2.7, 5]],
  ];
  const lines: string[] = [];
  boxes.forEach(([name, [x0, y0, z0, x1, y1, z1]], i) => {
    lines.push(`o ${name}`);
    for (const y of [y0!, y1!])
      for (const [x, z] of [
        [x0!, z0!],
        [x1!, z0!],
        [x1!, z1!],
        [x0!, z1!],
      ] as const)
        lines.push(`v ${(x + dx).toFixed(4)} ${(y + dy).toFixed(4)} ${(z + dz).toFixed(4)}`);
    for (const face of [
      [1, 2, 3, 4],
      [8, 7, 6, 5],
      [2, 1, 5, 6],
      [3, 2, 6, 7],
      [4, 3, 7, 8],
      [1, 4, 8, 5],
    ])
      lines.push(`f ${face.map((k) => k + 8 * i).join(' ')}`);
  });
  return new TextEncoder().encode(lines.join('\n'));
}

const FAR = [500_000, 120, -300_000] as const;

/** The picture of a model as it first shows, lit and sharp, and the areas that were measured. */
async function seen(page: Page, name: string, bytes: Uint8Array): Promise<{ picture: Buffer; areas: number[] }> {
  const projectId = await newProject(page, `Seen ${name}`);
  await bringIn(page, { name, bytes });
  await expect(page.getByRole('heading', { name: 'Storeys' })).toBeVisible();
  await litScene(page.request, projectId);
  await page.reload();
  await sharpPicture(page);
  const { storeys } = await siteOf(page.request, projectId);
  const picture = await page.getByTestId('frame').first().screenshot();
  return { picture, areas: storeys.map(({ area }) => area) };
}

/** A pixel that differs by more than this is another one, steps of 255. */
const SAME = 10;

/** Areas are counted in points: a tenth of a millimetre more or less moves one of them over an edge. */
const same = (areas: readonly number[]) => areas.map((area) => expect.closeTo(area, 1) as unknown);

test('the same house at the origin and five hundred kilometres away, in its corners or in a node, is the same picture', async ({
  page,
}) => {
  test.setTimeout(200_000);
  const near = await seen(page, 'near.obj', houseObj([0, 0, 0]));
  const far = await seen(page, 'far.obj', houseObj(FAR));
  expect(far.areas).toEqual(same(near.areas));
  const corners = apart(near.picture, far.picture, SAME);
  expect(corners.mean).toBeLessThan(0.5);
  expect(corners.off).toBeLessThan(0.002);
  const [home, away] = [
    await seen(page, 'home.glb', await foreignModel()),
    await seen(page, 'away.glb', await foreignModel([...FAR])),
  ];
  expect(away.areas).toEqual(same(home.areas));
  const node = apart(home.picture, away.picture, SAME);
  expect(node.mean).toBeLessThan(0.5);
  expect(node.off).toBeLessThan(0.002);
  // Two different houses are told apart by the same measure.
  expect(apart(near.picture, home.picture, SAME).off).toBeGreaterThan(0.05);
});
