import type { Orbit } from '@eskovan/core/document';
import { expect, test, type Page } from '@playwright/test';
import { editElsewhere } from '../support/edits.ts';
import { difference, greyFrames, probe, SMALL } from '../support/film.ts';
import { house } from '../support/house.ts';
import { choose, documentOf, litScene, pictureStatistics, sharpPicture, soon } from '../support/studio.ts';

/** Round the house from outside, two seconds. */
const ORBIT: Orbit = {
  kind: 'orbit',
  pivot: { kind: 'point', point: [5, 1.2, 2.5] },
  start: 0.4,
  sweep: 2 * Math.PI,
  inclination: 0.3,
  distance: { by: 'radius', radius: 14 },
  duration: 2,
  shape: 'constant',
  lens: { focalLengthMm: 28, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] },
};

/** Ends the process that draws for all pages, as a driver does that starts again. */
async function loseGraphics(page: Page): Promise<void> {
  const session = await page.context().browser()!.newBrowserCDPSession();
  await session.send('Browser.crashGpuProcess');
  await session.detach();
}

/** How dark the ink of the plan is: nothing drawn is one colour. */
const inkOfPlan = (page: Page) =>
  page.getByTestId('plan-lines').evaluate((canvas: HTMLCanvasElement) => {
    const copy = new OffscreenCanvas(canvas.width, canvas.height);
    const context = copy.getContext('2d')!;
    context.drawImage(canvas, 0, 0);
    const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
    let drawn = 0;
    for (let i = 3; i < data.length; i += 4) if (data[i]! > 200) drawn += 1;
    return drawn;
  });

/** Is a film being made? What it has written goes with its worker. */
async function isFilming(page: Page): Promise<boolean> {
  // One that goes meanwhile has no name any more.
  const names = page.workers().map((worker) => worker.evaluate(() => self.name).catch(() => ''));
  return (await Promise.all(names)).includes('film');
}

async function orderFilm(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Renders' }).click();
  await choose(page, { Size: /320/, Quality: /Draft/ });
  const button = page.getByRole('button', { name: 'Render film' });
  await expect(button).toBeEnabled({ timeout: 60_000 });
  await button.click();
  await expect(page.getByRole('progressbar', { name: /^Rendering/ })).toHaveAttribute(
    'aria-valuenow',
    /^([5-9]|\d\d)/,
    {
      timeout: 60_000,
    },
  );
}

/** The largest step from one pixel to the next in a row of a small grey frame. */
const steepest = (frame: Buffer): number =>
  frame.reduce((most, value, i) => (i % SMALL.width === 0 ? most : Math.max(most, Math.abs(value - frame[i - 1]!))), 0);

test('a graphics card that is taken away and comes back costs nothing: not the picture, not the plan, not a film', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const projectId = await house(page, 'Graphics');
  await editElsewhere(page.request, projectId, 'An orbit', [
    { op: 'make', kind: 'move', id: crypto.randomUUID(), name: 'Round it', order: 1, body: ORBIT },
  ]);
  // All of its light is there: a picture that gets lighter by itself tells nothing.
  await litScene(page.request, projectId);
  await page.getByRole('link', { name: 'Moves' }).click();
  await page.reload();

  await test.step('what is shown stays', async () => {
    const picture = await sharpPicture(page);
    const [before, ink] = [await pictureStatistics(page), await inkOfPlan(page)];
    expect(before.spread).toBeGreaterThan(10);
    expect(ink).toBeGreaterThan(500);
    const drawn = Number(await picture.getAttribute('data-pictures'));
    await loseGraphics(page);
    await soon(async () => Number(await picture.getAttribute('data-pictures'))).toBeGreaterThan(drawn);
    await sharpPicture(page);
    await soon(() => inkOfPlan(page)).toBeGreaterThan(0.9 * ink);
    const change = async () => {
      const after = await pictureStatistics(page);
      return Math.abs(after.mean - before.mean) + Math.abs(after.spread - before.spread);
    };
    await soon(change).toBeLessThan(1);
  });

  await test.step('a film has all of its frames, and none is empty', async () => {
    await orderFilm(page);
    expect(await isFilming(page)).toBe(true);
    await loseGraphics(page);
    const take = async () => (await documentOf(page.request, projectId)).take[0];
    await soon(take, { timeout: 90_000 }).toBeTruthy();
    const { file, poster } = (await take())!.body;
    const bytesOf = async (sha256: string) => (await page.request.get(`/api/files/${sha256}`)).body();
    const bytes = await bytesOf(file.sha256);
    expect(probe(bytes)).toEqual({ codec: 'h264', frames: 50, rate: '25/1', width: 320, height: 180 });
    const frames = greyFrames(bytes);
    // What stands for it is a frame a third into it.
    const [shown] = greyFrames(await bytesOf(poster!.sha256));
    const off = frames.map((frame) => difference(frame, shown!));
    expect(off.indexOf(Math.min(...off))).toBe(16);
    for (const frame of frames) {
      const mean = frame.reduce((sum, value) => sum + value, 0) / frame.length;
      // Neither empty nor burnt out.
      expect(mean).toBeGreaterThan(60);
      expect(mean).toBeLessThan(220);
      expect(Math.max(...frame) - Math.min(...frame)).toBeGreaterThan(40);
      // A sky and its ground go over into each other; what stands in them has edges.
      expect(steepest(frame)).toBeGreaterThan(12);
    }
    // Players can begin with its first bytes.
    expect(bytes.indexOf('moov')).toBeLessThan(bytes.indexOf('mdat'));
    await soon(() => isFilming(page)).toBe(false);
  });

  await test.step('and one that is cancelled ends at once and leaves nothing', async () => {
    await orderFilm(page);
    await page.getByRole('button', { name: /^Cancel/ }).click();
    await expect(page.getByRole('progressbar', { name: /^Rendering/ })).toHaveCount(0, { timeout: 1000 });
    await soon(() => isFilming(page)).toBe(false);
    expect((await documentOf(page.request, projectId)).take).toHaveLength(1);
  });
});
