// Runs the command line of the core; everything it needs beyond Node is in node_modules.
import { spawnSync } from 'node:child_process';
import { root } from './lib/paths.mjs';
import { ensureModules } from './lib/setup.mjs';

await ensureModules({ quiet: true });
const run = spawnSync(process.execPath, ['--import', 'tsx', 'core/cli/main.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(run.status ?? 1);
