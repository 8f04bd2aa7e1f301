import { connect, createServer } from 'node:net';
import type { AddressInfo, Socket } from 'node:net';
import pg from 'pg';
import type { RunningServer } from '../../scripts/lib/server.mjs';
import { startServer } from '../../scripts/lib/server.mjs';

type Environment = Readonly<Record<string, string>>;

/** The product as a practice meets it: an address, and what stands behind it. */
export interface Product {
  readonly base: string;
  /** The servers end and come back at the same address, as after an update. */
  readonly restart: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

/** Runs a statement at the cluster's own database, where nothing of the product lives. */
async function atCluster(databaseUrl: string, statement: string): Promise<void> {
  const client = new pg.Client({ connectionString: new URL('/postgres', databaseUrl).href });
  await client.connect();
  await client.query(statement).finally(() => client.end());
}

let copies = 0;

/** A copy of the database that an environment names; `drop` throws it away. */
export async function copiedDatabase(environment: Environment) {
  const url = new URL(environment.DATABASE_URL ?? '');
  const name = `${url.pathname.slice(1)}_${process.pid}_${(copies += 1)}`;
  await atCluster(
    url.href,
    `CREATE DATABASE "${name}" TEMPLATE "${url.pathname.slice(1)}" STRATEGY file_copy`,
  );
  url.pathname = `/${name}`;
  return { url: url.href, drop: () => atCluster(url.href, `DROP DATABASE "${name}" WITH (FORCE)`) };
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

/** Two server processes behind one address, so that nothing can be remembered by one process alone. */
export async function startProduct(environment: Environment): Promise<Product> {
  let servers: RunningServer[] = await Promise.all([startServer(environment), startServer(environment)]);
  const ports = servers.map((server) => server.port);
  const { base, close } = await inFront(ports);
  const end = () => Promise.all(servers.map((server) => server.stop()));
  return {
    base,
    restart: async () => {
      await end();
      servers = await Promise.all(ports.map((port) => startServer({ ...environment, PORT: String(port) })));
    },
    stop: async () => {
      close();
      await end();
    },
  };
}
