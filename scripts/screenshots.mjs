// One current picture per main view, from the demo commission, into docs/screenshots/.
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
  await looks(page, project, sharp);
  await page.goto(`${project}/views`);
  await sharp();
  await take('views');
  for (const [view, name] of [
    ['Boardwalk and channel', 'landscape'],
    ['Heron field scope', 'scope'],
  ]) {
    await page
      .getByRole('button', { name: new RegExp(view) })
      .first()
      .click();
    await page.waitForTimeout(1500);
    await sharp();
    await take(name);
  }
  await page.goto(`${project}/moves`);
  await sharp();
  const slider = page.getByRole('slider', { name: 'Time' });
  await slider.focus();
  for (let i = 0; i < 22; i += 1) await page.keyboard.press('PageDown');
  await slider.evaluate((element) => element.blur());
  await sharp();
  await take('moves');
  await page.goto(`${project}/renders`);
  const video = page.locator('video');
  await video.waitFor();
  await video.evaluate((element) => {
    element.currentTime = 6;
    return new Promise((resolve) => element.addEventListener('canplaythrough', resolve, { once: true }));
  });
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
}

/** The same hall as natural, clay and line; the look is chosen on the Model stage and holds for all. */
async function looks(page, project, sharp) {
  for (const look of ['Clay', 'Line', 'Natural']) {
    await page.goto(`${project}/model`);
    await sharp();
    await page.getByRole('radio', { name: look }).click();
    await page.locator('[data-saved="saved"]').waitFor();
    await page.getByRole('link', { name: 'Views' }).click();
    await page.waitForTimeout(2500);
    await sharp();
    const path = join(ROOT, 'docs/screenshots', `look-${look.toLowerCase()}.png`);
    await page.getByTestId('frame').screenshot({ path });
  }
}
