import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { root } from './paths.mjs';
import { runVisible } from './run.mjs';

const WEB = [
  'web/src',
  'web/index.html',
  'web/vite.config.ts',
  'web/public',
  'core/src',
  'scripts/lib/build.mjs',
  'package-lock.json',
];
const SERVER = ['server/src', 'server/build.mjs', 'core/src', 'package-lock.json'];

/** Fingerprint of everything something is built from, by path and content. */
function fingerprint(inputs) {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    const stat = statSync(path);
    if (stat.isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else if (!/\.test\.tsx?$/.test(path)) hash.update(path).update(readFileSync(path));
  };
  for (const input of inputs) visit(join(root, input));
  return hash.digest('hex');
}

/** Builds into a folder unless nothing changed since the last time; returns the folder. */
async function buildUnlessCurrent(dist, inputs, what, build) {
  const stamp = join(dist, '.fingerprint');
  const wanted = fingerprint(inputs);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return dist;
  console.log(`Building the ${what} …`);
  if ((await build()) !== 0) throw new Error(`the ${what} could not be built`);
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, wanted);
  return dist;
}

/** Builds the web client; returns its folder. */
export function buildWeb() {
  const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js');
  return buildUnlessCurrent(join(root, 'web', 'dist'), WEB, 'web client', () =>
    runVisible(process.execPath, [vite, 'build', '--logLevel', 'warn'], {
      cwd: join(root, 'web'),
      env: { ...process.env, NODE_ENV: 'production' }, // a test runner sets another; what is tested is what is served
    }),
  );
}

/** Bundles the server; returns the folder with `main.js`, `migrate.js` and `demo.js`. */
export function buildServer() {
  return buildUnlessCurrent(join(root, 'server', 'dist'), SERVER, 'server', () =>
    runVisible(process.execPath, [join(root, 'server', 'build.mjs')], { cwd: root }),
  );
}
