// Types, lint, format, layers, unused code, names. Everything runs; the end says what failed.
import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { must, ROOT, run, TSC } from './lib/run.mjs';

// The longest comes first, so that the others fill what it leaves.
const CHECKS = [
  ['lint', ['npx', 'eslint', '.']],
  // Floating promises are lost errors. This needs types, so it runs where promises live.
  [
    'promises',
    [
      'npx',
      'oxlint',
      '--type-aware',
      '--deny-warnings',
      ...['web', 'server', 'render', 'demo'].map((part) => `${part}/src`),
    ],
  ],
  ['types', ['node', TSC, '-p', 'core']],
  // The others read of core what it was built to: its sources are looked at once.
  ...['web', 'server', 'e2e', 'demo', 'bench', 'render'].map((part) => [
    'types',
    ['node', TSC, '-p', part, '--customConditions', 'null'],
  ]),
  ['format', ['npx', 'prettier', '--check', '--log-level', 'warn', '.']],
  [
    'layers',
    [
      'npx',
      'depcruise',
      '--config',
      '.dependency-cruiser.mjs',
      'core',
      'render',
      'web',
      'server',
      'demo',
      'e2e',
      'bench',
    ],
  ],
  ['unused code', ['npx', 'knip']],
];
const names = join(ROOT, '../shared/tools/check-names.mjs');
if (existsSync(names)) CHECKS.push(['names', ['node', names, '.']]);

// Configurations read the demo's own settings, built.
await must('node', [TSC, '-b', 'demo/tsconfig.build.json']);
const failed = [];
const waiting = CHECKS.values();
const hand = async () => {
  for (const [what, [command, ...args]] of waiting)
    if ((await run(command, args)) !== 0) failed.push(`${what} (${args.join(' ')})`);
};
await Promise.all(Array.from({ length: Math.min(2, availableParallelism()) }, hand));
console.log(failed.length === 0 ? 'lint: all fine' : `lint: ${failed.join(', ')} failed`);
process.exit(failed.length === 0 ? 0 : 1);
