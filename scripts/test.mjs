// All tests: lint, then core, server and web by Jest, then stories in a browser. Sets up what they need by itself.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { ROOT, run } from './lib/run.mjs';
import { installModules, installPackages } from './lib/setup.mjs';

const [only, ...more] = process.argv.slice(2);
const wanted = (part) => only === undefined || only === part;

await installPackages();
await installModules();
const { withDatabase, withStudio } = await import('./lib/studio.mjs');

let passed = 0;
let failed = 0;
const count = (ok, bad) => {
  passed += ok;
  failed += bad;
};

async function unitTests({ database, home }) {
  const report = join(home, 'jest.json');
  const code = await run('npx', ['jest', '--json', `--outputFile=${report}`, '--silent', ...more], {
    // Jest's own account goes to stderr; stdout would repeat the report.
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
      ESKOVAN_TEST_DATABASE: database.url,
    },
  });
  const result = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
  const broken = (result?.numFailedTests ?? 0) + (result?.numRuntimeErrorTestSuites ?? 0);
  count(result?.numPassedTests ?? 0, broken === 0 && code !== 0 ? 1 : broken);
}

async function stories({ address, database }) {
  const code = await run('npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts', ...more], {
    env: { ...process.env, ESKOVAN_ADDRESS: address, ESKOVAN_TEST_DATABASE: database.url },
  });
  const path = join(ROOT, 'test-results', 'stories.json');
  const stats = existsSync(path)
    ? JSON.parse(readFileSync(path, 'utf8')).stats
    : { expected: 0, flaky: 0, unexpected: 1 };
  count(stats.expected + stats.flaky, stats.unexpected === 0 && code !== 0 ? 1 : stats.unexpected);
}

if (wanted('lint')) count(...((await run('node', ['scripts/lint.mjs'])) === 0 ? [1, 0] : [0, 1]));
if (wanted('unit')) await withDatabase(unitTests);
if (wanted('stories')) {
  await build();
  rmSync(join(ROOT, 'test-results'), { recursive: true, force: true });
  await withStudio({ say: (text) => console.log(text) }, stories);
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
