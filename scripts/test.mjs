// Everything that must hold, in one command: formatting, lint, types, the house's own rules, unit, server and browser tests.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/paths.mjs';
import { runQuiet, runVisible } from './lib/run.mjs';
import { checkNode, ensureModules, ensurePackages } from './lib/setup.mjs';

checkNode();
await ensurePackages({ browser: true });
await ensureModules();

const node = process.execPath;
const tool = (path) => join(root, 'node_modules', path);
let passed = 0;
let failed = 0;

/** Runs a check and keeps what it says together; several go on at once. */
async function check(name, args) {
  const { status, output } = await runQuiet(node, args, { cwd: root });
  if (status === 0) passed += 1;
  else failed += 1;
  console.log(`${status === 0 ? 'ok  ' : 'FAIL'} ${name}${status === 0 ? '' : `\n${output}`}`);
}

/** Runs test projects and counts their tests; a run that cannot report counts as one failure. */
async function vitest(...projects) {
  const report = join(root, '.tmp', `vitest-${projects[0]}.json`);
  rmSync(report, { force: true });
  const args = ['run', ...projects.flatMap((project) => ['--project', project])];
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${report}`];
  const code = await runVisible(node, [tool('vitest/vitest.mjs'), ...args, ...reporters], { cwd: root });
  try {
    const { numPassedTests, numFailedTests, numTotalTests, success } = JSON.parse(
      readFileSync(report, 'utf8'),
    );
    passed += numPassedTests;
    failed += numFailedTests;
    if ((!success || code !== 0) && numFailedTests === 0) failed += 1; // a file that did not load, an unhandled error
    if (numTotalTests === 0) failed += 1;
  } catch {
    failed += 1;
  }
}

const cache = (tool) => join(root, '.tmp', `${tool}-cache`);
const openApi = join(root, '.tmp', 'openapi.json');
mkdirSync(join(root, '.tmp'), { recursive: true });

/** Two rows of checks beside each other. */
async function checks() {
  await Promise.all([
    check('formatting', [
      tool('prettier/bin/prettier.cjs'),
      '--check',
      '--log-level',
      'warn',
      '--cache',
      '--cache-location',
      cache('prettier'),
      '.',
    ]),
    (async () => {
      await check('types', ['scripts/typecheck.mjs']);
      await check('case schema is current', ['--import', 'tsx', 'core/cli/writeCaseSchema.ts', '--check']);
      await check('no circles', [
        tool('dependency-cruiser/bin/dependency-cruise.mjs'),
        '--config',
        '.dependency-cruiser.mjs',
        ...['core/src', 'core/cli', 'server/src', 'web/src', 'e2e'],
      ]);
      await check('nothing unused', [tool('knip/bin/knip.js')]);
      await check('documentation, length and share of tests', ['scripts/measure.mjs']);
    })(),
    check('lint', [tool('eslint/bin/eslint.js'), '--cache', '--cache-location', cache('eslint'), '.']),
  ]);
  const { status, output } = await runQuiet(node, ['--import', 'tsx', 'server/src/http/writeOpenApi.ts'], {
    cwd: root,
  });
  writeFileSync(openApi, output);
  if (status !== 0) failed += 1;
  process.env.REDOCLY_TELEMETRY = 'off';
  process.env.REDOCLY_SUPPRESS_UPDATE_NOTICE = 'true';
  await check('the API’s description', [tool('@redocly/cli/bin/cli.js'), 'lint', openApi]);
}

await checks();
await vitest('core', 'core-counted', 'web', 'forms', 'server');
await vitest('e2e');

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
