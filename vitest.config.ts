import { defineConfig } from 'vitest/config';

const COUNTING = 'core/src/assess/assess.test.ts';

export default defineConfig({
  test: {
    maxWorkers: 2,
    projects: [
      // Pure functions share a worker's modules: the reference is read once, not once a file. What counts calls stands alone.
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts'],
          exclude: [COUNTING],
          isolate: false,
          testTimeout: 60_000,
        },
      },
      { test: { name: 'core-counted', include: [COUNTING], testTimeout: 60_000 } },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          isolate: false,
          globalSetup: 'server/src/testing/globalSetup.ts',
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      { test: { name: 'web', include: ['web/src/**/*.test.ts'], isolate: false, testTimeout: 20_000 } },
      // Forms and hooks in a DOM without a browser.
      {
        test: {
          name: 'forms',
          include: ['web/src/**/*.test.tsx'],
          environment: 'happy-dom',
          setupFiles: 'web/src/testing/dom.ts',
          testTimeout: 20_000,
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          maxWorkers: 3,
          globalSetup: 'e2e/globalSetup.ts',
          testTimeout: 240_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});
