import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './paths.mjs';
import { runVisible } from './run.mjs';

const INPUTS = [
  'web/src',
  'web/index.html',
  'web/vite.config.ts',
  'web/public',
  'core/src',
  'scripts/lib/build.mjs',
  'package-lock.json',
];

/** Fingerprint of everything the web client is built from, by path, size and time. */
function fingerprint() {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    const stat = statSync(path);
    if (stat.isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else if (!path.endsWith('.test.ts')) hash.update(path).update(readFileSync(path));
  };
  for (const input of INPUTS) visit(join(root, input));
  return hash.digest('hex');
}

/** Builds the web client unless nothing changed since the last build; returns its folder. */
export async function buildWeb() {
  const dist = join(root, 'web', 'dist');
  const stamp = join(dist, '.fingerprint');
  const wanted = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return dist;
  console.log('Building the web client …');
  const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js');
  const code = await runVisible(process.execPath, [vite, 'build', '--logLevel', 'warn'], {
    cwd: join(root, 'web'),
    env: { ...process.env, NODE_ENV: 'production' }, // a test runner sets another; what is tested is what is served
  });
  if (code !== 0) throw new Error('the web client could not be built');
  writeFileSync(stamp, wanted);
  return dist;
}
