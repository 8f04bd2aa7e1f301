// Everything that must hold, in one command: formatting, lint, types, unit, server and browser tests.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/paths.mjs';
import { runVisible } from './lib/run.mjs';
import { checkNode, ensureModules, ensurePackages } from './lib/setup.mjs';

checkNode();
await ensurePackages({ browser: true });
await ensureModules();

const node = process.execPath;
const tool = (path) => join(root, 'node_modules', path);
let passed = 0;
let failed = 0;

async function check(name, args) {
  const code = await runVisible(node, args, { cwd: root });
  if (code === 0) passed += 1;
  else failed += 1;
  console.log(`${code === 0 ? 'ok  ' : 'FAIL'} ${name}`);
}

/** Runs test projects and counts their tests; a run that cannot report counts as one failure. */
async function vitest(...projects) {
  const report = join(root, '.tmp', `vitest-${projects[0]}.json`);
  mkdirSync(join(root, '.tmp'), { recursive: true });
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

await check('formatting', [tool('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']);
await check('lint', [tool('eslint/bin/eslint.js'), '.']);
await check('types', ['scripts/typecheck.mjs']);
await check('case schema is current', ['--import', 'tsx', 'core/cli/writeCaseSchema.ts', '--check']);
await vitest('core', 'web');
await vitest('server');
await vitest('e2e');

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
