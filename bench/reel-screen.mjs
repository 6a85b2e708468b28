// The Reel under the hand: edits among many shots, seeking, playing, and what drawing ahead leaves of the page.
import { CHROMIUM, DEMO_PROJECT } from '@eskovan/demo/seed';
import { chromium } from '@playwright/test';
import { answered, watchAnswer } from './lib/dragging.mjs';
import { editOf, sendEdit } from './lib/edits.mjs';
import { limitOf, percentile } from './lib/measure.mjs';

const SHOTS = 200;
const EDITS = 40;
const SEEKS = 24;
/** Inputs come so far apart that drawing ahead, which gives way to hands, has begun again: milliseconds. */
const BETWEEN = 700;
const INPUTS = 100;

const limit = limitOf('reel');

export async function benchReelScreen(address) {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}/project/${DEMO_PROJECT}/reel`);
    const rows = [await waits(page), await seek(page), await play(page)];
    const made = await manyShots(address);
    rows.unshift(await edits(page));
    await sendEdit(address, editOf(DEMO_PROJECT, 'Away again', made));
    return rows;
  } finally {
    await browser.close();
  }
}

/** Moves the pointer over the strip while frames are drawn ahead. @returns how long input waits */
async function waits(page) {
  const strips = page.getByTestId('reel-strips');
  const drawn = () => strips.getAttribute('data-drawn').then(Number);
  // What opening a project costs is measured elsewhere.
  await page.locator('[data-testid="reel-strips"][data-current="true"]').waitFor({ timeout: 120_000 });
  while ((await drawn()) === 0) await page.waitForTimeout(50);
  const box = await strips.boundingBox();
  await page.evaluate(() => {
    globalThis.waited = [];
    window.addEventListener('pointermove', ({ timeStamp }) =>
      requestAnimationFrame(() => globalThis.waited.push(performance.now() - timeStamp)),
    );
  });
  const before = await drawn();
  for (let i = 0; i < INPUTS; i += 1) {
    await page.mouse.move(box.x + (i % 2 ? 300 : 600), box.y + 4 + (i % 7));
    await page.waitForTimeout(BETWEEN);
  }
  const waited = await page.evaluate(() => globalThis.waited);
  const meanwhile = (await drawn()) - before;
  while ((await drawn()) < 1) await page.waitForTimeout(200);
  const worst = Math.max(...waited);
  return limit(
    `the longest wait of ${waited.length} inputs while ${(100 * meanwhile).toFixed(0)} % of it are drawn ahead`,
    worst.toFixed(0),
    'ms',
    50,
    worst <= 50,
  );
}

/** Presses in the ruler. @returns how long until the picture is that of the time pressed */
async function seek(page) {
  const ruler = page.getByTestId('reel-strips');
  const box = await ruler.boundingBox();
  const times = [];
  for (let i = 0; i < SEEKS; i += 1) {
    await watchAnswer(page, 'pointerdown', '[data-testid="reel-canvas"]', (canvas) => canvas.dataset.frame);
    await page.mouse.click(box.x + 120 + ((i * 331) % (box.width - 200)), box.y + 8);
    times.push(await answered(page));
    await page.waitForTimeout(300);
  }
  const took = percentile(times, 0.95);
  return limit(
    `seeking to a right small picture, 95th percentile of ${SEEKS}`,
    took.toFixed(0),
    'ms',
    100,
    took <= 100,
  );
}

/** Plays ten seconds of what is drawn ahead. @returns the part of its frames that were left out */
async function play(page) {
  await page.getByRole('button', { name: 'To the start' }).click();
  await page.waitForTimeout(500);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(10_000);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  const { played, late } = await page.getByTestId('reel-canvas').evaluate(({ dataset }) => ({ ...dataset }));
  // Those that were left out are among them.
  const share = (100 * Number(late)) / Number(played);
  return limit(`frames left out of ${played} played`, share.toFixed(1), '%', 2, share <= 2);
}

/** A reel of many shots. @returns what takes it away again */
async function manyShots(address) {
  const document = await (await fetch(`${address}/api/projects/${DEMO_PROJECT}/document`)).json();
  const reel = crypto.randomUUID();
  const shots = Array.from({ length: SHOTS }, () => crypto.randomUUID());
  const use = (i) => ({ kind: 'move', move: document.move[i % document.move.length].id, from: 0, to: 1 + (i % 3) });
  await sendEdit(
    address,
    editOf(DEMO_PROJECT, 'Many shots', [
      { op: 'make', kind: 'reel', id: reel, name: 'Two hundred', order: 9000, body: {} },
      ...shots.map((id, i) => ({
        op: 'make',
        kind: 'shot',
        id,
        name: `Shot ${i + 1}`,
        order: i,
        body: { reel, use: use(i) },
      })),
    ]),
  );
  return [...shots.map((id) => ({ op: 'remove', kind: 'shot', id })), { op: 'remove', kind: 'reel', id: reel }];
}

/** Makes a shot longer and shorter by a frame. @returns how long until the reel's length is another on the strip */
async function edits(page) {
  await page
    .getByRole('button', { name: /^Two hundred/ })
    .first()
    .click();
  await page.waitForFunction((count) => document.querySelectorAll('[data-shot]').length >= count / 4, SHOTS);
  await page.locator('[data-testid="reel-strips"][data-current="true"]').waitFor({ timeout: 120_000 });
  // The first one may lie under the playhead.
  await page.locator('[data-shot]').nth(6).click();
  await page.waitForTimeout(3000);
  const times = [];
  for (let i = 0; i < EDITS; i += 1) {
    await watchAnswer(page, 'keydown', '[data-testid="reel-strips"]', (strips) =>
      [...strips.querySelectorAll('svg text')]
        .map((text) => text.textContent)
        .find((text) => /^\d\d:\d\d:\d\d/.test(text)),
    );
    await page.keyboard.press(i % 2 ? '-' : '=');
    times.push(await answered(page));
    await page.waitForTimeout(250);
  }
  const took = percentile(times, 0.95);
  return limit(
    `an edit among ${SHOTS} shots on the strip, 95th percentile of ${EDITS} (half within ${percentile(times, 0.5).toFixed(0)} ms)`,
    took.toFixed(0),
    'ms',
    50,
    took <= 50,
  );
}
