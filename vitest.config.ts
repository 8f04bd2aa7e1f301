import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['core/**/*.test.ts'], testTimeout: 60_000 } },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          globalSetup: 'server/src/testing/globalSetup.ts',
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      { test: { name: 'web', include: ['web/src/**/*.test.ts'], testTimeout: 20_000 } },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          globalSetup: 'e2e/globalSetup.ts',
          testTimeout: 240_000,
          hookTimeout: 120_000,
          maxWorkers: 2,
        },
      },
    ],
  },
});
