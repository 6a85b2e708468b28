import { walkOf, type Walk } from '@eskovan/core/document';
import { expect, test, type Page } from '@playwright/test';
import { hutGlb, type BoxPart } from '../../core/src/format/files.fixture.ts';
import { house } from '../support/house.ts';
import {
  bringIn,
  documentOf,
  newerFile,
  newProject,
  pressPlan,
  saved,
  sharpPicture,
  soon,
  toViews,
} from '../support/studio.ts';
import { currentStrips } from '../support/walk.ts';

const pace = (page: Page) => page.getByRole('region', { name: 'Pace' });
const gaze = (page: Page) => page.getByRole('region', { name: 'Gaze' });
const strips = (page: Page) => page.getByTestId('strip-charts');

/** Goes to a part of the move by pressing on the ruler of the strips. */
async function goTo(page: Page, part: number): Promise<void> {
  const box = (await (await currentStrips(page)).boundingBox())!;
  const [labels, right] = [108, 18];
  await page.mouse.click(box.x + labels + part * (box.width - labels - right), box.y + 12);
}

/** Keeps views of somebody who stands at these places. */
async function standAt(page: Page, places: readonly (readonly [x: number, z: number])[]): Promise<void> {
  await toViews(page);
  const shelf = page.getByRole('complementary', { name: 'Views' });
  for (const [i, [x, z]] of places.entries()) {
    await pressPlan(page, x, z);
    await expect(page.getByText(/^Scouting .* m away/)).toBeVisible();
    await shelf.getByRole('button', { name: 'Keep view' }).click();
    await expect(shelf.locator('[data-row]')).toHaveCount(i + 1);
  }
}

/** Adds the views to the way, in their order. */
async function throughViews(page: Page, count: number): Promise<void> {
  const dialog = page.getByRole('dialog');
  for (let i = 0; i < count; i += 1) {
    await dialog.getByLabel('Room or view').fill('View');
    await dialog.getByRole('option', { name: /View$/ }).nth(i).click();
  }
}

async function dragBy(page: Page, name: RegExp, dx: number, dy: number, at = 0.5): Promise<void> {
  const box = (await (await currentStrips(page)).getByRole('slider', { name }).first().boundingBox())!;
  const [x, y] = [box.x + at * box.width, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx / 2, y + dy / 2);
  await page.mouse.move(x + dx, y + dy);
  await page.mouse.up();
}

test('a way through rooms is found, stays and looks where it should, and is shaped on its strips', async ({ page }) => {
  test.setTimeout(300_000);
  const projectId = await house(page, 'Found on foot');
  const walk = async (): Promise<Walk> => {
    await saved(page);
    const { move } = await documentOf(page.request, projectId);
    return walkOf(move[0]!.body);
  };
  await standAt(page, [
    [2.5, 4.6],
    [8.6, 1.5],
  ]);
  await page.getByRole('link', { name: 'Moves' }).click();

  await test.step('an unknown place is said; two places make a way over the steps', async () => {
    await page.getByRole('button', { name: 'Find the way' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('button', { name: 'Make the walk' })).toBeDisabled();
    await dialog.getByLabel('Room or view').fill('Ballroom');
    await expect(dialog.getByText('No room and no view is called that.')).toBeVisible();
    await throughViews(page, 2);
    await expect(dialog.getByRole('status')).toHaveText(/^[\d.]+ m, \d+ s, \d+ nodes\.$/, { timeout: 60_000 });
    await dialog.getByRole('button', { name: 'Make the walk' }).click();
    await expect(dialog).toBeHidden();
    await expect(page.getByTestId('path')).toBeVisible();
    const { path, pace: made } = await walk();
    expect(path.nodes.length).toBeGreaterThan(2);
    // The second one stands on a platform, three steps of 160 mm up.
    expect(Math.abs(path.nodes.at(-1)!.y - path.nodes[0]!.y)).toBeCloseTo(0.48, 2);
    expect(made.pauses).toHaveLength(1);
    // Nothing is in the way, and there is floor all along.
    const checks = page.getByRole('region', { name: 'Checks' });
    await expect(checks).toBeVisible();
    await expect(checks.getByRole('img', { name: 'Problem' })).toHaveCount(0);
  });

  await test.step('a pause: put, moved, made longer, by mouse, in numbers and by keys', async () => {
    await goTo(page, 0.35);
    await pace(page).getByRole('button', { name: 'Pause here' }).click();
    await expect(strips(page).getByRole('slider', { name: /^Pause/ })).toHaveCount(2);
    const before = (await walk()).pace.pauses!.at(-1)!;
    await dragBy(page, /^Pause/, 60, 0);
    await soon(async () => (await walk()).pace.pauses!.at(-1)!.anchor).not.toEqual(before.anchor);
    expect((await walk()).pace.pauses!.at(-1)!.seconds).toBe(before.seconds);
    await pace(page)
      .getByLabel(/^Pause at/)
      .first()
      .fill('5s');
    await pace(page)
      .getByLabel(/^Pause at/)
      .first()
      .press('Enter');
    await soon(async () => (await walk()).pace.pauses!.map(({ seconds }) => seconds).sort()).toEqual([3, 5]);
    await strips(page)
      .getByRole('slider', { name: /^Pause, 5\.0 s/ })
      .focus();
    await page.keyboard.press('Delete');
    await soon(async () => (await walk()).pace.pauses?.length).toBe(1);
    await page.getByRole('button', { name: 'Undo' }).click();
    await soon(async () => (await walk()).pace.pauses?.length).toBe(2);
  });

  await test.step('slower at a place; the time of another place is pinned', async () => {
    await goTo(page, 0.7);
    await pace(page).getByRole('button', { name: 'Slower here' }).click();
    await soon(async () => (await walk()).pace.marks?.length).toBe(1);
    const slow = (await walk()).pace.marks![0]!;
    await dragBy(page, /^(Slow|Quick)/, 0, 8);
    await soon(async () => (await walk()).pace.marks![0]!.speed).toBeLessThan(slow.speed);
    expect((await walk()).pace.marks![0]!.length).toBe(slow.length);
    const late = page.getByRole('slider', { name: 'Time' });
    const duration = Number(await late.getAttribute('aria-valuemax'));
    await goTo(page, 0.9);
    await pace(page).getByRole('button', { name: 'Pin this time' }).click();
    const field = pace(page).getByLabel(/^Pin at/);
    const pinned = Number(await field.inputValue());
    await field.fill(String(pinned + 4));
    await field.press('Enter');
    await expect(field).toHaveValue((pinned + 4).toFixed(2));
    await soon(async () => Number(await late.getAttribute('aria-valuemax'))).toBeGreaterThan(duration + 3);
  });

  await test.step('looks at something for a while; what was looked at by hand is kept as gaze', async () => {
    await goTo(page, 0.1);
    await sharpPicture(page);
    await gaze(page).getByRole('button', { name: 'Look at something from here' }).click();
    await page.getByLabel('Find an object').fill('Table');
    await page.getByRole('option', { name: /Table/ }).first().click();
    await expect(gaze(page).getByRole('list', { name: 'Looks for a while' })).toContainText('Table');
    await goTo(page, 0.95);
    await sharpPicture(page);
    const frame = (await page.getByTestId('frame').first().boundingBox())!;
    await page.mouse.move(frame.x + frame.width / 2, frame.y + frame.height / 2);
    await page.mouse.down();
    await page.mouse.move(frame.x + frame.width / 2 + 60, frame.y + frame.height / 2, { steps: 4 });
    await page.mouse.up();
    await page.getByRole('button', { name: 'Keep as gaze' }).click();
    await expect(page.getByText(/^Scouting/)).toBeHidden();
    const kinds = async () => (await walk()).gazeSpans?.map((span) => span.gaze.kind);
    // The first one is where the view looks that the way ends at.
    await soon(kinds).toEqual(['bearing', 'object', 'bearing']);
    const { gazeSpans } = await walk();
    await dragBy(page, /^Table/, 30, 0);
    await soon(async () => (await walk()).gazeSpans![1]!.from).not.toEqual(gazeSpans![1]!.from);
  });

  await test.step('lifted by a key; the keys show in strips of their own', async () => {
    await goTo(page, 0.5);
    const over = page.getByRole('region', { name: 'Over time' });
    await over.getByRole('button', { name: /^Lift/ }).click();
    const key = strips(page).getByRole('slider', { name: 'Section key 1' });
    await key.focus();
    for (let n = 0; n < 4; n += 1) await page.keyboard.press('ArrowUp');
    await soon(async () => (await walk()).tracks?.lift?.[0]?.value).toBeCloseTo(0.2, 6);
    await over.getByRole('button', { name: /^Roll/ }).click();
    await expect(strips(page).getByRole('slider', { name: 'Roll key 1' })).toBeVisible();
  });

  await test.step('all of it is there after a reload, and moves along with its path', async () => {
    const kept = await walk();
    await page.reload();
    await sharpPicture(page);
    expect(await walk()).toEqual(kept);
    await expect(strips(page).getByRole('slider', { name: /^Pause/ })).toHaveCount(2);
  });
});

test('where there is no way, it says between which places', async ({ page }) => {
  test.setTimeout(200_000);
  await house(page, 'No way');
  await standAt(page, [[2.5, 4.6]]);
  // On the roof stands nobody who came on foot.
  const height = page.getByRole('region', { name: 'Pose' }).getByLabel('Height');
  await height.fill('4.8');
  await height.press('Enter');
  const shelf = page.getByRole('complementary', { name: 'Views' });
  await shelf.getByRole('button', { name: 'Keep view' }).click();
  await expect(shelf.locator('[data-row]')).toHaveCount(2);
  await page.getByRole('link', { name: 'Moves' }).click();
  await page.getByRole('button', { name: 'Find the way' }).click();
  const dialog = page.getByRole('dialog');
  await throughViews(page, 2);
  await expect(dialog.getByRole('status')).toContainText(/There is no way from .*: no floor leads there/, {
    timeout: 60_000,
  });
  await expect(dialog.getByRole('button', { name: 'Make the walk' })).toBeDisabled();
});

/** A hall of 10 × 8 m about the origin, parted by a wall along z that has openings of a metre. */
function partedHall(openings: readonly number[]): BoxPart[] {
  const edges = [-4, ...openings.flatMap((z) => [z - 0.5, z + 0.5]), 4];
  const pieces = Array.from({ length: edges.length / 2 }, (_, i): BoxPart => {
    const [from, to] = [edges[2 * i]!, edges[2 * i + 1]!];
    return { name: `Partition ${i + 1}`, size: [0.2, 2.6, to - from], at: [0, 1.3, (from + to) / 2] };
  });
  return [
    { name: 'Floor', size: [10, 0.2, 8], at: [0, -0.1, 0] },
    { name: 'North wall', size: [10.4, 2.6, 0.2], at: [0, 1.3, -4.1] },
    { name: 'South wall', size: [10.4, 2.6, 0.2], at: [0, 1.3, 4.1] },
    { name: 'West wall', size: [0.2, 2.6, 8], at: [-5.1, 1.3, 0] },
    { name: 'East wall', size: [0.2, 2.6, 8], at: [5.1, 1.3, 0] },
    ...pieces,
  ];
}

test('another way through the same places is taken, and found again when its door is gone', async ({ page }) => {
  test.setTimeout(300_000);
  const projectId = await newProject(page, 'Two doors');
  await bringIn(page, { name: 'hall.glb', bytes: await hutGlb({ parts: partedHall([-2.5, 2.5]) }) });
  await standAt(page, [
    [-3, -2.5],
    [3, -2.5],
  ]);
  const walk = async (): Promise<Walk> => {
    await saved(page);
    return walkOf((await documentOf(page.request, projectId)).move[0]!.body);
  };
  /** Through which door: where the path is half-way from one side to the other. */
  const door = async () => {
    const { nodes } = (await walk()).path;
    const i = nodes.findIndex(({ x }) => x > 0);
    return (nodes[i - 1]!.z + nodes[i]!.z) / 2;
  };
  await page.getByRole('link', { name: 'Moves' }).click();
  await page.getByRole('button', { name: 'Find the way' }).click();
  const dialog = page.getByRole('dialog');

  await test.step('two ways are shown; the longer one is chosen', async () => {
    await throughViews(page, 2);
    const ways = dialog.getByRole('list', { name: 'Ways' }).getByRole('button');
    await expect(ways).toHaveCount(2, { timeout: 60_000 });
    await expect(ways.first()).toHaveAttribute('aria-pressed', 'true');
    await expect(dialog.getByRole('status')).toHaveText(/^6\.\d m/);
    await ways.nth(1).click();
    await expect(dialog.getByRole('status')).toHaveText(/^1\d\.\d m/);
    await dialog.getByRole('button', { name: 'Make the walk' }).click();
    await expect(dialog).toBeHidden();
    expect(await door()).toBeGreaterThan(1);
  });

  await test.step('that door is gone in a newer file: found again through the other, staying where it stayed', async () => {
    const before = await walk();
    await newerFile(page, 'one-door.glb', await hutGlb({ parts: partedHall([-2.5]) }));
    await page.getByRole('link', { name: 'Moves' }).click();
    const checks = page.getByRole('region', { name: 'Checks' });
    await expect(checks.getByRole('img', { name: 'Problem' }).first()).toBeVisible({ timeout: 60_000 });
    await page.getByRole('button', { name: 'Find it again' }).click();
    await expect(dialog.getByRole('status')).toHaveText(/^6\.\d m/, { timeout: 60_000 });
    await expect(dialog.getByRole('list', { name: 'Ways' })).toHaveCount(0);
    await dialog.getByRole('button', { name: 'Walk this way' }).click();
    await soon(door).toBeLessThan(-1);
    await expect(checks.getByRole('img', { name: 'Problem' })).toHaveCount(0);
    const after = await walk();
    expect(after.pace.pauses).toEqual(before.pace.pauses);
    expect(after.path.nodes.at(-1)!.id).toBe(before.path.nodes.at(-1)!.id);
    await page.getByRole('button', { name: 'Undo' }).click();
    await soon(door).toBeGreaterThan(1);
  });

  await test.step('a leaf that shuts it in yet another file opens at one press, in time for who comes', async () => {
    await page.getByRole('button', { name: 'Redo' }).click();
    await soon(door).toBeLessThan(-1);
    const leaf: BoxPart = { name: 'Door leaf', size: [0.05, 2.1, 0.98], at: [0, 1.05, -2.5] };
    await newerFile(page, 'shut.glb', await hutGlb({ parts: [...partedHall([-2.5]), leaf] }));
    await page.getByRole('link', { name: 'Moves' }).click();
    const checks = page.getByRole('region', { name: 'Checks' });
    await expect(checks.getByText(/^A door stands in the way/)).toBeVisible({ timeout: 60_000 });
    await checks.getByRole('button', { name: 'Open Door leaf in time' }).click();
    await expect(checks.getByText(/^A door stands in the way/)).toBeHidden();
    await expect(checks.getByRole('img', { name: 'Problem' })).toHaveCount(0);
    await saved(page);
    const [action] = (await documentOf(page.request, projectId)).action;
    expect(action!.body).toMatchObject({ kind: 'hinge', part: 'Door leaf', seconds: 2 });
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(checks.getByText(/^A door stands in the way/)).toBeVisible();
  });
});
