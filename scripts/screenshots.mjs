// One current picture per main view, from the demo commission, into docs/screenshots/.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { ROOT } from './lib/run.mjs';
import { installModules, installPackages } from './lib/setup.mjs';

await installPackages();
await installModules();
await build();
const { withStudio } = await import('./lib/studio.mjs');
const { CHROMIUM, DEMO_PROJECT } = await import('../demo/dist/seed/index.js');
const { chromium } = await import('@playwright/test');

await withStudio({ say: console.log }, async ({ address: studio }) => {
  const browser = await chromium.launch(CHROMIUM);
  try {
    await takeAll(browser, studio);
  } finally {
    await browser.close();
  }
});

async function takeAll(browser, studio) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const project = `${studio}/project/${DEMO_PROJECT}`;
  const sharp = () =>
    page.locator('[data-testid="picture-canvas"][data-sharp="true"]').first().waitFor({ timeout: 60_000 });
  const take = (name) => page.screenshot({ path: join(ROOT, 'docs/screenshots', `${name}.png`) });

  await page.goto(studio);
  await page.locator('li img').first().waitFor();
  await page.waitForLoadState('networkidle');
  await take('projects');
  await page.goto(`${project}/model`);
  await sharp();
  await take('model');
  await page.getByRole('button', { name: /Dusk, lamps on/ }).click();
  await page.getByRole('region', { name: 'Lights' }).evaluate((card) => card.scrollIntoView({ block: 'start' }));
  await page.waitForTimeout(4000);
  await sharp();
  await take('lights');
  await page.goto(`${project}/views`);
  await sharp();
  await throughALens(page, take);
  await compared(page, take);
  await page.goto(`${project}/moves`);
  await sharp();
  await page.getByText('Up to the viewing deck', { exact: true }).click();
  const slider = page.getByRole('slider', { name: 'Time', exact: true });
  await slider.focus();
  for (let i = 0; i < 37; i += 1) await page.keyboard.press('PageDown');
  await slider.evaluate((element) => element.blur());
  await sharp();
  await take('moves');
  await foundWay(page, sharp, take);
  await page.getByText('About the field scope', { exact: true }).click();
  await page.waitForTimeout(1500);
  await sharp();
  await take('orbit');
  await kinds(page, sharp, take);
  await reels(page, project, take);
  await page.goto(`${project}/renders`);
  await page.getByRole('img', { name: /^Hall and its terns/ }).waitFor();
  await page.waitForLoadState('networkidle');
  await take('renders');
  await page.goto(`${project}/review`);
  await page.getByTestId('link-address').filter({ hasText: 'http' }).waitFor();
  await page.waitForLoadState('networkidle').catch(() => undefined);
  const address = await page.getByTestId('link-address').textContent();
  await take('review');
  await page.goto(address);
  await page.locator('figure img').first().scrollIntoViewIfNeeded();
  await page.waitForLoadState('networkidle');
  await page.locator('header').first().scrollIntoViewIfNeeded();
  await take('client-page');
  await notOfTheDemo(page, studio, sharp, take);
}

/** A ride, and what parts do while a move plays. */
async function kinds(page, sharp, take) {
  const at = async (name, part) => {
    await page.getByText(name, { exact: true }).first().click();
    await page.waitForTimeout(1200);
    const box = await page.getByTestId('strip-charts').boundingBox();
    await page.mouse.click(box.x + 108 + (box.width - 126) * part, box.y + 12);
    await page.mouse.move(640, 20);
    await sharp();
  };
  await page.getByText('On the shuttle', { exact: true }).first().click();
  await page.getByTestId('strip-charts').getByRole('button', { name: 'Actions' }).click();
  await at('On the shuttle', 0.55);
  await take('ride');
}

/** A way that is found through rooms and views. */
async function foundWay(page, sharp, take) {
  await page.getByRole('button', { name: 'Find the way' }).click();
  const dialog = page.getByRole('dialog');
  for (const place of ['Arrival', 'Tide gallery', 'Deck']) {
    await dialog.getByLabel('Room or view').fill(place);
    await page.keyboard.press('Enter');
  }
  await dialog.getByText(/ nodes\./).waitFor({ timeout: 60_000 });
  await take('way');
  await dialog.getByRole('button', { name: 'Make the walk' }).click();
  await page.waitForTimeout(1500);
  await sharp();
  // What mends a finding is shown while it is pointed at: a way that was found turns calmly until it is told not to.
  await page.getByLabel('Slower at corners').getByRole('radio', { name: 'No' }).click();
  const checks = page.getByRole('region', { name: 'Checks' });
  await checks.getByText(/to look at$/).waitFor({ timeout: 30_000 });
  await checks
    .getByRole('button', { name: /^(Slow down here|Turn more slowly)$/ })
    .first()
    .hover();
  await page.waitForTimeout(1500);
  await sharp();
  await take('fix');
  await page.mouse.move(640, 20);
}

/** The reel, a join of it, and all of it on paper. */
async function reels(page, project, take) {
  await page.goto(`${project}/reel`);
  await page.locator('[data-testid="reel-strips"][data-current="true"]').waitFor({ timeout: 120_000 });
  const at = async (part) => {
    const box = await page.getByTestId('reel-strips').boundingBox();
    await page.mouse.click(box.x + 108 + (box.width - 126) * part, box.y + 12);
    await page.mouse.move(640, 20);
    await page.locator('[data-testid="reel-canvas"][data-sharp="true"]').waitFor({ timeout: 60_000 });
  };
  await at(0.33);
  // The small pictures of the strip are drawn first.
  const drawn = () =>
    page.waitForFunction(
      () =>
        [...document.querySelectorAll('[data-shot] > span:first-child > span')].every((one) =>
          one.querySelector('img'),
        ),
      null,
      { timeout: 240_000 },
    );
  await drawn();
  await take('reel');
  await page.getByRole('button', { name: /^Join 3 to 4/ }).click();
  await at(0.24);
  await page.locator('figure img').nth(1).waitFor({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Match…' }).click();
  await page.getByRole('list', { name: 'What would match' }).waitFor({ timeout: 30_000 });
  await take('join');
  await page.getByRole('button', { name: 'Storyboard' }).click();
  const coming = firstSheet(page);
  await page.getByRole('button', { name: 'Save PNG' }).click();
  await paperShot(page, await (await coming).path(), 'storyboard', { width: 905, height: 1280 });
}

/** Of several sheets that are saved the first, whichever comes first. */
function firstSheet(page) {
  return page.waitForEvent('download', {
    timeout: 120_000,
    predicate: (file) => / 1\.png$/.test(file.suggestedFilename()),
  });
}

/** A sheet of paper as it is printed. */
async function paperShot(page, path, name, viewport) {
  const sheet = readFileSync(path).toString('base64');
  const paper = await page.context().browser().newPage({ viewport });
  await paper.setContent(`<body style="margin:0"><img style="width:100%" src="data:image/png;base64,${sheet}">`);
  await paper.screenshot({ path: join(ROOT, 'docs/screenshots', `${name}.png`) });
  await paper.close();
}

/** The Views stage with a lens that is sharp at one distance; afterwards it sees as before. */
async function throughALens(page, take) {
  await page.getByText('Heron field scope', { exact: true }).first().click();
  await page.getByRole('region', { name: 'Lens' }).getByRole('radio', { name: 'At a distance' }).click();
  const values = [
    [/^Focal length/, '50'],
    [/^Focus at/, '2.3'],
    [/^f-number/, '2'],
  ];
  for (const [name, value] of values) {
    await page.getByLabel(name).first().fill(value);
    await page.keyboard.press('Enter');
  }
  // What is soft gets its many passes after the picture is sharp.
  await page.waitForTimeout(20_000);
  await take('views');
  for (let i = 0; i <= values.length; i += 1) await page.getByRole('button', { name: 'Undo' }).click();
}

/** Views beside each other, and all of them on one sheet. */
async function compared(page, take) {
  const rows = page.locator('[data-row]');
  await rows.nth(0).click();
  for (const n of [1, 3, 7]) await rows.nth(n).click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Compare' }).click();
  await page.locator('[data-drawn="true"]').nth(3).waitFor({ timeout: 120_000 });
  await take('compare');
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: 'Contact sheet' }).click();
  await page.getByRole('combobox', { name: 'Which views' }).click();
  await page.getByRole('option', { name: 'All views' }).click();
  const coming = firstSheet(page);
  await page.getByRole('button', { name: 'Save PNG' }).click();
  await paperShot(page, await (await coming).path(), 'contact-sheet', { width: 1280, height: 905 });
}

/** What the demo does not show: a file that does not say its size, and a bare terrain with a walk on it. */
async function notOfTheDemo(page, studio, sharp, take) {
  const bringIn = async (name, text) => {
    await page.goto(studio);
    await page
      .getByRole('button', { name: /New project/ })
      .first()
      .click();
    await page.getByRole('textbox', { name: /Name/ }).fill(name.replace(/\.\w+$/, ''));
    await page.getByLabel('Model file').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
    await page.locator('[data-saved="saved"]').waitFor();
    await page.getByRole('region', { name: 'Storeys and rooms' }).waitFor({ timeout: 60_000 });
    await page.waitForTimeout(8000);
    await sharp();
  };
  await bringIn('Garden jar.obj', jar());
  await take('right-size');
  await bringIn('Moor.asc', moor());
  await page.getByRole('link', { name: 'Moves' }).click();
  await page.getByRole('button', { name: 'New walk' }).click();
  const plan = await page.getByTestId('plan-drawing').boundingBox();
  for (const [x, y] of [
    [0.3, 0.75],
    [0.42, 0.6],
    [0.5, 0.42],
    [0.66, 0.3],
  ]) {
    await page.mouse.click(plan.x + plan.width * x, plan.y + plan.height * y);
    await page.waitForTimeout(300);
  }
  await page.keyboard.press('Enter');
  await page.waitForTimeout(1500);
  await sharp();
  await take('terrain');
}

/** A height grid of 1.2 km with two valleys. */
function moor() {
  const rows = Array.from({ length: 120 }, (_, r) =>
    Array.from({ length: 120 }, (_, c) =>
      (60 + 30 * Math.sin(c * 0.05 + 1) * Math.cos(r * 0.04) + 9 * Math.sin(c * 0.16 + r * 0.1)).toFixed(2),
    ).join(' '),
  );
  return `ncols 120\nnrows 120\nxllcorner 0\nyllcorner 0\ncellsize 10\n${rows.join('\n')}\n`;
}

function jar() {
  const profile = [
    [0, 0],
    [3.2, 0],
    [3.9, 1.2],
    [4.1, 4],
    [3, 7.5],
    [1.9, 9],
    [2.2, 10.6],
    [2.3, 11],
    [2, 11],
    [1.7, 9],
  ];
  const sides = 48;
  const lines = ['o Body'];
  for (const [r, z] of profile)
    for (let i = 0; i < sides; i += 1) {
      const angle = (2 * Math.PI * i) / sides;
      lines.push(`v ${(r * Math.cos(angle)).toFixed(4)} ${(r * Math.sin(angle)).toFixed(4)} ${z}`);
    }
  for (let k = 0; k + 1 < profile.length; k += 1)
    for (let i = 0; i < sides; i += 1) {
      const [a, b] = [k * sides + i + 1, k * sides + ((i + 1) % sides) + 1];
      lines.push(`f ${a} ${b} ${b + sides} ${a + sides}`);
    }
  return lines.join('\n');
}
