import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { buildWeb } from '../scripts/lib/build.mjs';
import { removeCluster, startCluster } from '../scripts/lib/postgres.mjs';
import { runOnce } from '../scripts/lib/server.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    environment: Record<string, string>;
  }
}

/** A throw-away cluster holding the demo data, and the built web client; each test file works on its own copy (driver/product.ts). */
export default async function setup(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), 'yonder-e2e-'));
  chmodSync(folder, 0o755); // the database's own user has to enter it
  const cluster = await startCluster({
    folder: join(folder, 'pg'),
    secretFile: join(folder, 'secret'),
    durable: false,
  });
  const environment = {
    DATABASE_URL: cluster.url,
    YONDER_SESSION_SECRET: 'a secret for browser tests only',
    YONDER_WEB_DIST: await buildWeb(),
    YONDER_LOG_LEVEL: 'error',
    PORT: '0',
  };
  await runOnce('server/src/demo/main.ts', environment);
  project.provide('environment', environment);
  return async () => {
    await cluster.stop();
    await removeCluster(cluster.folder);
    rmSync(folder, { recursive: true, force: true });
  };
}
