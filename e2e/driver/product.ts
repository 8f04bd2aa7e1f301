import pg from 'pg';
import { afterAll, inject } from 'vitest';
import { startServer } from '../../scripts/lib/server.mjs';

/** Runs statements at the cluster's own database, where nothing of the product lives. */
async function atCluster(...statements: string[]): Promise<void> {
  const url = new URL(inject('environment').DATABASE_URL ?? '');
  url.pathname = '/postgres';
  const client = new pg.Client({ connectionString: url.href });
  await client.connect();
  try {
    for (const statement of statements) await client.query(statement);
  } finally {
    await client.end();
  }
}

/**
 * The product as one test file has it: its own copy of the demo data and its own server,
 * so that no file sees what another one did and the order of files means nothing.
 */
async function startProduct() {
  const url = new URL(inject('environment').DATABASE_URL ?? '');
  const seeded = url.pathname.slice(1);
  const own = `${seeded}_${process.pid}_${Date.now()}`;
  await atCluster(`CREATE DATABASE "${own}" TEMPLATE "${seeded}"`);
  url.pathname = `/${own}`;
  const environment = { ...inject('environment'), DATABASE_URL: url.href };
  let server = await startServer(environment);
  const { port } = server;
  const stop = async () => {
    await server.stop();
    await atCluster(`DROP DATABASE "${own}" WITH (FORCE)`);
  };
  /** The server ends and comes back at the same address, as after an update. */
  const restart = async () => {
    await server.stop();
    server = await startServer({ ...environment, PORT: String(port) });
  };
  return { base: `http://127.0.0.1:${port}`, environment, restart, stop };
}

export const product = await startProduct();
afterAll(product.stop);
