import { CHROMIUM } from '@eskovan/demo/seed';
import { defineConfig } from '@playwright/test';

export default defineConfig({
  projects: [
    { name: 'stories', testDir: 'stories' },
    // Servers that die: no browser, and long waits.
    { name: 'durability', testDir: 'durability' },
  ],
  outputDir: '../test-results',
  timeout: 150_000,
  expect: { timeout: 20_000 },
  // One browser at a time: two cores draw, encode and serve.
  workers: 1,
  fullyParallel: false,
  reporter: [
    ['list'],
    ['json', { outputFile: process.env['PLAYWRIGHT_JSON_OUTPUT_NAME'] ?? '../test-results/report.json' }],
  ],
  use: {
    baseURL: process.env['ESKOVAN_ADDRESS'] ?? 'http://localhost:5170',
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    actionTimeout: 20_000,
    // A trace of every step costs a quarter of a story's time: it is kept where somebody asks for it (--trace).
    screenshot: 'only-on-failure',
  },
});
