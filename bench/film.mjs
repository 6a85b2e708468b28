// Picture and film in the browser: drawing alone against drawing with encoding.
import { join } from 'node:path';
import { CHROMIUM, prepareCommission } from '@eskovan/demo/seed';
import { chromium } from '@playwright/test';
import express from 'express';
import { must, ROOT } from '../scripts/lib/run.mjs';

export async function benchFilm(cache) {
  await must('npx', ['vite', 'build', '--logLevel', 'error', '-c', 'bench/page/vite.config.ts']);
  const {
    lights: [{ scene }],
  } = await prepareCommission(cache);
  const server = express()
    .get('/scene.bin', (_request, response) => response.type('application/octet-stream').send(Buffer.from(scene)))
    .use(express.static(join(ROOT, 'bench/dist')));
  const listening = server.listen(0, '127.0.0.1');
  await new Promise((resolve) => listening.once('listening', resolve));
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage();
    await page.goto(`http://localhost:${listening.address().port}/`);
    await page.waitForFunction(() => 'bench' in globalThis);
    const result = await page.evaluate(() => globalThis.bench('/scene.bin'));
    const rate = (ms) => `${((1000 * result.frames) / ms).toFixed(1)} frames/s`;
    return [
      {
        what: 'picture while moving, 436 × 257, hall',
        ours: `${result.pictureMs.toFixed(0)} ms, ${Math.round(result.triangles / 1000)} k triangles`,
        baseline: '83 ms, twelve a second',
        ratio: `${(83 / result.pictureMs).toFixed(1)} × as fast`,
        wanted: 'below 83 ms',
        holds: result.pictureMs < 83,
      },
      {
        what: 'film 1280 × 720, 4 passes, with encoding',
        ours: rate(result.encodedMs),
        baseline: `${rate(result.drawnMs)}, drawing alone`,
        ratio: `${(result.encodedMs / result.drawnMs).toFixed(2)} × the time`,
        wanted: 'at most 1.25 ×',
        holds: result.encodedMs <= 1.25 * result.drawnMs,
      },
      {
        what: 'finished frame 1280 × 720, 4 passes: sun and contacts drawn anew',
        ours: `${(result.finishedMs / 1000).toFixed(2)} s`,
        baseline: `${(result.plainMs / 1000).toFixed(2)} s, the bake alone`,
        ratio: `${(result.finishedMs / result.plainMs).toFixed(2)} × the time`,
        wanted: '',
        holds: null,
      },
    ];
  } finally {
    await browser.close();
    listening.close();
  }
}
