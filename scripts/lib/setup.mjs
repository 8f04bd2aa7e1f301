// What a fresh machine lacks, installed by the project itself.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './paths.mjs';
import { postgresBin } from './postgres.mjs';
import { isRoot, run, runVisible } from './run.mjs';

const CHROMIUM = '/usr/bin/chromium';

function onPath(program) {
  return run('sh', ['-c', `command -v ${program}`]).status === 0;
}

/** Debian packages that are missing for what is asked. */
function missingPackages({ browser }) {
  const missing = [];
  if (!postgresBin()) missing.push('postgresql');
  if (browser && !existsSync(CHROMIUM)) missing.push('chromium');
  if (browser && !onPath('pdftotext')) missing.push('poppler-utils');
  if (isRoot && !onPath('runuser')) missing.push('util-linux');
  return missing;
}

/** Installs missing Debian packages as root; otherwise says the exact line to run and ends. */
export async function ensurePackages(needs = { browser: false }) {
  const missing = missingPackages(needs);
  if (missing.length === 0) return;
  const line = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!isRoot) {
    console.error(`Missing on this machine: ${missing.join(', ')}. Run once:\n\n  sudo sh -c '${line}'\n`);
    process.exit(1);
  }
  console.log(`Installing ${missing.join(', ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const quiet = run('sh', ['-c', line], { env, maxBuffer: 64 * 1024 * 1024 });
  if (quiet.status !== 0) {
    console.error(
      `${quiet.stdout.slice(-2000)}\n${quiet.stderr.slice(-2000)}\nCould not install them. Try: ${line}`,
    );
    process.exit(1);
  }
}

/** Runs `npm ci` when the lock file changed since the last time (or was never installed). */
export async function ensureModules({ quiet = false } = {}) {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules', '.yonder-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  if (!quiet) console.log('Installing packages (npm ci) …');
  const stdio = quiet ? ['ignore', 'ignore', 'inherit'] : 'inherit';
  const code = await runVisible('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio,
  });
  if (code !== 0) process.exit(code);
  mkdirSync(join(root, 'node_modules'), { recursive: true });
  writeFileSync(stamp, lock);
}

/** Node 20.20 or newer, said plainly. */
export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 20)) return;
  console.error(`Node.js 20.20 or newer is needed; this is ${process.versions.node}.`);
  process.exit(1);
}
