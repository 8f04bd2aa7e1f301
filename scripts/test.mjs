// Everything that must hold, in one command: formatting, lint, types, the house's own rules, unit, server and browser tests.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/paths.mjs';
import { runQuiet, runVisible } from './lib/run.mjs';
import { checkNode, ensureModules, ensurePackages } from './lib/setup.mjs';
import { throwawayProduct } from './lib/throwaway.mjs';
import { filesToCheck } from './lib/unchanged.mjs';

const node = process.execPath;
const tool = (path) => join(root, 'node_modules', path);
let passed = 0;
let failed = 0;
const times = [];

/** Does a part and notes how long it took; what it gives is given on. */
async function part(name, work) {
  const start = performance.now();
  const result = await work();
  times.push(`${name} ${Math.round((performance.now() - start) / 1000)} s`);
  return result;
}

checkNode();
await part('installing', async () => {
  await ensurePackages({ browser: true });
  await ensureModules();
});
mkdirSync(join(root, '.tmp'), { recursive: true });

function note(name, sound, output = '') {
  if (sound) passed += 1;
  else failed += 1;
  console.log(`${sound ? 'ok  ' : 'FAIL'} ${name}${sound ? '' : `\n${output}`}`);
}

/** Runs a check and keeps what it says together; several go on at once. */
async function check(name, args) {
  const { status, output } = await runQuiet(node, args, { cwd: root });
  note(name, status === 0, output);
}

/** Runs a check on those files alone that it has not passed yet as they are. */
async function checkFiles(name, pattern, settings, args) {
  const { files, passed: allSound } = filesToCheck(name, pattern, settings);
  const { status, output } =
    files.length === 0 ? { status: 0, output: '' } : await runQuiet(node, [...args, ...files], { cwd: root });
  if (status === 0) allSound();
  note(`${name} (${files.length} files new)`, status === 0, output);
}

/** The API's description, written and read against the standard. */
async function checkApi() {
  const openApi = join(root, '.tmp', 'openapi.json');
  const { status, output } = await runQuiet(node, ['--import', 'tsx', 'server/src/http/writeOpenApi.ts'], {
    cwd: root,
  });
  writeFileSync(openApi, output);
  if (status !== 0) failed += 1;
  process.env.REDOCLY_TELEMETRY = 'off';
  process.env.REDOCLY_SUPPRESS_UPDATE_NOTICE = 'true';
  await check('the API’s description', [tool('@redocly/cli/bin/cli.js'), 'lint', openApi]);
}

const PRETTIER = ['--check', '--log-level', 'warn', '--ignore-unknown'];

/** What can be said without running anything: two rows beside each other, the demo data laid at the end of one. */
async function statics() {
  const product = {};
  await Promise.all([
    (async () => {
      const settings = ['.prettierrc.json', '.editorconfig', '.prettierignore', 'package-lock.json'];
      const formatted = /\.(ts|tsx|mjs|json|css|html|ya?ml)$/;
      await checkFiles('formatting', formatted, settings, [tool('prettier/bin/prettier.cjs'), ...PRETTIER]);
      await check('no circles', [
        tool('dependency-cruiser/bin/dependency-cruise.mjs'),
        '--config',
        '.dependency-cruiser.mjs',
        ...['core/src', 'core/cli', 'server/src', 'web/src', 'e2e'],
      ]);
      await check('nothing unused', [tool('knip/bin/knip.js')]);
      await check('documentation, length and share of tests', ['scripts/measure.mjs']);
      Object.assign(product, await throwawayProduct('e2e'));
    })(),
    (async () => {
      const settings = ['eslint.config.mjs', 'package-lock.json'];
      await checkFiles('lint', /\.(ts|tsx|mjs)$/, settings, [
        tool('eslint/bin/eslint.js'),
        '--no-warn-ignored',
      ]);
      await check('types', ['scripts/typecheck.mjs']);
      await check('case schema is current', ['--import', 'tsx', 'core/cli/writeCaseSchema.ts', '--check']);
      await checkApi();
    })(),
  ]);
  return product;
}

/** Runs test projects and counts their tests; a run that cannot report counts as one failure. */
async function vitest(projects, env = {}) {
  const report = join(root, '.tmp', `vitest-${projects[0]}.json`);
  rmSync(report, { force: true });
  const args = ['run', ...projects.flatMap((project) => ['--project', project])];
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${report}`];
  const code = await runVisible(node, [tool('vitest/vitest.mjs'), ...args, ...reporters], {
    cwd: root,
    env: { ...process.env, ...env },
  });
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

const product = await part('static checks and demo data', statics);
try {
  await part('core, web and forms', () => vitest(['core', 'core-counted', 'web', 'forms']));
  await part('server', () => vitest(['server']));
  await part('browser', () => vitest(['e2e'], { YONDER_LAID: JSON.stringify(product.environment) }));
} finally {
  await product.end();
}

console.log(`Times: ${times.join(', ')}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
