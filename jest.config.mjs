import { availableParallelism } from 'node:os';

const shared = {
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true, decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true, react: { runtime: 'automatic' } },
          target: 'es2022',
          experimental: { keepImportAttributes: true },
        },
        module: { type: 'es6' },
      },
    ],
  },
  testPathIgnorePatterns: ['/node_modules/', '/dist/', '/e2e/'],
  modulePathIgnorePatterns: ['/dist/'],
};
const node = {
  ...shared,
  testEnvironment: '<rootDir>/scripts/lib/test-environment.mjs',
  testEnvironmentOptions: { customExportConditions: ['@eskovan/source', 'node', 'node-addons'] },
};

export default {
  // No test depends on speed: a busy neighbour fails none, and what is run beside stories gives way to them.
  testTimeout: 240_000,
  maxWorkers: Math.min(4, availableParallelism()),
  projects: [
    { ...node, displayName: 'core', roots: ['<rootDir>/core/src', '<rootDir>/demo/src', '<rootDir>/render/src'] },
    { ...node, displayName: 'server', roots: ['<rootDir>/server/src'] },
    {
      ...shared,
      displayName: 'web',
      // One file instead of two thousand: half a second in every test.
      moduleNameMapper: { '^lucide-react$': '<rootDir>/node_modules/lucide-react/dist/cjs/lucide-react.js' },
      roots: ['<rootDir>/web/src'],
      testEnvironment: 'jsdom',
      setupFiles: ['<rootDir>/web/test-setup.mjs'],
      testEnvironmentOptions: { customExportConditions: ['@eskovan/source', 'browser'] },
    },
  ],
};
