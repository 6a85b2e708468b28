// The application under the hand: dragging a node, scrubbing, opening a project.
import { CHROMIUM, DEMO_PROJECT } from '@eskovan/demo/seed';
import { chromium } from '@playwright/test';
import { dragging } from './lib/dragging.mjs';

export async function benchInteraction(address) {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const opened = Date.now();
    await page.goto(`${address}/project/${DEMO_PROJECT}/moves`);
    await page.getByTestId('path').waitFor();
    const usable = (Date.now() - opened) / 1000;
    await page.locator('[data-testid="picture-canvas"][data-sharp="true"]').waitFor({ timeout: 60_000 });
    const sharp = (Date.now() - opened) / 1000;
    const centre = async (locator) => {
      const box = await locator.boundingBox();
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    };
    const node = await dragging(page, await centre(page.getByRole('button', { name: /^Node 5/ })), { x: 30, y: 20 });
    await page.getByRole('button', { name: 'Undo' }).click();
    const strips = await page.getByTestId('strip-charts').boundingBox();
    const scrub = await dragging(
      page,
      { x: strips.x + strips.width / 2, y: strips.y + strips.height / 2 },
      { x: 300, y: 0 },
    );
    await page.getByText('Past the brass', { exact: true }).click();
    const keyHandle = page.getByRole('slider', { name: 'Lens key 2' });
    await keyHandle.waitFor();
    await page.locator('[data-testid="picture-canvas"][data-sharp="true"]').waitFor({ timeout: 60_000 });
    const key = await dragging(page, await centre(keyHandle), { x: 40, y: 12 });
    await page.getByRole('button', { name: 'Undo' }).click();
    const rows = (what, { fps, pictures, input, inputs }) => [
      {
        what: `${what}: page`,
        ours: `${fps.toFixed(0)} frames/s`,
        baseline: '30',
        ratio: '',
        wanted: 'at least 30',
        holds: fps >= 30,
      },
      {
        what: `${what}: picture`,
        ours: `${pictures.toFixed(1)} pictures/s`,
        baseline: '12',
        ratio: '',
        wanted: 'at least 12',
        holds: pictures >= 12,
      },
      {
        what: `${what}: input answered, 95th percentile of ${inputs}`,
        ours: `${input.toFixed(0)} ms`,
        baseline: '50 ms',
        ratio: '',
        wanted: 'at most 50 ms',
        holds: input <= 50,
      },
    ];
    return [
      {
        what: 'first screen usable (plan and path), warm server',
        ours: `${usable.toFixed(1)} s`,
        baseline: '3 s',
        ratio: '',
        wanted: 'within 3 s',
        holds: usable <= 3,
      },
      { what: 'first sharp picture', ours: `${sharp.toFixed(1)} s`, baseline: '', ratio: '', wanted: '', holds: null },
      ...rows('dragging a node', node),
      ...rows('dragging a key', key),
      ...rows('scrubbing', scrub),
    ];
  } finally {
    await browser.close();
  }
}
