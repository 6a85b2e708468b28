import type { BodyOf, Follow, Glide, Ride, Travel } from '@eskovan/core/document';
import { DEMO_PROJECT } from '@eskovan/demo/seed';
import { expect, test, type Page } from '@playwright/test';
import { countGestures } from '../support/gestures.ts';
import { house } from '../support/house.ts';
import { apart } from '../support/pixels.ts';
import { documentOf, pressPicture, pressPlan, saved, sharpPicture, soon } from '../support/studio.ts';
import { currentStrips } from '../support/walk.ts';

/** The newest move, as the database has it. */
async function newest<B extends BodyOf<'move'>>(page: Page, projectId: string): Promise<B> {
  await saved(page);
  return (await documentOf(page.request, projectId)).move.at(-1)!.body as B;
}

/** Of each kind of move, the card that only it has. */
const CARDS = {
  Travel: 'Poses',
  Glide: 'Height',
  Ride: 'Rides on',
  Orbit: 'Round',
  'Stand and follow': 'Stands',
} as const;

async function newMove(page: Page, kind: keyof typeof CARDS): Promise<void> {
  await page.getByRole('button', { name: 'Other move' }).click();
  await page.getByRole('menuitem', { name: new RegExp(`^${kind}`) }).click();
  // The cards follow a moment later: what is typed into those before is gone with them.
  await expect(page.getByRole('region', { name: CARDS[kind], exact: true })).toBeVisible();
}

/** Turns the free eye in the picture, by so many pixels. */
async function lookAbout(page: Page, dx: number, dy: number): Promise<void> {
  const box = (await page.getByTestId('picture-canvas').first().boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx / 2, y + dy / 2);
  await page.mouse.move(x + dx, y + dy);
  await page.mouse.up();
  await expect(page.getByText(/^Scouting/)).toBeVisible();
}

async function findObject(page: Page, typed: string, option: RegExp): Promise<void> {
  await page.getByLabel('Find an object').fill(typed);
  await page.getByRole('option', { name: option }).first().click();
}

async function pictureAt(page: Page, key: 'Home' | 'End'): Promise<Buffer> {
  await page.getByRole('slider', { name: 'Time' }).focus();
  await page.keyboard.press(key);
  await sharpPicture(page);
  return page.getByTestId('frame').first().screenshot();
}

/** The share of a move's first picture that is something else in its last one. */
async function changed(page: Page): Promise<number> {
  const first = await pictureAt(page, 'Home');
  return apart(first, await pictureAt(page, 'End'), 24).off;
}

test('a travel is composed backwards from its last view, by mouse and by keys, and becomes a glide', async ({
  page,
}) => {
  test.setTimeout(150_000);
  await page.goto(`/project/${DEMO_PROJECT}/moves`);
  await sharpPicture(page);
  const gestures = await countGestures(page);
  const poses = async () => (await newest<Travel>(page, DEMO_PROJECT)).poses;

  await test.step('from what is seen, with a stay of two seconds at its end', async () => {
    await newMove(page, 'Travel');
    await lookAbout(page, 90, 10);
    await page.getByRole('button', { name: 'Keep before the first' }).click();
    await lookAbout(page, 140, -20);
    await page.keyboard.down('w');
    await page.waitForTimeout(400);
    await page.keyboard.up('w');
    await page.getByRole('button', { name: 'Keep before the first' }).click();
    const last = page.getByRole('list', { name: 'Poses' }).getByRole('button').last();
    await last.click();
    await page.getByLabel('Stays for, s').fill('2');
    await page.getByLabel('Stays for, s').press('Enter');
    await soon(async () => (await poses()).map(({ time, hold }) => [time, hold])).toEqual([
      [0, 0],
      [3, 0],
      [6, 2],
    ]);
  });

  await test.step('ten seconds in all: the first pose of the rest is given more time in the strip, and all that follows', async () => {
    // What is the second of two becomes the third of three.
    const marks = (await currentStrips(page)).getByRole('slider', { name: /^Pose \d/ });
    await expect(marks).toHaveCount(3);
    await marks.and(page.getByRole('slider', { name: /^Pose 2/ })).focus();
    for (let i = 0; i < 5; i += 1) await page.keyboard.press('Shift+ArrowRight');
    await soon(async () => (await poses())[1]!.time).toBeCloseTo(5, 1);
    expect((await poses())[2]!.time).toBeCloseTo(8, 1);
    // Made by a practised hand: so many presses, drags and typed numbers.
    const count = await gestures();
    test.info().annotations.push({ type: 'gestures', description: String(count) });
    expect(count).toBeLessThanOrEqual(12);
  });

  await test.step('its poses are dragged in the plan, and moved by the arrows', async () => {
    const [before] = await poses();
    const mark = page.getByRole('button', { name: /^Pose 1, at/ });
    const box = (await mark.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2, { steps: 3 });
    await page.mouse.up();
    await soon(async () => (await poses())[0]!.position[0]).toBeGreaterThan(before!.position[0] + 0.1);
    const dragged = (await poses())[0]!.position;
    await mark.focus();
    await page.keyboard.press('ArrowDown');
    await soon(async () => (await poses())[0]!.position[2]).toBeCloseTo(dragged[2] + 0.1, 6);
    await page.keyboard.press('ControlOrMeta+z');
    await soon(async () => (await poses())[0]!.position).toEqual(dragged);
  });

  await test.step('is the same after a reload, and as a glide goes the same way', async () => {
    const before = await poses();
    await page.reload();
    await sharpPicture(page);
    expect(await poses()).toEqual(before);
    await page.locator('[data-row]').last().click();
    await page.getByRole('button', { name: 'Make it a glide' }).click();
    await soon(async () => (await newest<Glide>(page, DEMO_PROJECT)).kind).toBe('glide');
    const glide = await newest<Glide>(page, DEMO_PROJECT);
    expect(glide.path.nodes.length).toBeGreaterThan(1);
    expect(glide.path.nodes[0]!.x).toBeCloseTo(before[0]!.position[0], 3);
    await page.keyboard.press('ControlOrMeta+z');
    await soon(async () => (await newest(page, DEMO_PROJECT)).kind).toBe('travel');
  });
});

test('a dive from above, a ride and a camera that follows, on the demo', async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto(`/project/${DEMO_PROJECT}/moves`);
  await sharpPicture(page);

  await test.step('a dive: three nodes in the plan, the first pulled up in the section', async () => {
    await newMove(page, 'Glide');
    await page.getByRole('radio', { name: /^Outside/ }).click();
    const plan = (await page.getByTestId('plan-drawing').boundingBox())!;
    for (const [x, y] of [
      [0.85, 0.25],
      [0.7, 0.3],
      [0.55, 0.2],
    ] as const)
      await page.mouse.click(plan.x + plan.width * x, plan.y + plan.height * y);
    await page.keyboard.press('Escape');
    const first = (await currentStrips(page)).getByRole('slider', { name: /^Node 1/ });
    await first.focus();
    for (let i = 0; i < 3; i += 1) await page.keyboard.press('ArrowUp');
    const low = (await newest<Glide>(page, DEMO_PROJECT)).path.nodes.map(({ y }) => y);
    // Three steps of five centimetres, or of two where the strip shows little.
    expect([0.15, 0.06].some((rise) => Math.abs(low[0]! - low[1]! - rise) < 1e-6)).toBe(true);
    await page.getByRole('button', { name: /^Node 1,/ }).click();
    await page.getByLabel('Height, m').fill('24');
    await page.getByLabel('Height, m').press('Enter');
    await soon(async () => (await newest<Glide>(page, DEMO_PROJECT)).path.nodes[0]!.y).toBe(24);
    expect(await changed(page)).toBeGreaterThan(0.2);
  });

  await test.step('or so much above everything, by one press', async () => {
    await page.getByRole('radio', { name: 'Above ground' }).click();
    await soon(async () => (await newest<Glide>(page, DEMO_PROJECT)).height).toEqual({
      by: 'ground',
      above: 6,
      clearance: 2,
    });
    await expect(page.getByRole('region', { name: 'Checks' })).toContainText('fine', { timeout: 30_000 });
  });

  await test.step('a ride: what carries it is found, the seat chosen by its name', async () => {
    await newMove(page, 'Ride');
    await expect(page.getByText('Press what is to carry the camera')).toBeVisible();
    await findObject(page, 'Car / Body', /Body/);
    await page.getByRole('button', { name: 'Behind and above' }).click();
    const ride = await newest<Ride>(page, DEMO_PROJECT);
    expect(ride.carrier?.name).toBe('Shuttle / Car / Body');
    expect(Math.hypot(...ride.seat)).toBeGreaterThan(3);
    await expect(page.getByTestId('path')).toBeVisible();
    expect(await changed(page)).toBeGreaterThan(0.1);
    await expect(page.getByRole('region', { name: 'Checks' })).toContainText(/fine|to look at/, { timeout: 30_000 });
    await expect(page.getByRole('region', { name: 'Checks' })).not.toContainText('goes through');
  });

  await test.step('the same softly: the document says so, and undo takes it back', async () => {
    await page.getByLabel('Follows softly by, s').fill('0.5');
    await page.getByLabel('Follows softly by, s').press('Enter');
    await soon(async () => (await newest<Ride>(page, DEMO_PROJECT)).softness).toBe(0.5);
    await page.getByRole('button', { name: 'Undo' }).click();
    await soon(async () => (await newest<Ride>(page, DEMO_PROJECT)).softness).toBe(0);
  });

  await test.step('one that stands beside the rail, and holds the car in the lower third', async () => {
    await newMove(page, 'Stand and follow');
    await findObject(page, 'Car / Body', /Body/);
    await page.getByRole('button', { name: 'Stand here…' }).click();
    await page.getByRole('radio', { name: /^Outside/ }).click();
    const plan = (await page.getByTestId('plan-drawing').boundingBox())!;
    await page.mouse.click(plan.x + plan.width * 0.6, plan.y + plan.height * 0.45);
    await page.getByLabel('Held up by, %').fill('-30');
    await page.getByLabel('Held up by, %').press('Enter');
    await soon(async () => (await newest<Follow>(page, DEMO_PROJECT)).gaze).toMatchObject({
      kind: 'object',
      name: 'Shuttle / Car / Body',
      place: [0, -0.3],
    });
    const { position } = await newest<Follow>(page, DEMO_PROJECT);
    await page.getByRole('radio', { name: 'Held by the lens' }).click();
    await soon(async () => (await newest<Follow>(page, DEMO_PROJECT)).holdSize).toBe(true);
    expect(position[1]).toBeGreaterThan(0.5);
    await expect(page.getByTestId('strip-charts')).toContainText('Away');
    await expect(page.getByTestId('strip-charts')).toContainText('Lens');
  });
});

test('in a house of others: a table goes along a path, a camera rides on it, a door opens', async ({ page }) => {
  test.setTimeout(180_000);
  const projectId = await house(page, 'Kinds');
  const parts = page.getByRole('complementary', { name: 'Parts' });
  const actions = page.getByRole('region', { name: 'Actions' });

  await test.step('where nothing moves yet, kinds show in this very model what they are', async () => {
    await page.getByRole('link', { name: 'Moves' }).click();
    for (const kind of ['Walk', 'Orbit', 'Travel', 'Glide'])
      await expect(page.getByRole('button', { name: kind, exact: true }).locator('canvas')).toBeVisible({
        timeout: 60_000,
      });
    // Nothing goes anywhere in it: a drawing says what a ride is.
    await expect(page.getByRole('button', { name: 'Ride', exact: true }).locator('svg')).toBeVisible();
  });

  await test.step('a path', async () => {
    await page.getByRole('button', { name: 'New walk' }).click();
    for (const [x, z] of [
      [1.5, 2],
      [3, 3.5],
      [4.5, 2.2],
    ] as const)
      await pressPlan(page, x, z);
    await page.keyboard.press('Escape');
    await saved(page);
  });

  await test.step('the table is sent along it', async () => {
    await page.getByRole('link', { name: 'Model' }).click();
    await parts.getByRole('treeitem', { name: /table/i }).first().click();
    await page.getByRole('button', { name: 'Along a path' }).click();
    await page.getByRole('menuitem').first().click();
    await saved(page);
    const [action] = (await documentOf(page.request, projectId)).action;
    expect(action!.body).toMatchObject({ kind: 'along', faces: true, seconds: 10 });
    await expect(actions.getByRole('textbox', { name: 'Action' })).toHaveValue(/table/i);
  });

  await test.step('a part opens about its edge, and can be off', async () => {
    await page.getByRole('button', { name: 'Open', exact: true }).click();
    await actions.getByLabel('Turns by, °').fill('60');
    await actions.getByLabel('Turns by, °').press('Enter');
    await actions.getByRole('radio', { name: 'Off' }).click();
    await saved(page);
    const opened = (await documentOf(page.request, projectId)).action.at(-1)!;
    expect(opened.body).toMatchObject({ kind: 'hinge', off: true, angle: expect.closeTo(Math.PI / 3, 6) as unknown });
  });

  await test.step('a camera rides on it, and a ride on what stands says so', async () => {
    await page.getByRole('link', { name: 'Moves' }).click();
    await newMove(page, 'Ride');
    await findObject(page, 'table', /table/i);
    await expect(page.getByTestId('path')).toBeVisible({ timeout: 20_000 });
    expect(await changed(page)).toBeGreaterThan(0.1);
    await page.getByRole('button', { name: 'Something else' }).click();
    await findObject(page, 'wall', /wall/i);
    await expect(page.getByText('Nothing moves it')).toBeVisible();
  });

  await test.step('an orbit is shaped by its hands in the plan and swings back', async () => {
    await newMove(page, 'Orbit');
    await findObject(page, 'table', /table/i);
    const orbit = async () => newest<BodyOf<'move'> & { kind: 'orbit' }>(page, projectId);
    const before = await orbit();
    await page.getByRole('button', { name: /^Distance of the orbit/ }).focus();
    await page.keyboard.press('Shift+ArrowUp');
    await soon(async () => (await orbit()).distance.by).toBe('radius');
    const start = page.getByRole('button', { name: /^Start of the orbit/ });
    const box = (await start.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2 + 40, { steps: 3 });
    await page.mouse.up();
    await soon(async () => (await orbit()).start).not.toBeCloseTo(before.start, 2);
    await page.getByRole('radio', { name: 'Swings back' }).click();
    await soon(async () => (await orbit()).swings).toBe(true);
    await page.getByRole('button', { name: 'Stop here' }).click();
    await expect(page.getByRole('list', { name: 'Stops' }).getByRole('listitem')).toHaveCount(1);
    await page.getByRole('button', { name: 'Keep them' }).click();
    await saved(page);
    expect((await documentOf(page.request, projectId)).view).toHaveLength(8);
  });

  await test.step('a glide leads along an edge of the house that is pressed in the picture', async () => {
    await newMove(page, 'Glide');
    await page.getByRole('button', { name: 'Along an edge' }).click();
    await sharpPicture(page);
    await expect(page.getByText('Press an edge or a rail', { exact: true })).toBeVisible();
    await pressPicture(page, 0.5, 0.5);
    const nodes = async () => (await newest<Glide>(page, projectId)).path.nodes;
    await soon(async () => (await nodes()).length).toBeGreaterThanOrEqual(2);
    const [a, b] = [(await nodes())[0]!, (await nodes()).at(-1)!];
    // The edges of this house lie along its walls, or stand up.
    const along = [a.x - b.x, a.z - b.z].filter((way) => Math.abs(way) > 0.02);
    expect(along.length).toBeLessThanOrEqual(1);
    await page.getByRole('button', { name: 'Undo' }).click();
    await soon(async () => (await nodes()).length).toBe(0);
  });
});
