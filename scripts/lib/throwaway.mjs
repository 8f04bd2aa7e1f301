import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildWeb } from './build.mjs';
import { removeCluster, startCluster } from './postgres.mjs';
import { runOnce } from './server.mjs';

/** A cluster that is thrown away; `end` stops and removes it. */
export async function throwawayCluster(name) {
  const folder = mkdtempSync(join(tmpdir(), `yonder-${name}-`));
  chmodSync(folder, 0o755); // the database's own user has to enter it
  const cluster = await startCluster({
    folder: join(folder, 'pg'),
    secretFile: join(folder, 'secret'),
    durable: false,
  });
  const end = async () => {
    await cluster.stop();
    await removeCluster(cluster.folder);
    rmSync(folder, { recursive: true, force: true });
  };
  return { url: cluster.url, logFile: join(cluster.folder, 'server.log'), end };
}

/** The whole product on a throw-away cluster with the demo data: its environment, and what ends it. */
export async function throwawayProduct(name) {
  const { url, logFile, end } = await throwawayCluster(name);
  const environment = {
    DATABASE_URL: url,
    YONDER_SESSION_SECRET: 'a secret for throw-away data only',
    YONDER_WEB_DIST: await buildWeb(),
    YONDER_LOG_LEVEL: 'error',
    PORT: '0',
  };
  await runOnce('migrate', environment);
  await runOnce('demo', environment);
  return { environment, url, logFile, end };
}
