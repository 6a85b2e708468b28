// Views under the hand: standing and looking, choosing, long lists, small pictures drawn again.
import { CHROMIUM, DEMO_PROJECT } from '@eskovan/demo/seed';
import { chromium } from '@playwright/test';
import { dragging } from './lib/dragging.mjs';
import { editOf, sendEdit } from './lib/edits.mjs';
import { limitOf, median, percentile } from './lib/measure.mjs';

const MANY = 200;
const REDRAWN = 50;

const limit = limitOf('views');

export async function benchViews(address) {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
    await page.goto(`${address}/project/${DEMO_PROJECT}/views`);
    await sharp(page);
    const rows = [...(await stand(page)), await choose(page)];
    const made = await copies(page, address, MANY, true);
    rows.push(await scroll(page));
    made.push(...(await copies(page, address, REDRAWN, false)));
    rows.push(...(await redraw(page, address)));
    await sendEdit(
      address,
      editOf(
        DEMO_PROJECT,
        'Away again',
        made.map((id) => ({ op: 'remove', kind: 'view', id })),
      ),
    );
    return rows;
  } finally {
    await browser.close();
  }
}

const sharp = (page) => page.locator('[data-testid="picture-canvas"][data-sharp="true"]').waitFor({ timeout: 90_000 });

async function stand(page) {
  const plan = await page.getByRole('group', { name: /^Plan/ }).boundingBox();
  const middle = { x: plan.x + plan.width / 2, y: plan.y + plan.height / 2 };
  const drag = await dragging(page, middle, { x: 60, y: 40 });
  await sharp(page);
  const picture = await page.getByRole('group', { name: 'Picture', exact: true }).boundingBox();
  const look = await dragging(
    page,
    { x: picture.x + picture.width / 2, y: picture.y + picture.height / 2 },
    { x: 60, y: 10 },
  );
  await sharp(page);
  return [
    ['stand and look on the plan', drag],
    ['looking about in the picture', look],
  ].flatMap(([what, { pictures, input, inputs }]) => [
    limit(`${what}: input, 95th percentile of ${inputs}`, input.toFixed(0), 'ms', 50, input <= 50),
    limit(`${what}: picture`, pictures.toFixed(1), 'pictures/s', 12, pictures >= 12),
  ]);
}

/** From the press on a view to its first picture, flights off. */
async function choose(page) {
  const rows = page.getByRole('complementary', { name: 'Views' }).locator('[data-row]');
  const times = [];
  for (let k = 0; k < 9; k += 1) {
    const row = rows.nth([0, 1, 2][k % 3]);
    const took = await row.evaluate(
      (element) =>
        new Promise((resolve) => {
          const canvas = document.querySelector('[data-testid="picture-canvas"]');
          const started = performance.now();
          const seen = new MutationObserver(() => {
            seen.disconnect();
            resolve(performance.now() - started);
          });
          seen.observe(canvas, { attributeFilter: ['data-pictures'] });
          element.click();
        }),
    );
    times.push(took);
    await sharp(page);
  }
  const took = median(times);
  return limit('a view chosen: its picture', took.toFixed(0), 'ms', 400, took <= 400);
}

/** Copies of the first view, with its picture or without one. @returns their ids */
async function copies(page, address, count, pictured) {
  const { body } = await page.evaluate(async (id) => {
    const reply = await fetch(`/api/projects/${id}/document`);
    return (await reply.json()).view[0];
  }, DEMO_PROJECT);
  const { thumbnail, ...plain } = body;
  const ids = Array.from({ length: count }, () => crypto.randomUUID());
  const make = (id, i) => ({
    op: 'make',
    kind: 'view',
    id,
    name: `Copy ${i + 1}`,
    order: 1000 + i,
    body: pictured ? { ...plain, thumbnail } : plain,
  });
  await sendEdit(address, editOf(DEMO_PROJECT, 'Many views', ids.map(make)));
  return ids;
}

/** Waits until the page has them all. */
const listed = (page, many) =>
  page.waitForFunction(
    (count) => Number(document.querySelector('aside[aria-label="Views"] header span').textContent) > count,
    many,
  );

/** The whole list goes by in three seconds. */
async function scroll(page) {
  const list = page.getByRole('complementary', { name: 'Views' });
  await listed(page, MANY);
  await sharp(page);
  const { frames, worst } = await list
    .locator('[data-row]')
    .first()
    .evaluate(
      (element) =>
        new Promise((resolve) => {
          const box = element.closest('.overflow-y-auto');
          const gaps = [];
          let last = performance.now();
          const started = last;
          requestAnimationFrame(function tick(now) {
            gaps.push(now - last);
            last = now;
            const part = Math.min(1, (now - started) / 3000);
            box.scrollTop = (box.scrollHeight - box.clientHeight) * part;
            if (part < 1) requestAnimationFrame(tick);
            else resolve({ frames: gaps.length / 3, worst: Math.max(...gaps) });
          });
        }),
    );
  return limit(
    `a list of more than ${MANY} scrolls (longest gap ${worst.toFixed(0)} ms)`,
    frames.toFixed(0),
    'frames/s',
    50,
    frames >= 50,
  );
}

/** While small pictures are drawn again: how long an input would wait for the page. */
async function redraw(page, address) {
  await listed(page, MANY + REDRAWN);
  const started = Date.now();
  await page.evaluate(() => {
    globalThis.asking = { waits: [], on: true };
    const channel = new window.MessageChannel();
    let asked = 0;
    const ask = () => {
      asked = performance.now();
      channel.port2.postMessage(0);
    };
    channel.port1.onmessage = () => {
      globalThis.asking.waits.push(performance.now() - asked);
      if (globalThis.asking.on) setTimeout(ask, 12);
    };
    ask();
  });
  let left = REDRAWN;
  while (left > 0 && Date.now() - started < 300_000) {
    await new Promise((resolve) => setTimeout(resolve, 1000));
    const { view } = await (await fetch(`${address}/api/projects/${DEMO_PROJECT}/document`)).json();
    left = view.filter(({ name, body }) => name.startsWith('Copy') && !body.thumbnail).length;
  }
  const seconds = (Date.now() - started) / 1000;
  const waits = await page.evaluate(() => ((globalThis.asking.on = false), globalThis.asking.waits));
  const worst = Math.max(...waits);
  const usual = percentile(waits, 0.999);
  return [
    limit(
      `${REDRAWN} small pictures drawn again in ${seconds.toFixed(0)} s: longest wait of ${waits.length} asked`,
      worst.toFixed(0),
      'ms',
      50,
      worst <= 50,
    ),
    limit('… of a thousand, all but one', usual.toFixed(0), 'ms', 50, usual <= 50),
  ];
}
