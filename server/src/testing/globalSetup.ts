import { mkdtempSync, rmSync, chmodSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { removeCluster, startCluster } from '../../../scripts/lib/postgres.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    databaseUrl: string;
  }
}

/** One throw-away PostgreSQL cluster for all server tests. */
export default async function setup(project: TestProject) {
  const base = mkdtempSync(join(tmpdir(), 'yonder-test-'));
  chmodSync(base, 0o755); // the database's own user has to enter it
  const cluster = await startCluster({
    folder: join(base, 'pg'),
    secretFile: join(base, 'secret'),
    durable: false,
  });
  project.provide('databaseUrl', cluster.url);
  return async () => {
    await cluster.stop();
    await removeCluster(cluster.folder);
    rmSync(base, { recursive: true, force: true });
  };
}
