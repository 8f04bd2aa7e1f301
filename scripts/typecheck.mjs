// Type-checks every workspace with the fast compiler; exits 1 when one of them fails.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const projects = [
  'core/tsconfig.json',
  'core/tsconfig.node.json',
  'server/tsconfig.json',
  'web/tsconfig.json',
  'e2e/tsconfig.json',
];
let failed = false;
for (const project of projects.filter((file) => existsSync(file))) {
  const run = spawnSync(process.execPath, ['node_modules/typescript7/bin/tsc', '-p', project], {
    stdio: 'inherit',
  });
  failed ||= run.status !== 0;
}
process.exit(failed ? 1 : 0);
