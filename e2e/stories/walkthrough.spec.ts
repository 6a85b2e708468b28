import { walkOf } from '@eskovan/core/document';
import { DEMO_PROJECT } from '@eskovan/demo/seed';
import { expect, test, type Page } from '@playwright/test';
import { probe } from '../support/film.ts';
import { house } from '../support/house.ts';
import { apart } from '../support/pixels.ts';
import {
  choose,
  documentOf,
  newestTake,
  planPoint,
  pressPlan,
  saved,
  sharpPicture,
  soon,
  toViews,
} from '../support/studio.ts';
import { currentStrips } from '../support/walk.ts';

interface Walkthrough {
  projectId: string;
  /** What is walked through, as it is typed, and which of the answers is meant. */
  places: readonly (readonly [typed: string, option: RegExp, nth?: number])[];
  /** Something to look at during the first stay. */
  thing: string;
  /** How long it is to last, seconds. */
  seconds: number;
  /** Height of the eye over the floor at its end, metres. */
  seated: number;
}

/** The beginning of the newest move, as a draft. */
async function draft(page: Page, projectId: string): Promise<void> {
  await test.step('a draft of its beginning', async () => {
    await page.getByRole('link', { name: 'Renders' }).click();
    const row = (await documentOf(page.request, projectId)).move.at(-1)!;
    await page.getByRole('combobox', { name: 'What to render' }).click();
    await page
      .getByRole('option', { name: `Move: ${row.name}` })
      .last()
      .click();
    await choose(page, { Size: /320/, Quality: /Draft/ });
    const to = page.getByLabel('To, s');
    await to.fill('0.4s');
    await to.press('Enter');
    const takes = (await documentOf(page.request, projectId)).take.length;
    await page.getByRole('button', { name: 'Render film' }).click();
    const bytes = await newestTake(page.request, projectId, takes + 1);
    expect(probe(bytes)).toMatchObject({ codec: 'h264', width: 320, height: 180 });
  });
}

/** A whole walk by mouse: through places, with a stay and a look, in the time that is wanted, until every check is fine. */
async function walkThrough(page: Page, { projectId, places, thing, seconds, seated }: Walkthrough): Promise<number> {
  /** Presses, drags and fields that are filled: what a hand has to do. */
  let gestures = 0;
  const press = async (name: string | RegExp, within = page.locator('body')) => {
    gestures += 1;
    await within.getByRole('button', { name }).first().click();
  };
  const newest = async () => {
    await saved(page);
    const row = (await documentOf(page.request, projectId)).move.at(-1)!;
    return { row, walk: walkOf(row.body) };
  };
  const strips = page.getByTestId('strip-charts');
  const checks = page.getByRole('region', { name: 'Checks' });

  await test.step('the way is found', async () => {
    await press('Find the way');
    const dialog = page.getByRole('dialog');
    for (const [typed, option, nth = 0] of places) {
      await dialog.getByLabel('Room or view').fill(typed);
      await dialog.getByRole('option', { name: option }).nth(nth).click();
      gestures += 2;
    }
    await expect(dialog.getByRole('status')).toHaveText(/^[\d.]+ m, \d+ s, \d+ nodes\./, { timeout: 60_000 });
    await press('Make the walk', dialog);
    await expect(dialog).toBeHidden();
    await sharpPicture(page);
  });

  await test.step('it sits down at its end', async () => {
    const { walk } = await newest();
    const last = walk.tracks!.lift!.at(-1)!;
    expect(walk.eyeHeight + last.value).toBeCloseTo(seated, 1);
  });

  await test.step('looks at something during the stay', async () => {
    gestures += 1;
    const pause = (await (
      await currentStrips(page)
    )
      .getByRole('slider', { name: /^Pause/ })
      .first()
      .boundingBox())!;
    const ruler = (await strips.boundingBox())!;
    await page.mouse.click(pause.x, ruler.y + 12);
    await press('Look at something from here', page.getByRole('region', { name: 'Gaze' }));
    await page.getByLabel('Find an object').fill(thing);
    await page
      .getByRole('option', { name: new RegExp(thing) })
      .first()
      .click();
    gestures += 2;
    await soon(async () => (await newest()).walk.gazeSpans?.some(({ gaze }) => gaze.kind === 'object')).toBe(true);
  });

  await test.step('lasts as long as is wanted', async () => {
    const pace = page.getByRole('region', { name: 'Pace' });
    await pace.getByRole('radio', { name: 'By time' }).click();
    await pace.getByLabel('Takes').fill(`${seconds}s`);
    await pace.getByLabel('Takes').press('Enter');
    gestures += 2;
    await soon(async () => (await newest()).walk.pace.duration).toBe(seconds);
  });

  await test.step('every finding is mended by its fix, looked at before', async () => {
    const fine = checks.getByText('fine', { exact: true });
    await expect(checks.getByText(/^(fine|\d+ to look at)$/)).toBeVisible();
    for (let n = 0; n < 16; n += 1) {
      if (await fine.isVisible()) break;
      const fix = checks.getByRole('button', {
        name: /^(Slow down here|Turn more slowly|Lead it clear|More time|Hold the eye)$/,
      });
      const before = (await newest()).walk;
      // A newer answer may put another one under the hand, or say that nothing is left to mend.
      await expect(async () => {
        if (await fine.isVisible()) return;
        await page.mouse.move(640, 20);
        await fix.first().hover({ timeout: 2000 });
        await expect(page.getByText(/, as it would be$/)).toBeVisible({ timeout: 2000 });
      }).toPass({ timeout: 20_000 });
      if (await fine.isVisible()) break;
      // What is tried is not kept.
      expect((await newest()).walk).toEqual(before);
      await fix.first().click();
      gestures += 1;
      await page.mouse.move(640, 20);
      await soon(async () => (await newest()).walk).not.toEqual(before);
      await expect(checks.getByText('looking', { exact: true })).toHaveCount(0);
      await expect(checks.getByText(/^(fine|\d+ to look at)$/)).toBeVisible();
    }
    await expect(fine).toBeVisible();
  });

  await test.step('which rooms it shows', async () => {
    await expect(page.getByRole('region', { name: 'What it shows' })).toContainText(/[1-9]\d* of \d+ rooms/);
  });

  await test.step('plays', async () => {
    gestures += 1;
    await page.keyboard.press('Space');
    await soon(async () => Number(await page.getByTestId('where').getAttribute('data-frame'))).toBeGreaterThan(30);
    await page.keyboard.press('Space');
  });

  return gestures;
}

test('a whole walk on the demo: from the marsh through the hall upstairs to the bench', async ({ page }) => {
  test.setTimeout(400_000);
  await page.goto(`/project/${DEMO_PROJECT}/moves`);
  await sharpPicture(page);
  const gestures = await walkThrough(page, {
    projectId: DEMO_PROJECT,
    places: [
      ['Arrival from the marsh', /View/],
      ['Hall', /Hall.*Room/],
      ['Deck bench', /View/],
    ],
    // What stands behind others would be hidden.
    thing: 'Reception',
    seconds: 68,
    seated: 1.2,
  });
  await draft(page, DEMO_PROJECT);
  test.info().annotations.push({ type: 'gestures', description: String(gestures) });
  // Three minutes at four seconds a gesture.
  expect(gestures).toBeLessThan(45);
});

test('the same in a house that nobody here drew', async ({ page }) => {
  test.setTimeout(400_000);
  const projectId = await house(page, 'Walked through');
  await toViews(page);
  const shelf = page.getByRole('complementary', { name: 'Views' });
  for (const [i, [x, z]] of (
    [
      [2.5, 4.6],
      [8.6, 1.5],
    ] as const
  ).entries()) {
    await pressPlan(page, x, z);
    await expect(page.getByText(/^Scouting .* m away/)).toBeVisible();
    if (i === 1) {
      const height = page.getByRole('region', { name: 'Pose' }).getByLabel('Height');
      // Three steps up.
      await expect(height).toHaveValue(/^2\.0/);
      await height.fill('1.68');
      await height.press('Enter');
    }
    await shelf.getByRole('button', { name: 'Keep view' }).click();
    await expect(shelf.locator('[data-row]')).toHaveCount(i + 1);
  }
  await page.getByRole('link', { name: 'Moves' }).click();
  await test.step('a hand that draws is drawn to the middle of the doorway, and square to the last leg', async () => {
    await page.getByRole('button', { name: 'New walk' }).click();
    await pressPlan(page, 2.5, 2.9);
    const door = await planPoint(page, 5.06, 2.8);
    await page.mouse.move(door.x, door.y);
    await expect(page.getByTestId('snapped')).toHaveText('middle of 1.00 m');
    await expect(page.getByTestId('length-here')).toHaveText(/^2\.5\d m, 2\.6 m in all$/);
    await page.mouse.click(door.x, door.y);
    await pressPlan(page, 5.5, 4.6);
    await page.keyboard.press('Enter');
    await saved(page);
    const { nodes } = walkOf((await documentOf(page.request, projectId)).move[0]!.body).path;
    expect(nodes[1]!.z).toBeCloseTo(2.9, 3);
    expect(nodes[1]!.x).toBeCloseTo(5.06, 1);
  });
  await test.step('somebody walks along for scale, and goes again', async () => {
    await sharpPicture(page);
    const frame = page.getByTestId('frame').first();
    const alone = await frame.screenshot();
    const different = async () => apart(alone, await frame.screenshot(), 24).off;
    const company = page.getByRole('button', { name: 'Somebody walks along' });
    await company.click();
    await soon(different).toBeGreaterThan(0.003);
    await company.click();
    await soon(different).toBeLessThan(0.0005);
  });
  const strips = page.getByTestId('strip-charts');
  const firstWalk = async () => {
    await saved(page);
    return walkOf((await documentOf(page.request, projectId)).move[0]!.body);
  };
  await test.step('looked elsewhere while it stands: held on the strip, through scrubbing and a reload, until it is kept', async () => {
    await sharpPicture(page);
    const frame = (await page.getByTestId('frame').first().boundingBox())!;
    await page.getByRole('slider', { name: 'Time' }).focus();
    await page.keyboard.press('PageDown');
    await page.mouse.move(frame.x + frame.width / 2, frame.y + frame.height / 2);
    await page.mouse.down();
    await page.mouse.move(frame.x + frame.width / 2 + 90, frame.y + frame.height / 2, { steps: 4 });
    await page.mouse.up();
    await expect(page.getByText(/^Scouting/)).toBeVisible();
    await page.getByRole('slider', { name: 'Time' }).focus();
    await page.keyboard.press('PageDown');
    const held = strips.getByRole('button', { name: /^Unkept look at 1\.00 s/ });
    await expect(held).toBeVisible();
    await expect(page.getByText(/^Scouting/)).toBeHidden();
    await page.reload();
    await sharpPicture(page);
    await held.click();
    await expect(page.getByText(/^Scouting/)).toBeVisible();
    await page.getByRole('button', { name: 'Keep as gaze' }).click();
    await expect(held).toHaveCount(0);
    await soon(async () => (await firstWalk()).gazeSpans?.length).toBe(1);
  });
  await test.step('the eye line is pulled up; the strips run by station and are looked at closer', async () => {
    const box = (await (await currentStrips(page)).boundingBox())!;
    const line = (await page.getByTestId('eye-line').boundingBox())!;
    await page.mouse.move(box.x + 0.5 * box.width, line.y + line.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + 0.5 * box.width, line.y + line.height / 2 - 12, { steps: 3 });
    await page.mouse.up();
    const lifts = async () => (await firstWalk()).tracks?.lift?.map(({ value }) => value) ?? [];
    await soon(async () => Math.max(0, ...(await lifts()))).toBeGreaterThan(0.1);
    expect((await lifts()).filter((value) => value === 0)).toHaveLength(2);
    await strips.getByRole('button', { name: 'Time', exact: true }).click();
    await expect(strips.getByRole('button', { name: 'Station' })).toBeVisible();
    await page.mouse.move(box.x + 0.6 * box.width, box.y + box.height / 2);
    await page.mouse.wheel(0, -200);
    await strips.getByRole('button', { name: 'All' }).click();
    await strips.getByRole('button', { name: 'Station' }).click();
  });
  await test.step('a live walk by the simulated handheld becomes an ordinary walk, without its shaking', async () => {
    await page.getByRole('button', { name: 'Record a walk' }).click();
    await expect(page.getByText(/^Recording/)).toBeVisible();
    await page.getByRole('button', { name: 'Simulate a handheld' }).click();
    await expect(page.getByText(/^Recording ([3-9]|\d\d+) s by simulated handheld/)).toBeVisible();
    await page.getByRole('button', { name: 'Keep as a walk' }).click();
    await expect(page.getByText(/^Recording/)).toBeHidden();
    const rows = page.getByRole('complementary', { name: 'Moves' }).locator('[data-row]');
    await expect(rows).toHaveCount(2);
    await saved(page);
    const live = walkOf((await documentOf(page.request, projectId)).move.at(-1)!.body);
    expect(live.gaze.kind).toBe('recorded');
    expect(live.path.nodes.length).toBeGreaterThan(1);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(rows).toHaveCount(1);
  });
  await test.step('split at a node, and joined again', async () => {
    const before = (await firstWalk()).path.nodes;
    await page.locator('[data-node="1"]').click();
    await page.getByRole('button', { name: 'Split here' }).click();
    const rows = page.getByRole('complementary', { name: 'Moves' }).locator('[data-row]');
    await expect(rows).toHaveCount(2);
    await soon(async () => (await firstWalk()).path.nodes.length).toBe(2);
    await page.getByRole('button', { name: 'Join with next' }).click();
    await expect(rows).toHaveCount(1);
    expect((await firstWalk()).path.nodes).toEqual(before);
  });
  await test.step('a file that is no drawing is said; a line of a table becomes a walk', async () => {
    await page.getByRole('button', { name: 'From a file' }).click();
    const dialog = page.getByRole('dialog');
    const give = (name: string, text: string) =>
      dialog.getByLabel('File of lines').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
    await give('way.dxf', 'no drawing');
    await expect(dialog.getByRole('alert')).toContainText(/way\.dxf: it/);
    await give('way.csv', 'x,z\n1.5,4.6\n3.5,4.6\n3.5,2.6\n');
    await expect(dialog.getByLabel('Its length')).toHaveValue('4.00');
    await dialog.getByRole('button', { name: 'Make the walk' }).click();
    await saved(page);
    const { nodes } = walkOf((await documentOf(page.request, projectId)).move.at(-1)!.body).path;
    expect(nodes.map(({ x, z, kind, surface }) => ({ x, z, kind, surface }))).toEqual([
      { x: 1.5, z: 4.6, kind: 'smooth', surface: true },
      { x: 3.5, z: 4.6, kind: 'corner', surface: true },
      { x: 3.5, z: 2.6, kind: 'smooth', surface: true },
    ]);
  });
  await walkThrough(page, {
    projectId,
    places: [
      ['View', /View$/, 0],
      ['View', /View$/, 1],
    ],
    thing: 'Table',
    seconds: 20,
    seated: 1.2,
  });
});
