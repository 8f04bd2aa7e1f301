import { defineConfig } from 'vitest/config';

const COUNTING = 'core/src/assess/assess.test.ts';

// One seed for every property (core/src/testing/forAll.ts); `npm run deep` draws from others, and more.
const provide = {
  properties: {
    seed: Number(process.env.YONDER_SEED ?? 20_270_301),
    times: Number(process.env.YONDER_TIMES ?? 1),
  },
};
// Bounds that a busy machine keeps as well; what takes long on a quiet one belongs to `npm run deep`.
const testTimeout = 60_000;
// Workers live for minutes and throw away much: a larger young generation and a later compiler save a tenth of the processor.
const execArgv = ['--max-semi-space-size=64', '--interrupt-budget=400000'];

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
          execArgv,
          testTimeout,
          provide,
        },
      },
      { test: { name: 'core-counted', include: [COUNTING], testTimeout, provide } },
      // Statistics and long searches: run by `npm run deep`, not by `npm test`.
      {
        test: {
          name: 'deep',
          include: ['core/**/*.deep.ts'],
          isolate: false,
          testTimeout: 3_600_000,
          provide,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          isolate: false,
          execArgv,
          globalSetup: 'server/src/testing/globalSetup.ts',
          testTimeout,
          hookTimeout: testTimeout,
        },
      },
      {
        test: {
          name: 'web',
          include: ['web/src/**/*.test.ts'],
          isolate: false,
          execArgv,
          testTimeout,
          provide,
        },
      },
      // Forms and hooks in a DOM without a browser.
      {
        test: {
          name: 'forms',
          include: ['web/src/**/*.test.tsx'],
          isolate: false,
          execArgv,
          environment: 'happy-dom',
          setupFiles: 'web/src/testing/dom.ts',
          testTimeout,
          provide,
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          isolate: false,
          globalSetup: 'e2e/globalSetup.ts',
          testTimeout: 240_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});
