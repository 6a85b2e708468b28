// Runs all benchmarks and writes the table to docs/benchmarks.md.
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { build } from './lib/build.mjs';
import { ROOT, run } from './lib/run.mjs';
import { installModules, installPackages } from './lib/setup.mjs';

await installPackages();
await installModules();
await build();
const { DEMO_CACHE, withStudio } = await import('./lib/studio.mjs');
const { benchPath } = await import('../bench/path.mjs');
const { benchRays } = await import('../bench/rays.mjs');
const { benchFilm } = await import('../bench/film.mjs');
const { benchInteraction } = await import('../bench/interaction.mjs');
const { benchSite } = await import('../bench/site.mjs');
const { benchHeavy } = await import('../bench/heavy.mjs');
const { benchViews } = await import('../bench/views.mjs');
const { benchReelScreen } = await import('../bench/reel-screen.mjs');
const { benchServer } = await import('../bench/server.mjs');

const rows = [...benchPath(), ...(await benchRays()), ...(await benchSite()), ...(await benchFilm(DEMO_CACHE))];
rows.push(
  ...(await withStudio({ pictures: false }, async ({ address, database }) => [
    ...(await benchInteraction(address)),
    ...(await benchViews(address)),
    ...(await benchReelScreen(address)),
    ...(await benchHeavy(address)),
    ...(await benchServer(address, database.url)),
  ])),
);
const mark = (holds) => (holds === null ? '' : holds ? 'yes' : 'no');
const table = [
  '| figure | ours | beside it | ratio | wanted | holds |',
  '|---|---|---|---|---|---|',
  ...rows.map(
    (row) => `| ${row.what} | ${row.ours} | ${row.baseline} | ${row.ratio} | ${row.wanted} | ${mark(row.holds)} |`,
  ),
].join('\n');
console.log(table);
writeFileSync(
  join(ROOT, 'docs/benchmarks.md'),
  `# Benchmarks\n\nWritten by \`npm run bench\` on ${new Date().toISOString().slice(0, 10)}: ${cpus().length} × ${cpus()[0].model.trim()}, no graphics card. Medians; each figure and what stands beside it come from the same run.\n\n${table}\n`,
);
await run('npx', ['prettier', '--log-level', 'warn', '--write', 'docs/benchmarks.md']);
