import { COMMISSION_MODELS, modelGlb } from '@eskovan/demo';
import type { Orbit } from '@eskovan/core/document';
import { expect, test, type Page } from '@playwright/test';
import { frameOf, probe } from '../support/film.ts';
import { countGestures } from '../support/gestures.ts';
import { apart } from '../support/pixels.ts';
import {
  bringIn,
  choose,
  documentOf,
  litScene,
  newestTake,
  newProject,
  saved,
  sharpPicture,
  soon,
} from '../support/studio.ts';
import { currentStrips } from '../support/walk.ts';

async function enter(page: Page, label: string, text: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  await field.press('Enter');
}

/** The pixels of the picture at a time of the move. */
async function pictureAt(page: Page, key: 'Home' | 'End'): Promise<Buffer> {
  await page.getByRole('slider', { name: 'Time' }).focus();
  await page.keyboard.press(key);
  await page.mouse.move(0, 0);
  await sharpPicture(page);
  return page.getByTestId('picture-canvas').first().screenshot();
}

/** How two pictures differ in the middle, where the subject is: the part of pixels that differ by over a tenth, and the mean. */
const compared = (a: Buffer, b: Buffer) => apart(a, b, 25, { width: 0.3, height: 0.5 });

test('a turntable of five seconds with a lens from 50 to 100 mm, made by hand, closes and repeats no frame', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const projectId = await newProject(page, 'Turntable');
  const scope = COMMISSION_MODELS.find(({ key }) => key === 'scope')!;
  await bringIn(page, { name: 'scope.glb', bytes: await modelGlb(scope) });
  const orbit = async () => (await documentOf(page.request, projectId)).move[0]!.body as Orbit;
  const gestures = await countGestures(page);
  const draft = { Size: /320/, Quality: /Draft/, 'Shutter open': /An instant/ };
  /** A finished frame of the camera that goes round, two seconds from the beginning. */
  let round: Buffer = Buffer.alloc(0);

  await test.step('round the whole model, found by a part of it', async () => {
    await page.getByRole('link', { name: 'Moves' }).click();
    await page.getByRole('button', { name: 'Other move' }).click();
    await page.getByRole('menuitem', { name: /^Orbit/ }).click();
    await expect(page.getByText('Press what the camera is to go round')).toBeVisible();
    await page.getByLabel('Find an object').fill('tube');
    await page.getByRole('option', { name: /Tube/ }).click();
    await page.getByRole('radio', { name: 'Its model' }).click();
    await enter(page, 'Takes, s', '5');
    await saved(page);
    expect(await orbit()).toMatchObject({
      pivot: { kind: 'object', whole: true },
      distance: { by: 'fit' },
      duration: 5,
      sweep: expect.closeTo(2 * Math.PI, 9) as unknown,
    });
    await expect(page.getByTestId('path')).toBeVisible();
    await expect(page.getByRole('region', { name: 'Checks' })).toContainText('72° a second');
  });

  await test.step('a lens that goes from 50 to 100 mm, by keys in the strip', async () => {
    await enter(page, 'Focal length, mm', '50');
    await page.getByRole('button', { name: 'Change it over time' }).click();
    await expect(page.getByRole('slider', { name: 'Lens key 1' })).toBeVisible();
    const strips = (await (await currentStrips(page)).boundingBox())!;
    // Half-way along the lower of two strips.
    await page.mouse.dblclick(strips.x + 108 + (strips.width - 126) / 2, strips.y + strips.height - 30);
    const key = page.getByRole('slider', { name: 'Lens key 2' });
    await key.focus();
    for (let i = 0; i < 5; i += 1) await page.keyboard.press('Shift+ArrowUp');
    await expect(key).toHaveAttribute('aria-valuetext', /^100 mm at 00:00:02:1[23]$/);
    await saved(page);
    expect((await orbit()).tracks!.focalLength!.map(({ value }) => value)).toEqual([50, 100]);
    const count = await gestures();
    test.info().annotations.push({ type: 'gestures', description: String(count) });
    // Thirty seconds of a practised hand: presses and short numbers, two seconds and a bit each.
    expect(count).toBeGreaterThan(8);
    expect(count).toBeLessThanOrEqual(13);
  });

  await test.step('the subject turned instead of the camera gives the same picture of it', async () => {
    const half = async () => {
      await page.getByRole('slider', { name: 'Time' }).focus();
      await page.keyboard.press('Home');
      for (let i = 0; i < 2; i += 1) await page.keyboard.press('PageDown');
      await page.mouse.move(0, 0);
      await sharpPicture(page);
      return page.getByTestId('frame').first().screenshot();
    };
    // Until then there is no light that could turn along or stand.
    await litScene(page.request, projectId);
    const gone = await half();
    await page.getByRole('radio', { name: 'The subject' }).click();
    await soon(async () => (await orbit()).turns).toBe('subject');
    await expect(page.getByRole('button', { name: /^End of the orbit/ })).toBeHidden();
    const turned = await half();
    const { off, mean } = compared(gone, turned);
    // Edges fall on other parts of pixels; the ground, its shadow and the sky behind it do not turn.
    expect(off).toBeLessThan(0.01);
    expect(mean).toBeLessThan(2);
    // Lit where it stands it turns another side to the sun.
    await page.getByRole('radio', { name: 'Stands' }).click();
    await soon(async () => (await orbit()).lightStands).toBe(true);
    const stands = compared(gone, await half());
    expect(stands.mean).toBeGreaterThan(2 * mean);
    await page.getByRole('radio', { name: 'Turns along' }).click();
    await page.getByRole('radio', { name: 'The camera' }).click();
    await soon(async () => (await orbit()).turns).toBeUndefined();
  });

  await test.step('its end is its beginning', async () => {
    const [first, last] = [await pictureAt(page, 'Home'), await pictureAt(page, 'End')];
    expect(first.equals(last)).toBe(true);
  });

  await test.step('the film has 125 frames, and the last one is not the first', async () => {
    await page.getByRole('link', { name: 'Renders' }).click();
    await choose(page, draft);
    await expect(page.getByText('320 × 180, 125 frames at 25')).toBeVisible();
    await page.getByRole('button', { name: 'Render film' }).click();
    const bytes = await newestTake(page.request, projectId, 1);
    expect(probe(bytes)).toEqual({ codec: 'h264', frames: 125, rate: '25/1', width: 320, height: 180 });
    round = frameOf(bytes, 50);
    const [first, second, last] = [0, 1, 124].map((i) => frameOf(bytes, i)) as [Buffer, Buffer, Buffer];
    const [step, seam] = [compared(first, second).mean, compared(last, first).mean];
    test.info().annotations.push({ type: 'step and seam', description: JSON.stringify([step, seam]) });
    // Over the seam it goes on as it does within: neither still nor with a jump.
    expect(seam).toBeGreaterThan(0.4 * step);
    expect(seam).toBeLessThan(2.5 * step);
  });

  await test.step('a client sees it by link', async () => {
    await page.getByRole('link', { name: 'Review' }).click();
    await page.getByRole('button', { name: 'Make link' }).click();
    await saved(page);
    const client = await page.context().newPage();
    await client.goto((await page.getByTestId('link-address').first().textContent())!);
    const video = client.locator('video');
    await soon(() => video.evaluate((element: HTMLVideoElement) => element.duration)).toBeCloseTo(5, 2);
    await client.close();
  });

  await test.step('a finished frame of the subject turned is that of the camera gone round; lit where it stands it is another', async () => {
    const found: ReturnType<typeof compared>[] = [];
    for (const [light, films] of [
      ['Turns along', 2],
      ['Stands', 3],
    ] as const) {
      await page.getByRole('link', { name: 'Moves' }).click();
      await page.getByRole('radio', { name: 'The subject' }).click();
      await page.getByRole('radio', { name: light }).click();
      await saved(page);
      await page.getByRole('link', { name: 'Renders' }).click();
      await choose(page, draft);
      await enter(page, 'From, s', '2');
      await enter(page, 'To, s', '2.04');
      await page.getByRole('button', { name: 'Render film' }).click();
      found.push(compared(round, frameOf(await newestTake(page.request, projectId, films), 0)));
    }
    test.info().annotations.push({ type: 'finished frames apart', description: JSON.stringify(found) });
    const [along, stands] = found as [(typeof found)[0], (typeof found)[0]];
    expect(along.mean).toBeLessThan(2);
    expect(stands.off).toBeGreaterThan(3 * along.off);
  });
});
