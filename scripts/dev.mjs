// Development: database, server and Vite, each reloading on change. Ctrl-C stops all of it.
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/paths.mjs';
import { freePort, startCluster } from './lib/postgres.mjs';
import { runOnce } from './lib/server.mjs';
import { checkNode, ensureModules, ensurePackages } from './lib/setup.mjs';

checkNode();
await ensurePackages();
await ensureModules();
const data = join(root, '.data');
mkdirSync(data, { recursive: true });
const cluster = await startCluster({
  folder: join(data, 'postgres-dev'),
  secretFile: join(data, 'postgres-dev.secret'),
});
const port = String(await freePort(4700));
const environment = {
  DATABASE_URL: cluster.url,
  YONDER_SESSION_SECRET: 'development only, not for real data',
  YONDER_LOG_LEVEL: 'info',
  PORT: port,
};
await runOnce('migrate', environment);
await runOnce('demo', environment);

const start = (command, args, env, cwd = root) =>
  spawn(command, args, { cwd, stdio: 'inherit', env: { ...process.env, ...env } });
const node = process.execPath;
const children = [
  start(
    node,
    ['--import', 'tsx', '--watch-path=server/src', '--watch-path=core/src', 'server/src/main.ts'],
    environment,
  ),
  start(
    node,
    [join(root, 'node_modules/vite/bin/vite.js')],
    { YONDER_API: `http://127.0.0.1:${port}` },
    join(root, 'web'),
  ),
];
let stopping = false;
const stop = async () => {
  if (stopping) return;
  stopping = true;
  for (const child of children) child.kill('SIGTERM');
  await cluster.stop();
  process.exit(0);
};
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
console.log('Sign in with rowan@northfell.example / ridge-walk at the address Vite prints.');
