// Starts the demo: installs what is missing, database, migrations, demo data, web client, server.
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildWeb } from './lib/build.mjs';
import { root } from './lib/paths.mjs';
import { freePort, removeCluster, startCluster } from './lib/postgres.mjs';
import { startServer, runOnce } from './lib/server.mjs';
import { checkNode, ensureModules, ensurePackages } from './lib/setup.mjs';

const reset = process.argv.includes('--reset');
const data = join(root, '.data');
const started = Date.now();

checkNode();
const external = process.env.DATABASE_URL;
if (!external) await ensurePackages();
await ensureModules();
mkdirSync(data, { recursive: true });

/** Everything started here, stopped in reverse order on Ctrl-C, on failure and at the end. */
const stops = [];
let stopping = false;
async function stopAll(code) {
  if (stopping) return;
  stopping = true;
  for (const stop of stops.reverse()) await stop();
  process.exit(code);
}
process.on('SIGINT', () => void stopAll(0));
process.on('SIGTERM', () => void stopAll(0));
process.on('SIGHUP', () => void stopAll(0));

function secret(name) {
  const file = join(data, name);
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

async function openCluster() {
  const options = { folder: join(data, 'postgres'), secretFile: join(data, 'postgres.secret') };
  let cluster = await startCluster(options);
  if (reset) {
    await cluster.stop();
    await removeCluster(cluster.folder);
    cluster = await startCluster(options);
  }
  stops.push(cluster.stop);
  return cluster.url;
}

try {
  const databaseUrl = external ?? (await openCluster());
  const webDist = await buildWeb();
  const environment = {
    DATABASE_URL: databaseUrl,
    YONDER_SESSION_SECRET: secret('session.secret'),
    YONDER_WEB_DIST: webDist,
    YONDER_LOG_LEVEL: process.env.YONDER_LOG_LEVEL ?? 'warn',
    PORT: process.env.PORT ?? String(await freePort(4600)),
  };
  await runOnce('migrate', environment);
  await runOnce('demo', environment);
  const server = await startServer(environment);
  stops.push(server.stop);
  server.exited.then((code) => void stopAll(code ?? 1));
  console.log(`
  Yonder Ridge is ready after ${Math.round((Date.now() - started) / 1000)} s

    http://127.0.0.1:${server.port}
    E-mail    rowan@northfell.example
    Password  ridge-walk

  All people and data are made up. Ctrl-C stops everything.
`);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  await stopAll(1);
}
