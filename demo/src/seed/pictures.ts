import { chromium } from '@playwright/test';

/** What Debian's Chromium needs where there is neither a user nor a graphics card. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--use-gl=angle',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    // What a browser does by itself where there is no graphics card: the page is put together by the processor.
    '--disable-gpu-compositing',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

/**
 * Lets the application itself draw the pictures of the views and render the first takes, in a browser without a
 * window: there is no second renderer for seeds.
 * @param brief of takes there is a small film only
 */
export async function drawPictures(
  address: string,
  projectId: string,
  { views, lights, brief }: { views: number; lights: number; brief: boolean },
): Promise<void> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}/project/${projectId}/model`);
    await page.waitForFunction(
      (count) => document.querySelectorAll('[aria-label="Lights of this project"] img').length >= count,
      lights,
      { timeout: 300_000 },
    );
    await page.goto(`${address}/project/${projectId}/views`);
    await page.waitForFunction((count) => document.querySelectorAll('aside li img').length >= count, views, {
      timeout: 300_000,
    });
    await page.getByRole('link', { name: 'Renders' }).click();
    const choose = async (name: string, option: RegExp) => {
      await page.getByRole('combobox', { name }).click();
      await page.getByRole('option', { name: option }).click();
    };
    await choose('What to render', /Around the tide table/);
    await choose('Size', brief ? /^320 / : /^640 /);
    await choose('Quality', /Draft/);
    // A second of it is enough to see what a take is; each one more keeps the first start waiting for the best part of a minute.
    const to = page.getByLabel('To, s');
    await to.fill('1s');
    await to.press('Enter');
    await page.getByRole('button', { name: 'Render film' }).click();
    await page.locator('video').waitFor({ timeout: 900_000 });
    if (!brief) {
      await choose('What to render', /Hall and its terns/);
      await choose('Size', /^1280 /);
      await choose('Quality', /Good/);
      await page.getByRole('button', { name: 'Render still' }).click();
      await page.locator('video').waitFor({ state: 'detached', timeout: 900_000 });
    }
    await page.locator('[data-saved="saved"]').waitFor({ timeout: 30_000 });
  } finally {
    await browser.close();
  }
}
