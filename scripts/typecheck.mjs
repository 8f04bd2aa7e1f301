// Type-checks every workspace once with the fast compiler; a project reads the declarations of those it refers to.
import { spawnSync } from 'node:child_process';

const { status } = spawnSync(process.execPath, ['node_modules/typescript7/bin/tsc', '--build'], {
  stdio: 'inherit',
});
process.exit(status ?? 1);
