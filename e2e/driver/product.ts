import { connect, createServer } from 'node:net';
import type { AddressInfo, Socket } from 'node:net';
import pg from 'pg';
import { afterAll, inject } from 'vitest';
import type { RunningServer } from '../../scripts/lib/server.mjs';
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

/** One address in front of several servers: every connection goes to the next one, as behind a load balancer. */
async function inFront(ports: readonly number[]) {
  let next = 0;
  const open = new Set<Socket>();
  const proxy = createServer((client) => {
    next += 1;
    const server = connect(ports[next % ports.length] ?? 0, '127.0.0.1');
    for (const [socket, other] of [
      [client, server],
      [server, client],
    ] as const) {
      open.add(socket);
      socket.on('error', () => other.destroy());
      socket.on('close', () => {
        open.delete(socket);
        other.destroy();
      });
      socket.pipe(other);
    }
  });
  await new Promise<void>((done) => proxy.listen(0, '127.0.0.1', done));
  const address = proxy.address() as AddressInfo;
  const close = () => {
    for (const socket of open) socket.destroy();
    proxy.close();
  };
  return { base: `http://127.0.0.1:${address.port}`, close };
}

/**
 * The product as one test file has it: its own copy of the demo data and two server processes behind one address,
 * so that no file sees what another one did and nothing can be remembered by one process alone.
 */
async function startProduct() {
  const url = new URL(inject('environment').DATABASE_URL ?? '');
  const seeded = url.pathname.slice(1);
  const own = `${seeded}_${process.pid}_${Date.now()}`;
  await atCluster(`CREATE DATABASE "${own}" TEMPLATE "${seeded}" STRATEGY file_copy`);
  url.pathname = `/${own}`;
  const environment = { ...inject('environment'), DATABASE_URL: url.href };
  let servers: RunningServer[] = await Promise.all([startServer(environment), startServer(environment)]);
  const ports = servers.map((server) => server.port);
  const { base, close } = await inFront(ports);
  const end = () => Promise.all(servers.map((server) => server.stop()));
  const stop = async () => {
    close();
    await end();
    await atCluster(`DROP DATABASE "${own}" WITH (FORCE)`);
  };
  /** The servers end and come back at the same address, as after an update. */
  const restart = async () => {
    await end();
    servers = await Promise.all(ports.map((port) => startServer({ ...environment, PORT: String(port) })));
  };
  return { base, environment, restart, stop };
}

export const product = await startProduct();
afterAll(product.stop);
