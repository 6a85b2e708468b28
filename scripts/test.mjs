// All tests: server and web by Jest, beside servers that die; then stories in a browser, beside what core computes and
// lint. Sets up what they need by itself.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { ROOT, run } from './lib/run.mjs';
import { installModules, installPackages } from './lib/setup.mjs';

const [only, ...more] = process.argv.slice(2);
const wanted = (part) => only === undefined || only === part;

await installPackages();
await installModules();
const { withDatabase, withFolder, withStudio } = await import('./lib/studio.mjs');

let passed = 0;
let failed = 0;
const count = (ok, bad) => {
  passed += ok;
  failed += bad;
};

/** What each part of it took, seconds: told at the end. */
const took = [];
async function timed(what, work) {
  const began = performance.now();
  await work();
  took.push(`${what} ${Math.round((performance.now() - began) / 1000)} s`);
}

/** @param projects of Jest's */
async function unitTests(projects, { database, home }, { aside = false } = {}) {
  const report = join(home, 'jest.json');
  // Some were asked for: not every project has some of those.
  const some = more.length > 0 ? ['--passWithNoTests'] : [];
  const options = ['--selectProjects', ...projects, '--json', `--outputFile=${report}`, '--silent', ...some];
  const code = await run('npx', ['jest', ...options, ...more], {
    aside,
    // Jest's own account goes to stderr; stdout would repeat the report.
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
      ...(database && { ESKOVAN_TEST_DATABASE: database.url }),
    },
  });
  const result = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
  const broken = (result?.numFailedTests ?? 0) + (result?.numRuntimeErrorTestSuites ?? 0);
  count(result?.numPassedTests ?? 0, broken === 0 && code !== 0 ? 1 : broken);
}

/** Runs a project of Playwright's. */
async function played(project, { home, database, address }) {
  const report = join(home, `${project}.json`);
  const results = join(ROOT, 'test-results', project);
  const options = ['-c', 'e2e/playwright.config.ts', `--project=${project}`, '--output', results];
  const code = await run('npx', ['playwright', 'test', ...options, ...more], {
    env: {
      ...process.env,
      PLAYWRIGHT_JSON_OUTPUT_NAME: report,
      ESKOVAN_TEST_DATABASE: database.url,
      ...(address && { ESKOVAN_ADDRESS: address }),
    },
  });
  const stats = existsSync(report)
    ? JSON.parse(readFileSync(report, 'utf8')).stats
    : { expected: 0, flaky: 0, unexpected: 1 };
  count(stats.expected + stats.flaky, stats.unexpected === 0 && code !== 0 ? 1 : stats.unexpected);
}

async function lint() {
  count(...((await run('node', ['scripts/lint.mjs'], { aside: true })) === 0 ? [1, 0] : [0, 1]));
}

if (wanted('durability') || wanted('stories')) await timed('build', build);
const unit = async (what, tests) => wanted('unit') && timed(`unit tests of ${what}`, tests);
const units = () => unit('server and web', () => withDatabase((given) => unitTests(['server', 'web'], given)));
const computed = () => unit('core', () => withFolder((given) => unitTests(['core'], given, { aside: true })));
const killed = async () =>
  wanted('durability') && timed('servers that die', () => withDatabase((given) => played('durability', given)));
const told = async () => {
  if (!wanted('stories')) return;
  const began = performance.now();
  // Stories look at what a take is, not at this one.
  await withStudio({ brief: true, say: (text) => console.log(text) }, async (given) => {
    took.push(`demo ${Math.round((performance.now() - began) / 1000)} s`);
    await timed('stories', () => played('stories', given));
  });
};
// A server that dies and comes back leaves the machine idle half of the time.
await Promise.all([units(), killed()]);
// Stories wait for a page every now and then; what needs nobody's answer takes that time and no other.
await Promise.all([told(), computed().then(() => wanted('lint') && timed('lint', lint))]);
// Words that name no test must not look like tests that pass.
if (passed + failed === 0) failed = 1;
console.log(took.join(', '));
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
